import type { Knex } from 'knex';

/**
 * Carrying in what a school has in files: its roster, goals, and what was recorded before. What came in with a file is known, so that it can
 * be taken back as a whole; nobody is told of it, and no rule is asked about it.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table imports (
      id uuid primary key,
      school_id uuid not null references schools,
      kind text not null check (kind in ('roster', 'goals', 'entries', 'incidents')),
      file_name text not null check (length(file_name) between 1 and 200),
      -- What stands in the file, until it came in or is forgotten.
      content jsonb,
      -- What was said of its columns.
      mapping jsonb not null,
      made_by uuid not null references people,
      made_at timestamptz not null,
      done_at timestamptz,
      undone_at timestamptz,
      undone_by uuid references people,
      check (undone_at is null or done_at is not null),
      check ((undone_at is null) = (undone_by is null)),
      check (done_at is null or content is null)
    );
    create index imports_of on imports (school_id, made_at desc);

    -- What came in with it: a row that is new, or what it said before and after.
    create table import_parts (
      import_id uuid not null references imports,
      position int not null,
      kind text not null check (kind in ('student', 'group', 'member', 'staff', 'goal', 'entry', 'choice', 'archived')),
      student_id uuid references students,
      row_id uuid not null,
      before jsonb,
      after jsonb,
      primary key (import_id, position)
    );
    create index import_parts_of on import_parts (row_id);

    -- What somebody said of the columns of a file, for the next one with the same headings.
    create table import_mappings (
      person_id uuid not null references people,
      kind text not null,
      headings text not null,
      mapping jsonb not null,
      used_at timestamptz not null,
      primary key (person_id, kind, headings)
    );

    -- By what another system knows them.
    alter table students add column sourced_id text check (length(sourced_id) between 1 and 200);
    alter table class_groups add column sourced_id text check (length(sourced_id) between 1 and 200);
    create unique index students_sourced on students (school_id, sourced_id);
    create unique index class_groups_sourced on class_groups (school_id, sourced_id);

    -- Whose teams somebody is to be on who was asked to join the school, as its roster says.
    create table awaited_members (
      school_id uuid not null references schools,
      student_id uuid not null references students,
      email text not null check (email like '%_@_%'),
      role text not null check (role in ('caseManager', 'educator')),
      import_id uuid references imports,
      primary key (student_id, email)
    );

    create or replace function note_entry_event() returns trigger language plpgsql as $$
      begin
        if current_setting('app.carries_in', true) = 'yes' then return null; end if;
        if exists (select from share_links where student_id = new.student_id and frequency <> 'byHand')
           or exists (select from team_members where student_id = new.student_id and frequency <> 'byHand') then
          insert into entry_events (student_id, entry_id, made_at) values (new.student_id, new.id, new.recorded_at);
        end if;
        return null;
      end
    $$;
    create or replace function ask_rules() returns trigger language plpgsql as $$
      begin
        if current_setting('app.carries_in', true) = 'yes' then return null; end if;
        if has_rules(new.student_id) then
          if tg_table_name = 'entries' then insert into rule_looks (student_id, entry_id) values (new.student_id, new.id);
          else insert into rule_looks (student_id, state_id) values (new.student_id, new.id);
          end if;
        end if;
        return null;
      end
    $$;
  `);
}
