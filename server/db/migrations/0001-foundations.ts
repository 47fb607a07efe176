import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table school (
      only_one boolean primary key default true check (only_one),
      name text not null check (name <> ''),
      time_zone text not null,
      weekdays smallint[] not null check (weekdays <@ array[1,2,3,4,5,6,7]::smallint[] and cardinality(weekdays) > 0),
      is_demo boolean not null default false
    );
    create table closures (
      first_day date not null,
      last_day date not null check (last_day >= first_day),
      label text not null check (label <> ''),
      primary key (first_day, label)
    );
    create table settings (
      id uuid primary key,
      name text not null check (name <> ''),
      position int not null
    );
    create unique index settings_name on settings (lower(name));

    create table people (
      id uuid primary key,
      name text not null check (name <> ''),
      short_name text not null check (short_name <> ''),
      initials text not null check (initials <> ''),
      work text not null,
      email text not null check (email like '%_@_%'),
      password_hash text not null,
      demo_order int
    );
    create unique index people_email on people (lower(email));

    create table sessions (
      id uuid primary key,
      person_id uuid not null references people,
      token_hash bytea not null unique check (octet_length(token_hash) = 32),
      previous_hash bytea unique,
      created_at timestamptz not null,
      rotated_at timestamptz not null,
      seen_at timestamptz not null,
      check (rotated_at >= created_at)
    );
    create index sessions_person on sessions (person_id);

    create table class_groups (
      id uuid primary key,
      name text not null check (name <> ''),
      position int not null
    );
    create unique index class_groups_name on class_groups (lower(name));

    create table students (
      id uuid primary key,
      first_name text not null check (first_name <> ''),
      last_name text not null check (last_name <> ''),
      short_name text not null check (short_name <> ''),
      initials text not null check (initials <> ''),
      grade text not null,
      archived_at timestamptz
    );
    create table student_groups (
      student_id uuid not null references students,
      group_id uuid not null references class_groups,
      primary key (student_id, group_id)
    );
    create table plans (
      id uuid primary key,
      student_id uuid not null unique references students,
      starts_on date not null,
      ends_on date not null check (ends_on > starts_on)
    );
    create table reporting_periods (
      plan_id uuid not null references plans,
      label text not null check (label <> ''),
      ends_on date not null,
      primary key (plan_id, ends_on)
    );

    create table team_members (
      student_id uuid not null references students,
      person_id uuid not null references people,
      role text not null check (role in ('caseManager', 'educator', 'paraprofessional', 'specialist')),
      from_date date not null,
      until_date date check (until_date >= from_date),
      primary key (student_id, person_id)
    );
    create index team_members_person on team_members (person_id);

    create table goals (
      id uuid primary key,
      student_id uuid not null references students,
      number text not null check (number <> ''),
      area text not null,
      short_name text not null check (short_name <> ''),
      wording text not null check (wording <> ''),
      position int not null,
      measure jsonb not null check (jsonb_typeof(measure -> 'kind') = 'string'),
      criterion jsonb not null check (jsonb_typeof(criterion) = 'object'),
      point_per text not null check (point_per in ('day', 'session')),
      baseline_value double precision,
      baseline_on date,
      target double precision not null,
      target_on date not null,
      starts_on date not null,
      planned_gap int check (planned_gap > 0),
      check ((baseline_value is null) = (baseline_on is null)),
      check (target_on > starts_on),
      unique (student_id, number),
      unique (id, student_id)
    );
    create table goal_phases (
      goal_id uuid not null references goals,
      label text not null check (label <> ''),
      starts_on date not null,
      is_baseline boolean not null,
      primary key (goal_id, starts_on)
    );

    create table observations (
      id uuid primary key,
      goal_id uuid not null,
      student_id uuid not null,
      observed_on date not null,
      observed_time time not null,
      observer_id uuid not null references people,
      setting_id uuid references settings,
      data jsonb check (jsonb_typeof(data) = 'object'),
      reason text check (reason in ('absent', 'declined', 'noOpportunity')),
      note text not null check (char_length(note) <= 4000),
      recorded_by uuid not null references people,
      recorded_at timestamptz not null,
      version int not null default 1 check (version > 0),
      changed_by uuid references people,
      changed_at timestamptz,
      change_reason text check (change_reason <> ''),
      withdrawn boolean not null default false,
      -- What a repeated submission runs into: the same entry of the same goal by the same person.
      unique (id, goal_id, recorded_by),
      foreign key (goal_id, student_id) references goals (id, student_id),
      check ((data is null) <> (reason is null)),
      check ((version = 1) = (changed_by is null)),
      check ((changed_by is null) = (changed_at is null) and (changed_by is null) = (change_reason is null)),
      check (not withdrawn or version > 1)
    );
    -- For the report, newest first, and for the figures of each goal, oldest first: neither has to sort.
    create index observations_newest on observations (student_id, observed_on desc, observed_time desc, recorded_at desc)
      where not withdrawn;
    create index observations_by_goal on observations (student_id, goal_id, observed_on, observed_time, recorded_at)
      where not withdrawn;

    -- What an entry said before a correction or withdrawal.
    create table observation_history (
      observation_id uuid not null references observations,
      version int not null check (version > 0),
      content jsonb not null check (jsonb_typeof(content) = 'object'),
      primary key (observation_id, version)
    );

    create function refuse_removal() returns trigger language plpgsql as $$
      begin
        raise exception 'What was recorded is not removed (%).', tg_table_name using errcode = 'restrict_violation';
      end
    $$;
    create trigger observations_stay before delete on observations for each row execute function refuse_removal();
    create trigger history_stays before delete or update on observation_history for each row execute function refuse_removal();

    create table share_links (
      id uuid primary key,
      student_id uuid not null references students,
      reader_name text not null check (char_length(reader_name) between 1 and 120),
      token_hash bytea not null unique check (octet_length(token_hash) = 32),
      shows_notes boolean not null,
      shows_observers boolean not null,
      ends_on date not null,
      created_by uuid not null references people,
      created_at timestamptz not null,
      withdrawn_by uuid references people,
      withdrawn_at timestamptz,
      check ((withdrawn_by is null) = (withdrawn_at is null))
    );
    create index share_links_student on share_links (student_id);
    create table share_link_openings (
      id bigint generated always as identity primary key,
      link_id uuid not null references share_links,
      opened_at timestamptz not null
    );
    create index share_link_openings_link on share_link_openings (link_id, opened_at desc);
    create trigger openings_stay before delete or update on share_link_openings for each row execute function refuse_removal();
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table share_link_openings, share_links, observation_history, observations, goal_phases, goals, team_members,
      reporting_periods, plans, student_groups, students, class_groups, sessions, people, settings, closures, school cascade;
    drop function refuse_removal;
  `);
}
