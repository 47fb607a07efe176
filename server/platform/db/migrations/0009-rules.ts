import type { Knex } from 'knex';

/** None of it is removed; refuse_removal says so. */
const stays = (table: string) => `
  create trigger ${table}_stay before delete on ${table} for each row execute function refuse_removal();
  create trigger ${table}_stay_all before truncate on ${table} for each statement execute function refuse_removal();`;

/**
 * Rules, and what follows from them. What a rule marks is a view and is stored nowhere; a follow-up or a message follows once from each
 * thing that fulfils it, which is held here. And follow-ups, by a rule or by hand.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table rules (
      id uuid primary key,
      school_id uuid not null references schools,
      -- Whom it is about: one student, a group, the whole school, or else all students whose goals its maker edits.
      student_id uuid,
      group_id uuid,
      is_of_school boolean not null default false,
      made_by uuid not null references people,
      made_at timestamptz not null,
      -- From then on something follows from it; what was recorded before is only marked.
      on_since timestamptz not null,
      switched_off_at timestamptz,
      check (num_nonnulls(student_id, group_id) + is_of_school::int <= 1),
      foreign key (student_id, school_id) references students (id, school_id),
      foreign key (group_id, school_id) references class_groups (id, school_id)
    );
    create index rules_of on rules (school_id) where switched_off_at is null;
    create table rule_versions (
      rule_id uuid not null references rules,
      version int not null check (version > 0),
      name text not null check (length(name) between 1 and 80),
      rule jsonb not null check (jsonb_typeof(rule) = 'object'),
      made_by uuid not null references people,
      made_at timestamptz not null,
      primary key (rule_id, version)
    );

    -- What fulfilled a rule from which something follows: the same never twice.
    create table rule_firings (
      id uuid primary key,
      rule_id uuid not null,
      version int not null,
      student_id uuid not null references students,
      key text not null,
      entry_id uuid,
      goal_id uuid,
      at timestamptz not null,
      -- Who is to have a message of it, and whether that was made.
      tell uuid references people,
      is_told boolean not null default false,
      unique (rule_id, student_id, key),
      unique (id, student_id),
      foreign key (rule_id, version) references rule_versions (rule_id, version),
      foreign key (entry_id, student_id) references entries (id, student_id),
      foreign key (goal_id, student_id) references goals (id, student_id)
    );
    create index rule_firings_to_tell on rule_firings (at) where tell is not null and not is_told;
    -- What each decision was when it was last looked at, by night.
    create table goal_decisions (
      goal_id uuid primary key references goals,
      is_now text not null,
      seen_on date not null
    );
    create table rule_nights (
      school_id uuid primary key references schools,
      looked_on date not null
    );
    -- What the worker has to hold against the rules: what was recorded or changed, and a student who is stuck.
    create table rule_looks (
      seq bigint generated always as identity primary key,
      student_id uuid not null,
      entry_id uuid,
      state_id uuid,
      check (num_nonnulls(entry_id, state_id) = 1),
      foreign key (entry_id, student_id) references entries (id, student_id),
      foreign key (state_id, student_id) references work_states (id, student_id)
    );
    -- A school without rules pays nothing for them.
    create function has_rules(student uuid) returns boolean language sql stable security definer set search_path = public as $$
      select exists (select from rules r join students s on s.school_id = r.school_id where s.id = student and r.switched_off_at is null)
    $$;
    create function ask_rules() returns trigger language plpgsql as $$
      begin
        if has_rules(new.student_id) then
          if tg_table_name = 'entries' then insert into rule_looks (student_id, entry_id) values (new.student_id, new.id);
          else insert into rule_looks (student_id, state_id) values (new.student_id, new.id);
          end if;
        end if;
        return null;
      end
    $$;
    create trigger entries_ruled after insert on entries for each row execute function ask_rules();
    create trigger entries_changed_ruled after update of version on entries for each row
      when (not new.withdrawn) execute function ask_rules();
    create trigger states_ruled after insert on work_states for each row when (new.state = 'stuck') execute function ask_rules();
    create trigger rule_looks_wake after insert on rule_looks for each statement execute function tell_worker();

    create table follow_ups (
      id uuid primary key,
      student_id uuid not null references students,
      entry_id uuid,
      firing_id uuid unique,
      what text not null check (length(what) between 1 and 200),
      for_person uuid not null references people,
      due_on date not null,
      -- Whether it stands in the individual report.
      in_report boolean not null default false,
      -- By whom; null where it followed from a rule.
      made_by uuid references people,
      made_at timestamptz not null,
      version int not null default 1 check (version > 0),
      done_at timestamptz,
      check ((made_by is null) = (firing_id is not null)),
      unique (id, student_id),
      foreign key (entry_id, student_id) references entries (id, student_id),
      foreign key (firing_id, student_id) references rule_firings (id, student_id)
    );
    create index follow_ups_of on follow_ups (student_id);
    create index follow_ups_for on follow_ups (for_person, due_on) where done_at is null;
    -- What was done with it, each time.
    create table follow_up_changes (
      follow_up_id uuid not null,
      version int not null check (version > 1),
      student_id uuid not null,
      what text not null check (what in ('done', 'handedOn', 'putOff', 'reopened')),
      word text not null default '' check (length(word) <= 500),
      for_person uuid references people,
      due_on date,
      changed_by uuid not null references people,
      changed_at timestamptz not null,
      primary key (follow_up_id, version),
      foreign key (follow_up_id, student_id) references follow_ups (id, student_id)
    );

    ${['rules', 'rule_versions', 'follow_ups', 'follow_up_changes'].map(stays).join('')}

    alter table messages drop constraint messages_kind_check;
    alter table messages add constraint messages_kind_check
      check (kind in ('entry', 'digest', 'byHand', 'invitation', 'locked', 'issued', 'rule', 'reminder'));
    alter table message_templates drop constraint message_templates_kind_check;
    alter table message_templates add constraint message_templates_kind_check
      check (kind in ('entry', 'digest', 'byHand', 'invitation', 'locked', 'issued', 'rule', 'reminder'));
    create trigger rule_firings_wake after insert on rule_firings for each statement execute function tell_worker();
  `);
}
