import type { Knex } from 'knex';

/**
 * The students' own desk: cards to get in with, pieces of work with their steps, and what students say of each step. What is said stays; the last
 * of it counts.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- A school's own words for how a student stands with a step.
    alter table schools add column step_words jsonb not null default '{}' check (jsonb_typeof(step_words) = 'object');

    create table cards (
      id uuid primary key,
      student_id uuid not null references students,
      token_hash bytea not null unique,
      code_hash bytea not null unique,
      made_by uuid not null references people,
      made_at timestamptz not null,
      ended_at timestamptz
    );
    create unique index cards_one_a_student on cards (student_id) where ended_at is null;

    create table desk_sessions (
      id uuid primary key,
      card_id uuid not null references cards,
      student_id uuid not null references students,
      token_hash bytea not null unique,
      began_at timestamptz not null,
      seen_at timestamptz not null,
      ended_at timestamptz
    );
    create index desk_sessions_of on desk_sessions (student_id, began_at);

    -- A shared tablet on which the students of a lesson sit down by their initials, for a time.
    create table desk_turns (
      id uuid primary key,
      token_hash bytea not null unique,
      opened_by uuid not null references people,
      opened_at timestamptz not null,
      ends_at timestamptz not null,
      check (ends_at > opened_at)
    );
    create table desk_turn_students (
      turn_id uuid not null references desk_turns,
      student_id uuid not null references students,
      primary key (turn_id, student_id)
    );

    -- Which goals stand on the desk, in which words, and whether what the student enters makes the goal's figure.
    create table desk_goals (
      goal_id uuid primary key,
      student_id uuid not null references students,
      shows text not null check (shows in ('nothing', 'progress', 'log')),
      plain text not null default '' check (length(plain) <= 80),
      self_counts boolean not null default true,
      foreign key (goal_id, student_id) references goals (id, student_id)
    );
    create index desk_goals_of on desk_goals (student_id);

    create table works (
      id uuid primary key,
      school_id uuid not null references schools,
      made_by uuid not null references people,
      title text not null check (length(title) between 1 and 80),
      made_at timestamptz not null,
      closed_at timestamptz
    );
    create index works_of on works (made_by);
    create table work_steps (
      id uuid primary key,
      work_id uuid not null references works,
      position int not null,
      title text not null check (length(title) between 1 and 60),
      hint text not null default '' check (length(hint) <= 160),
      removed_at timestamptz,
      unique (work_id, id)
    );
    create table student_works (
      student_id uuid not null references students,
      work_id uuid not null references works,
      given_by uuid not null references people,
      given_at timestamptz not null,
      taken_at timestamptz,
      primary key (student_id, work_id)
    );
    create index student_works_of on student_works (work_id);
    create table work_states (
      id uuid primary key,
      student_id uuid not null,
      work_id uuid not null,
      step_id uuid not null,
      state text not null check (state in ('notBegun', 'atIt', 'stuck', 'pleaseLook', 'done')),
      word text not null default '' check (length(word) <= 200),
      at timestamptz not null,
      received_at timestamptz not null,
      card_id uuid not null references cards,
      unique (id, student_id),
      foreign key (student_id, work_id) references student_works (student_id, work_id),
      foreign key (work_id, step_id) references work_steps (work_id, id)
    );
    create index work_states_of on work_states (work_id, student_id, at);
    create table work_state_seen (
      state_id uuid primary key,
      student_id uuid not null,
      seen_by uuid not null references people,
      seen_at timestamptz not null,
      foreign key (state_id, student_id) references work_states (id, student_id)
    );

    -- A student rates their own work at their desk, by their card.
    alter table work_sample_ratings add column card_id uuid references cards;
    alter table work_sample_ratings drop constraint work_sample_ratings_check;
    alter table work_sample_ratings add check (num_nonnulls(person_id, rating_link_id, card_id) = 1);
    create unique index work_sample_ratings_own on work_sample_ratings (work_sample_id) where card_id is not null;

    -- Whoever looks at a student's page hears that there is a new entry: of whom and by whom, and nothing of what it says.
    create function tell_live_of_entries() returns trigger language plpgsql as $$
      begin
        perform pg_notify('live', json_build_object('studentId', student_id, 'what', 'entries', 'by', by)::text)
           from (select distinct student_id, case when self_recorded then null else recorded_by end as by from added) as told;
        return null;
      end
    $$;
    create trigger entries_are_live after insert on entries referencing new table as added
      for each statement execute function tell_live_of_entries();
  `);
}
