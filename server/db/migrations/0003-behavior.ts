import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- What ABC notes are chosen from: the school's to begin from (student_id null), or one student's own.
    create table behavior_choices (
      id uuid primary key,
      student_id uuid references students,
      kind text not null check (kind in ('behavior', 'antecedent', 'consequence', 'setting', 'intensity', 'function')),
      name text not null check (name <> '' and name = btrim(name)),
      words text not null default '',
      position int not null,
      state text not null default 'offered' check (state in ('offered', 'other', 'retired')),
      merged_into uuid references behavior_choices check (merged_into <> id),
      place_id uuid references settings,
      unlike text not null default '',
      direction text not null default 'decrease' check (direction in ('decrease', 'increase')),
      abc boolean not null default true,
      counted boolean not null default false,
      timed boolean not null default false
    );
    -- A name is its own among those that stand for themselves.
    create unique index behavior_choices_name on behavior_choices (student_id, kind, name) where merged_into is null;
    create index behavior_choices_student on behavior_choices (student_id);
    create table behavior_choice_history (
      id bigint generated always as identity primary key,
      choice_id uuid not null references behavior_choices,
      content jsonb not null check (jsonb_typeof(content) = 'object'),
      changed_by uuid not null references people,
      changed_at timestamptz not null
    );
    create index behavior_choice_history_choice on behavior_choice_history (choice_id, id);
    create trigger behavior_choices_stay before delete on behavior_choices for each row execute function refuse_removal();
    create trigger behavior_choice_history_stays before delete or update on behavior_choice_history
      for each row execute function refuse_removal();

    -- Fields of the note that a student's team does not use.
    create table behavior_fields (
      student_id uuid primary key references students,
      left_out text[] not null check (left_out <@ array['setting', 'intensity', 'function', 'duration', 'resolved'])
    );

    create table behavior_phases (
      id uuid primary key,
      student_id uuid not null references students,
      behavior_id uuid references behavior_choices,
      label text not null check (label <> ''),
      starts_on date not null,
      made_by uuid not null references people,
      removed_at timestamptz
    );
    create index behavior_phases_student on behavior_phases (student_id);

    create table abc_notes (
      id uuid primary key,
      student_id uuid not null references students,
      occurred_on date not null,
      occurred_time time not null,
      observer_id uuid not null references people,
      setting_id uuid references behavior_choices,
      behaviors uuid[] not null check (cardinality(behaviors) > 0),
      antecedents uuid[] not null,
      consequences uuid[] not null,
      functions uuid[] not null,
      intensity_id uuid references behavior_choices,
      seconds double precision check (seconds > 0),
      is_going boolean not null,
      resolved boolean,
      resolved_after double precision check (resolved_after > 0),
      note text not null check (char_length(note) <= 4000),
      -- Whose watch it was that this observer sat beside; such a note is for agreement only.
      beside_id uuid references people check (beside_id <> observer_id),
      recorded_by uuid not null references people,
      recorded_at timestamptz not null,
      version int not null default 1 check (version > 0),
      changed_by uuid references people,
      changed_at timestamptz,
      change_reason text check (change_reason <> ''),
      withdrawn boolean not null default false,
      unique (id, student_id, recorded_by),
      check (not (is_going and seconds is not null)),
      check (resolved_after is null or resolved is true),
      check ((version = 1) = (changed_by is null)),
      check ((changed_by is null) = (changed_at is null) and (changed_by is null) = (change_reason is null)),
      check (not withdrawn or version > 1)
    );
    create index abc_notes_newest on abc_notes (student_id, occurred_on desc, occurred_time desc, recorded_at desc)
      where not withdrawn;
    create index abc_notes_going on abc_notes (student_id) where is_going and not withdrawn;
    -- Whether anything was written since a student's notes were read.
    create index abc_notes_stamp on abc_notes (student_id) include (version, recorded_at);
    create table abc_note_history (
      note_id uuid not null references abc_notes,
      version int not null check (version > 0),
      content jsonb not null check (jsonb_typeof(content) = 'object'),
      primary key (note_id, version)
    );

    -- How often, in how long a watch; none is a count too.
    create table tallies (
      id uuid primary key,
      student_id uuid not null references students,
      behavior_id uuid not null references behavior_choices,
      observed_on date not null,
      observed_time time not null,
      part text check (part <> ''),
      minutes double precision not null check (minutes > 0),
      count int not null check (count >= 0),
      seconds double precision check (seconds >= 0),
      note text not null check (char_length(note) <= 4000),
      observer_id uuid not null references people,
      beside_id uuid references people check (beside_id <> observer_id),
      recorded_by uuid not null references people,
      recorded_at timestamptz not null,
      version int not null default 1 check (version > 0),
      changed_by uuid references people,
      changed_at timestamptz,
      change_reason text check (change_reason <> ''),
      withdrawn boolean not null default false,
      unique (id, student_id, recorded_by),
      check ((version = 1) = (changed_by is null)),
      check ((changed_by is null) = (changed_at is null) and (changed_by is null) = (change_reason is null)),
      check (not withdrawn or version > 1)
    );
    create index tallies_newest on tallies (student_id, observed_on desc, observed_time desc) where not withdrawn;
    create table tally_history (
      tally_id uuid not null references tallies,
      version int not null check (version > 0),
      content jsonb not null check (jsonb_typeof(content) = 'object'),
      primary key (tally_id, version)
    );
    create trigger abc_notes_stay before delete on abc_notes for each row execute function refuse_removal();
    create trigger tallies_stay before delete on tallies for each row execute function refuse_removal();
    create trigger abc_note_history_stays before delete or update on abc_note_history
      for each row execute function refuse_removal();
    create trigger tally_history_stays before delete or update on tally_history for each row execute function refuse_removal();

    -- A part of the day may also be one student's own.
    alter table timetable_blocks add column student_id uuid references students,
      add check (student_id is null or group_id is null);

    alter table share_links add column shows_behavior boolean not null default false;
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    alter table share_links drop column shows_behavior;
    alter table timetable_blocks drop column student_id;
    drop table tally_history, tallies, abc_note_history, abc_notes, behavior_phases, behavior_fields,
      behavior_choice_history, behavior_choices;
  `);
}
