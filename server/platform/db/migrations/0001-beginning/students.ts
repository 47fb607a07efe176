/** Students, their plans, their support teams, and the parts of their day. */
export const students = `
  create table students (
    id uuid primary key,
    school_id uuid not null references schools,
    first_name text not null check (first_name <> ''),
    last_name text not null check (last_name <> ''),
    short_name text not null check (short_name <> ''),
    initials text not null check (initials <> ''),
    grade text not null,
    archived_at timestamptz,
    unique (id, school_id)
  );
  create index students_school on students (school_id, last_name, first_name);
  create table student_groups (
    student_id uuid not null,
    group_id uuid not null,
    school_id uuid not null,
    primary key (student_id, group_id),
    foreign key (student_id, school_id) references students (id, school_id),
    foreign key (group_id, school_id) references class_groups (id, school_id)
  );
  create index student_groups_group on student_groups (group_id);

  -- A part of the day on one weekday, for the whole school, for one class group, or one student's own.
  create table timetable_blocks (
    id uuid primary key,
    school_id uuid not null references schools,
    group_id uuid,
    student_id uuid,
    weekday smallint not null check (weekday between 1 and 7),
    part text not null check (part <> ''),
    starts_at time not null,
    ends_at time not null check (ends_at > starts_at),
    location_id uuid,
    check (student_id is null or group_id is null),
    foreign key (group_id, school_id) references class_groups (id, school_id),
    foreign key (student_id, school_id) references students (id, school_id),
    foreign key (location_id, school_id) references locations (id, school_id)
  );
  create index timetable_blocks_school on timetable_blocks (school_id);
  create index timetable_blocks_student on timetable_blocks (student_id) where student_id is not null;

  -- The plans of a student stand in a row: no two of them overlap.
  create table plans (
    id uuid primary key,
    student_id uuid not null references students,
    starts_on date not null,
    ends_on date not null check (ends_on > starts_on),
    label text not null default '',
    unique (id, student_id),
    constraint plans_overlap exclude using gist (student_id with =, daterange(starts_on, ends_on, '[]') with &&)
  );
  create table reporting_periods (
    id uuid primary key default gen_random_uuid(),
    plan_id uuid not null references plans,
    label text not null check (label <> ''),
    ends_on date not null,
    removed_at timestamptz
  );
  create unique index reporting_periods_end on reporting_periods (plan_id, ends_on) where removed_at is null;
  create function expect_periods_in_plan() returns trigger language plpgsql as $$
    begin
      if exists (select from reporting_periods r join plans p on p.id = r.plan_id
                  where r.removed_at is null and r.ends_on not between p.starts_on and p.ends_on
                    and (case tg_table_name when 'plans' then p.id = new.id else r.id = new.id end)) then
        raise exception 'A reporting period ends within its plan.'
          using errcode = 'check_violation', constraint = 'reporting_periods_in_plan';
      end if;
      return null;
    end
  $$;
  create constraint trigger reporting_periods_in_plan after insert or update on reporting_periods
    deferrable initially deferred for each row execute function expect_periods_in_plan();
  create constraint trigger plans_around_periods after update on plans
    deferrable initially deferred for each row execute function expect_periods_in_plan();

  -- Stays on the support team: somebody may leave and come back, and one is the case manager at a time.
  create table team_members (
    id uuid primary key default gen_random_uuid(),
    student_id uuid not null references students,
    person_id uuid not null references people,
    role text not null check (role in ('caseManager', 'educator', 'paraprofessional', 'specialist')),
    -- What a member may do beside reading; null is what the role usually carries.
    rights text[] check (rights <@ array['observe', 'setUp', 'share']),
    from_date date not null,
    until_date date check (until_date >= from_date),
    -- How often this member is told of new entries by e-mail, and when they stopped it.
    frequency text not null default 'byHand' check (frequency in ('byHand', 'entry', 'daily', 'weekly')),
    stopped_at timestamptz,
    changed_by uuid references people,
    changed_at timestamptz,
    constraint team_members_once exclude using gist
      (student_id with =, person_id with =, daterange(from_date, until_date, '[]') with &&),
    constraint one_case_manager exclude using gist
      (student_id with =, daterange(from_date, until_date, '[]') with &&) where (role = 'caseManager')
  );
  create index team_members_student on team_members (student_id, person_id);
  create index team_members_person on team_members (person_id, student_id);

  -- Days, or parts of them, on which a student was not there, as it was recorded.
  create table absences (
    id uuid primary key,
    student_id uuid not null references students,
    day date not null,
    part text check (part <> ''),
    recorded_by uuid not null references people,
    recorded_at timestamptz not null,
    withdrawn_by uuid references people,
    withdrawn_at timestamptz,
    check ((withdrawn_by is null) = (withdrawn_at is null))
  );
  create unique index absences_day on absences (student_id, day, part) nulls not distinct where withdrawn_at is null;

  -- Who was asked by e-mail to join a team; each link works once.
  create table invitations (
    id uuid primary key,
    student_id uuid not null references students,
    name text not null check (name <> ''),
    email text not null check (email like '%_@_%'),
    role text not null check (role in ('educator', 'paraprofessional', 'specialist')),
    rights text[] check (rights <@ array['observe', 'setUp', 'share']),
    until_date date,
    ends_on date not null,
    made_by uuid not null references people,
    made_at timestamptz not null,
    accepted_by uuid references people,
    accepted_at timestamptz,
    withdrawn_at timestamptz,
    declined_at timestamptz,
    check ((accepted_by is null) = (accepted_at is null))
  );
  create index invitations_student on invitations (student_id);
  create index invitations_email on invitations (lower(email));
  -- Every link of an invitation: the one that was shown, and the one that went out in its message.
  create table invitation_tokens (
    token_hash bytea primary key check (octet_length(token_hash) = 32),
    invitation_id uuid not null references invitations,
    -- A link that was read out to the inviter proves nothing of the address.
    is_read_out boolean not null default false
  );
`;
