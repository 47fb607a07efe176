/** Schools, the people who work at them, and how they sign in. */
export const people = `
  create table schools (
    id uuid primary key,
    name text not null check (name <> ''),
    time_zone text not null check (time_zone <> ''),
    weekdays smallint[] not null check (weekdays <@ array[1,2,3,4,5,6,7]::smallint[] and cardinality(weekdays) > 0),
    idle_minutes int not null default 720 check (idle_minutes between 5 and 1440),
    shared_idle_minutes int not null default 60 check (shared_idle_minutes between 5 and 1440),
    daily_message_limit int not null default 1500 check (daily_message_limit > 0),
    is_demo boolean not null default false
  );
  -- Opens the set-up of an empty installation; the start command prints it.
  create table set_up_codes (
    only_one boolean primary key default true check (only_one),
    code_hash bytea not null,
    made_at timestamptz not null
  );

  create table people (
    id uuid primary key,
    name text not null check (name <> ''),
    short_name text not null check (short_name <> ''),
    initials text not null check (initials <> ''),
    work text not null,
    email text not null check (email like '%_@_%'),
    -- The address of an account is proven by a message that was answered from it.
    email_proven_at timestamptz,
    password_hash text not null,
    demo_order int
  );
  create unique index people_email on people (lower(email));
  -- Who works at a school. An administrator keeps its roster, its calendar and its lists.
  create table school_staff (
    school_id uuid not null references schools,
    person_id uuid not null references people,
    is_admin boolean not null default false,
    from_date date not null,
    until_date date check (until_date >= from_date),
    primary key (school_id, person_id)
  );
  create index school_staff_person on school_staff (person_id);

  create table sign_in_sessions (
    id uuid primary key,
    person_id uuid not null references people,
    -- At which of their schools somebody is at the moment; null for whichever comes first.
    school_id uuid references schools,
    token_hash bytea not null unique check (octet_length(token_hash) = 32),
    previous_hash bytea unique,
    is_shared boolean not null default false,
    created_at timestamptz not null,
    rotated_at timestamptz not null,
    seen_at timestamptz not null,
    check (rotated_at >= created_at)
  );
  create index sign_in_sessions_person on sign_in_sessions (person_id);
  -- Browsers in which somebody has signed in before.
  create table known_devices (
    token_hash bytea not null check (octet_length(token_hash) = 32),
    person_id uuid not null references people,
    seen_at timestamptz not null,
    primary key (token_hash, person_id)
  );
  create index known_devices_person on known_devices (person_id);
  -- Counters of tries, shared by all processes; the shape is that of rate-limiter-flexible.
  create table rate_limits (
    key varchar(255) primary key,
    points int not null default 0,
    expire bigint
  );
  create index rate_limits_expire on rate_limits (expire);
  -- When each process beside the pages was last at work.
  create table heartbeats (
    process text primary key check (process <> ''),
    at timestamptz not null
  );
`;
