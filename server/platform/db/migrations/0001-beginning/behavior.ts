/** What incidents and counts are of: target behaviors, and what an incident is chosen from. */
export const behavior = `
  -- Behaviors that are followed, each with its definition: a student's own, or those a school begins from (student_id null).
  create table behavior_targets (
    id uuid primary key,
    school_id uuid not null references schools,
    student_id uuid,
    name text not null check (name <> '' and name = btrim(name)),
    definition text not null default '',
    not_counted text not null default '',
    direction text not null default 'decrease' check (direction in ('decrease', 'increase')),
    by_abc boolean not null default true,
    by_count boolean not null default false,
    by_time boolean not null default false,
    position int not null,
    state text not null default 'offered' check (state in ('offered', 'other', 'retired')),
    merged_into uuid references behavior_targets check (merged_into <> id),
    unique (id, student_id),
    foreign key (student_id, school_id) references students (id, school_id)
  );
  -- A name is its own among those that stand for themselves.
  create unique index behavior_targets_name on behavior_targets (school_id, student_id, name) nulls not distinct
    where merged_into is null;
  create index behavior_targets_student on behavior_targets (student_id);

  -- What else an incident is chosen from.
  create table behavior_options (
    id uuid primary key,
    school_id uuid not null references schools,
    student_id uuid,
    facet text not null check (facet in ('antecedent', 'consequence', 'location', 'intensity', 'function')),
    label text not null check (label <> '' and label = btrim(label)),
    description text not null default '',
    position int not null,
    state text not null default 'offered' check (state in ('offered', 'other', 'retired')),
    merged_into uuid references behavior_options check (merged_into <> id),
    -- The school's location that one of these is.
    location_id uuid,
    unique (id, student_id, facet),
    check (location_id is null or facet = 'location'),
    foreign key (student_id, school_id) references students (id, school_id),
    foreign key (location_id, school_id) references locations (id, school_id)
  );
  create unique index behavior_options_label on behavior_options (school_id, student_id, facet, label) nulls not distinct
    where merged_into is null;
  create index behavior_options_student on behavior_options (student_id);

  -- Both as one list, for whoever names what an incident says.
  create view behavior_choices with (security_invoker) as
    select id, school_id, student_id, 'behavior' as kind, name, definition as words, not_counted as unlike, direction,
           by_abc as abc, by_count as counted, by_time as timed, position, state, merged_into, null::uuid as location_id
      from behavior_targets
    union all
    select id, school_id, student_id, case facet when 'location' then 'setting' else facet end, label, description, '', 'decrease',
           true, false, false, position, state, merged_into, location_id
      from behavior_options;

  create table behavior_revisions (
    id bigint generated always as identity primary key,
    target_id uuid references behavior_targets,
    option_id uuid references behavior_options,
    row jsonb not null check (jsonb_typeof(row) = 'object'),
    changed_by uuid not null references people,
    changed_at timestamptz not null,
    check (num_nonnulls(target_id, option_id) = 1)
  );
  create index behavior_revisions_target on behavior_revisions (target_id, id) where target_id is not null;
  create index behavior_revisions_option on behavior_revisions (option_id, id) where option_id is not null;

  -- Fields of an incident that a student's team does not use.
  create table behavior_fields (
    student_id uuid primary key references students,
    left_out text[] not null check (left_out <@ array['setting', 'intensity', 'function', 'duration', 'resolved'])
  );
  create table behavior_phases (
    id uuid primary key,
    student_id uuid not null references students,
    target_id uuid,
    label text not null check (label <> ''),
    starts_on date not null,
    made_by uuid not null references people,
    removed_at timestamptz,
    foreign key (target_id, student_id) references behavior_targets (id, student_id)
  );
  create index behavior_phases_student on behavior_phases (student_id);
`;
