import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- Who sets up the school keeps its roster, its calendar and its shelf of goals.
    alter table people add column sets_up boolean not null default false;

    -- A part of the day on one weekday, for the whole school or for one class group.
    create table timetable_blocks (
      id uuid primary key,
      group_id uuid references class_groups,
      weekday smallint not null check (weekday between 1 and 7),
      part text not null check (part <> ''),
      starts_at time not null,
      ends_at time not null check (ends_at > starts_at),
      setting_id uuid references settings
    );

    -- By whom and where a goal should be observed, when the plan says; without a row, by anyone, anywhere.
    create table goal_observers (
      goal_id uuid not null references goals,
      person_id uuid not null references people,
      primary key (goal_id, person_id)
    );
    create table goal_settings (
      goal_id uuid not null references goals,
      setting_id uuid not null references settings,
      primary key (goal_id, setting_id)
    );

    alter table goals
      add column version int not null default 1 check (version > 0),
      add column version_from date,
      add column edited_at timestamptz,
      add column retired_on date,
      add column retired_how text check (retired_how in ('met', 'discontinued', 'replaced')),
      add column replaced_by uuid references goals,
      add column retired_note text not null default '',
      add check ((retired_on is null) = (retired_how is null)),
      add check (replaced_by is null or retired_how = 'replaced');
    -- The number of a goal is its own only among the goals that are worked on.
    alter table goals drop constraint goals_student_id_number_key;
    create unique index goals_number on goals (student_id, number) where retired_on is null;

    -- How a goal was measured before its present version; the entries of that time keep it.
    create table goal_versions (
      goal_id uuid not null references goals,
      version int not null check (version > 0),
      measure jsonb not null check (jsonb_typeof(measure -> 'kind') = 'string'),
      primary key (goal_id, version)
    );
    -- What a goal said before each change.
    create table goal_history (
      id bigint generated always as identity primary key,
      goal_id uuid not null references goals,
      content jsonb not null check (jsonb_typeof(content) = 'object'),
      changed_by uuid not null references people,
      changed_at timestamptz not null
    );
    create index goal_history_goal on goal_history (goal_id, id);
    create trigger goal_history_stays before delete or update on goal_history for each row execute function refuse_removal();
    create trigger goal_versions_stay before delete or update on goal_versions for each row execute function refuse_removal();
    create trigger goals_stay before delete on goals for each row execute function refuse_removal();

    alter table observations add column goal_version int not null default 1 check (goal_version > 0);

    -- Goals to begin from, that this school has put on its shelf.
    create table shelf_goals (
      id uuid primary key,
      goal jsonb not null check (jsonb_typeof(goal) = 'object'),
      made_by uuid not null references people,
      made_at timestamptz not null,
      removed_at timestamptz
    );

    -- Several students and goals observed in one go, kept to be used again.
    create table rounds (
      id uuid primary key,
      name text not null check (name <> ''),
      made_by uuid not null references people,
      weekday smallint check (weekday between 1 and 7),
      starts_at time,
      removed_at timestamptz
    );
    create index rounds_made_by on rounds (made_by);
    create table round_goals (
      round_id uuid not null references rounds,
      goal_id uuid not null,
      student_id uuid not null,
      position int not null,
      primary key (round_id, goal_id),
      foreign key (goal_id, student_id) references goals (id, student_id)
    );

    -- The entry of a second observer points at the first one's of the same session; the first is the one that counts.
    alter table observations
      add column pairs_with uuid unique references observations check (pairs_with <> id),
      add column paired_by uuid references people,
      add column paired_at timestamptz,
      add check ((pairs_with is null) = (paired_by is null) and (pairs_with is null) = (paired_at is null));
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table round_goals, rounds, shelf_goals, goal_history, goal_versions, goal_settings, goal_observers,
      timetable_blocks;
    drop trigger goals_stay on goals;
    drop index goals_number;
    alter table goals add unique (student_id, number);
    alter table goals drop column version, drop column version_from, drop column edited_at, drop column retired_on,
      drop column retired_how, drop column replaced_by, drop column retired_note;
    alter table observations drop column goal_version, drop column pairs_with, drop column paired_by, drop column paired_at;
    alter table people drop column sets_up;
  `);
}
