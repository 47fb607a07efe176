/** IEP goals, how each is and was measured, and where goals begin. */
export const goals = `
  create table goals (
    id uuid primary key,
    student_id uuid not null references students,
    -- The plan it was written for; null while the student has none.
    plan_id uuid,
    -- The goal of the year before that this one carries on.
    continues uuid references goals check (continues <> id),
    number text not null check (number <> ''),
    area text not null,
    short_name text not null check (short_name <> ''),
    wording text not null check (wording <> ''),
    position int not null,
    measure_version int not null default 1,
    point_per text not null check (point_per in ('day', 'session')),
    baseline_value double precision,
    baseline_on date,
    target double precision not null,
    target_on date not null,
    starts_on date not null,
    planned_gap int check (planned_gap > 0),
    -- When it counts as mastered.
    comparison text not null check (comparison in ('atLeast', 'atMost')),
    criterion_value double precision not null,
    rule text not null check (rule in ('ofLast', 'inARow')),
    rule_k int not null check (rule_k >= 1),
    rule_n int not null check (rule_n between rule_k and 30),
    minimum_opportunities int not null default 1 check (minimum_opportunities between 1 and 100),
    distinct_locations int not null default 1 check (distinct_locations between 1 and 10),
    distinct_observers int not null default 1 check (distinct_observers between 1 and 10),
    edited_at timestamptz,
    retired_on date,
    retired_how text check (retired_how in ('met', 'discontinued', 'replaced')),
    replaced_by uuid references goals check (replaced_by <> id),
    retired_note text not null default '',
    check ((baseline_value is null) = (baseline_on is null)),
    check (target_on > starts_on),
    check (rule = 'ofLast' or rule_k = rule_n),
    check ((retired_on is null) = (retired_how is null)),
    check (replaced_by is null or retired_how = 'replaced'),
    unique (id, student_id),
    foreign key (plan_id, student_id) references plans (id, student_id)
  );
  create index goals_student on goals (student_id, position);
  -- The number of a goal is its own among the goals that are worked on.
  create unique index goals_number on goals (student_id, number) where retired_on is null;

  -- Every way in which a goal is and was measured; entries keep the one they were made under.
  create table goal_measures (
    goal_id uuid not null references goals,
    version int not null check (version > 0),
    measure jsonb not null check (jsonb_typeof(measure -> 'kind') = 'string'),
    from_date date not null,
    primary key (goal_id, version)
  );
  alter table goals add constraint goals_measure foreign key (id, measure_version) references goal_measures (goal_id, version)
    deferrable initially deferred;

  create table goal_phases (
    goal_id uuid not null references goals,
    label text not null check (label <> ''),
    starts_on date not null,
    is_baseline boolean not null,
    primary key (goal_id, starts_on)
  );
  -- By whom and where a goal should be observed, when the plan says; without a row, by anyone, anywhere.
  create table goal_observers (
    goal_id uuid not null references goals,
    person_id uuid not null references people,
    primary key (goal_id, person_id)
  );
  create table goal_locations (
    goal_id uuid not null references goals,
    location_id uuid not null references locations,
    primary key (goal_id, location_id)
  );
  -- What a goal said before each change: its row, and the rows that belonged to it.
  create table goal_revisions (
    id bigint generated always as identity primary key,
    goal_id uuid not null references goals,
    row jsonb not null check (jsonb_typeof(row) = 'object'),
    changed_by uuid not null references people,
    changed_at timestamptz not null
  );
  create index goal_revisions_goal on goal_revisions (goal_id, id);

  -- Goals to begin from, that a school has put into its bank.
  create table goal_bank (
    id uuid primary key,
    school_id uuid not null references schools,
    goal jsonb not null check (jsonb_typeof(goal) = 'object'),
    made_by uuid not null references people,
    made_at timestamptz not null,
    removed_at timestamptz
  );
  create index goal_bank_school on goal_bank (school_id);

  -- Several students and goals observed in one go, kept to be used again.
  create table rounds (
    id uuid primary key,
    name text not null check (name <> ''),
    made_by uuid not null references people,
    school_id uuid not null references schools,
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
`;
