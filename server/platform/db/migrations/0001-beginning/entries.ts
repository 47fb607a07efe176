/** Everything that was recorded of a student, in one table, with one history, and what hangs on it. */
export const entries = `
  create table entries (
    id uuid primary key,
    student_id uuid not null references students,
    kind text not null check (kind in ('goal', 'incident', 'count')),
    observed_on date not null,
    observed_time time not null,
    observer_id uuid not null references people,
    -- Whose observation it was that this observer sat beside; such a record is for agreement only.
    beside_id uuid references people check (beside_id <> observer_id),
    recorded_by uuid not null references people,
    recorded_at timestamptz not null,
    self_recorded boolean not null default false,
    location_id uuid references locations,
    note text not null check (char_length(note) <= 4000),
    version int not null default 1 check (version > 0),
    changed_by uuid references people,
    changed_at timestamptz,
    change_reason text check (change_reason <> ''),
    withdrawn boolean not null default false,

    -- Of a goal: what was scored, under which version of its measure, or why nothing was.
    goal_id uuid,
    measure_version int,
    data jsonb check (jsonb_typeof(data) = 'object'),
    reason text check (reason in ('absent', 'declined', 'noOpportunity')),
    -- The entry of a second observer points at the first one's of the same session; the first is the one that counts.
    pairs_with uuid unique references entries check (pairs_with <> id),
    paired_by uuid references people,
    paired_at timestamptz,

    -- Of an incident: how long, and how it ended. Of a count: how often in how long a window; none is a count too.
    seconds double precision check (seconds >= 0),
    is_going boolean not null default false,
    resolved boolean,
    resolved_after double precision check (resolved_after > 0),
    target_id uuid,
    part text check (part <> ''),
    minutes double precision check (minutes > 0),
    count int check (count >= 0),

    unique (id, student_id),
    foreign key (goal_id, student_id) references goals (id, student_id),
    foreign key (goal_id, measure_version) references goal_measures (goal_id, version),
    foreign key (target_id, student_id) references behavior_targets (id, student_id),
    check ((version = 1) = (changed_by is null)),
    check ((changed_by is null) = (changed_at is null) and (changed_by is null) = (change_reason is null)),
    check (not withdrawn or version > 1),
    check ((pairs_with is null) = (paired_by is null) and (pairs_with is null) = (paired_at is null)),
    constraint entries_goal check (case when kind = 'goal'
      then goal_id is not null and measure_version is not null and (data is null) <> (reason is null) and beside_id is null
      else num_nonnulls(goal_id, measure_version, data, reason, pairs_with) = 0 end),
    constraint entries_incident check (case when kind = 'incident'
      then not (is_going and seconds is not null) and seconds is distinct from 0 and (resolved_after is null or resolved is true)
      else not is_going and num_nonnulls(resolved, resolved_after) = 0 end),
    constraint entries_count check (case when kind = 'count'
      then target_id is not null and minutes is not null and count is not null
      else num_nonnulls(target_id, part, minutes, count) = 0 end),
    check (kind <> 'goal' or seconds is null)
  );
  -- The individual report, newest first; the figures of each goal, oldest first; a student's incidents and counts, newest first.
  create index entries_newest on entries (student_id, observed_on desc, observed_time desc, recorded_at desc) where not withdrawn;
  create index entries_by_goal on entries (student_id, goal_id, observed_on, observed_time, recorded_at)
    include (version, paired_at)
    where kind = 'goal' and not withdrawn;
  create index entries_behavior on entries (student_id, kind, observed_on desc, observed_time desc, recorded_at desc)
    where kind <> 'goal' and not withdrawn;
  create index entries_going on entries (student_id) where is_going and not withdrawn;
  -- Whether anything was recorded since a student's incidents were read.
  create index entries_incident_stamp on entries (student_id) include (version, recorded_at) where kind = 'incident';

  -- What an incident names, in its order, as its version says it. A new version brings its own; none is ever taken away.
  create table incident_choices (
    entry_id uuid not null,
    version int not null check (version > 0),
    facet text not null check (facet in ('behavior', 'antecedent', 'consequence', 'location', 'intensity', 'function')),
    position smallint not null,
    student_id uuid not null,
    target_id uuid,
    option_id uuid,
    primary key (entry_id, version, facet, position),
    check (case facet when 'behavior' then target_id is not null and option_id is null
                      else option_id is not null and target_id is null end),
    check (facet not in ('location', 'intensity') or position = 1),
    unique (entry_id, version, target_id),
    unique (entry_id, version, option_id),
    foreign key (entry_id, student_id) references entries (id, student_id),
    foreign key (target_id, student_id) references behavior_targets (id, student_id),
    foreign key (option_id, student_id, facet) references behavior_options (id, student_id, facet)
  );
  -- In the order in which a student's incidents are read, so that nothing has to be sorted.
  create index incident_choices_student on incident_choices (student_id, entry_id, version, facet, position)
    include (target_id, option_id);

  -- An entry's row as it was before each change. It is written by the change itself: see keep_revision.
  create table entry_revisions (
    entry_id uuid not null,
    version int not null check (version > 0),
    student_id uuid not null,
    row jsonb not null check (jsonb_typeof(row) = 'object'),
    changed_by uuid not null references people,
    changed_at timestamptz not null,
    reason text not null check (reason <> ''),
    primary key (entry_id, version),
    foreign key (entry_id, student_id) references entries (id, student_id)
  );
  create function keep_revision() returns trigger language plpgsql as $$
    begin
      if new.version = old.version + 1 then
        insert into entry_revisions (entry_id, version, student_id, row, changed_by, changed_at, reason)
        values (old.id, old.version, old.student_id, to_jsonb(old), new.changed_by, new.changed_at, new.change_reason);
      elsif to_jsonb(new) - array['pairs_with', 'paired_by', 'paired_at']
            <> to_jsonb(old) - array['pairs_with', 'paired_by', 'paired_at'] then
        raise exception 'What was recorded is changed by a new version only.' using errcode = 'restrict_violation';
      end if;
      if (new.id, new.student_id, new.kind, new.goal_id, new.measure_version, new.recorded_by, new.recorded_at)
         is distinct from (old.id, old.student_id, old.kind, old.goal_id, old.measure_version, old.recorded_by, old.recorded_at) then
        raise exception 'Whose entry it is, and who recorded it, does not change.' using errcode = 'restrict_violation';
      end if;
      return new;
    end
  $$;
  create trigger entries_revised before update on entries for each row execute function keep_revision();
  -- An incident names a behavior.
  create function expect_behavior() returns trigger language plpgsql as $$
    begin
      if not exists (select from incident_choices where entry_id = new.id and version = new.version and facet = 'behavior') then
        raise exception 'An incident names a behavior.' using errcode = 'check_violation', constraint = 'incidents_name_a_behavior';
      end if;
      return null;
    end
  $$;
  create constraint trigger incidents_name_a_behavior after insert or update on entries deferrable initially deferred
    for each row when (new.kind = 'incident') execute function expect_behavior();

  -- Notes in which the case manager keeps another child's name, as they said at a version.
  create table kept_names (
    entry_id uuid not null,
    version int not null check (version > 0),
    student_id uuid not null,
    kept_by uuid not null references people,
    kept_at timestamptz not null,
    primary key (entry_id, version),
    foreign key (entry_id, student_id) references entries (id, student_id)
  );

  -- Photographs and files beside an entry. They are kept here and nowhere on the web: who asks is checked each time.
  create table evidence (
    id uuid primary key,
    student_id uuid not null,
    entry_id uuid not null,
    name text not null check (name <> ''),
    type text not null check (type in ('image/jpeg', 'application/pdf')),
    bytes int not null check (bytes > 0),
    content bytea not null,
    -- Of a picture; a file has none.
    thumbnail bytea,
    width int,
    height int,
    added_by uuid not null references people,
    added_at timestamptz not null,
    withdrawn_by uuid references people,
    withdrawn_at timestamptz,
    check ((type = 'image/jpeg') = (thumbnail is not null)),
    check ((withdrawn_by is null) = (withdrawn_at is null)),
    foreign key (entry_id, student_id) references entries (id, student_id)
  );
  create index evidence_entry on evidence (student_id, entry_id);

  -- One piece of work that several people rate by a goal's rubric.
  create table work_samples (
    id uuid primary key,
    student_id uuid not null,
    goal_id uuid not null,
    measure_version int not null,
    title text not null check (char_length(title) between 1 and 120),
    made_on date not null,
    made_by uuid not null references people,
    made_at timestamptz not null,
    -- The entry that was made of the ratings; none while it is open.
    entry_id uuid,
    foreign key (goal_id, student_id) references goals (id, student_id),
    foreign key (goal_id, measure_version) references goal_measures (goal_id, version),
    foreign key (entry_id, student_id) references entries (id, student_id)
  );
  create index work_samples_goal on work_samples (student_id, goal_id, made_on desc);
  -- A short-lived link by which a peer or the student rates one work sample, once.
  create table rating_links (
    token_hash bytea primary key check (octet_length(token_hash) = 32),
    id uuid not null unique,
    work_sample_id uuid not null references work_samples,
    kind text not null check (kind in ('peer', 'student')),
    label text not null check (label <> ''),
    ends_at timestamptz not null,
    withdrawn_at timestamptz
  );
  create index rating_links_work_sample on rating_links (work_sample_id);
  create table work_sample_ratings (
    id uuid primary key,
    work_sample_id uuid not null references work_samples,
    person_id uuid references people,
    rating_link_id uuid unique references rating_links (id),
    points jsonb not null check (jsonb_typeof(points) = 'object'),
    words text not null check (char_length(words) <= 1000),
    rated_at timestamptz not null,
    check ((person_id is null) <> (rating_link_id is null)),
    unique (work_sample_id, person_id)
  );
`;
