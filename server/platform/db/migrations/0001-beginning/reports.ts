/** Progress reports, and documents of several students. */
export const reports = `
  -- The teacher's own words for a period's report, until it is issued.
  create table progress_report_drafts (
    period_id uuid primary key references reporting_periods,
    student_id uuid not null references students,
    words jsonb not null check (jsonb_typeof(words) = 'object'),
    version int not null check (version > 0),
    changed_by uuid not null references people,
    changed_at timestamptz not null
  );

  -- A progress report as it was issued: never changed, only replaced by another.
  create table issued_reports (
    id uuid primary key,
    student_id uuid not null references students,
    number int not null check (number > 0),
    period_id uuid not null references reporting_periods,
    period_label text not null,
    period_from date not null,
    period_to date not null check (period_to >= period_from),
    content jsonb not null check (jsonb_typeof(content) = 'object'),
    readers text[] not null check (readers <@ array['family', 'student', 'specialist']),
    issued_by uuid not null references people,
    issued_at timestamptz not null,
    replaces uuid unique references issued_reports check (replaces <> id),
    unique (student_id, number),
    unique (id, student_id)
  );
  create index issued_reports_student on issued_reports (student_id, period_to);
  -- Which entries it was made from, each with the version that stood then.
  create table issued_report_entries (
    report_id uuid not null,
    student_id uuid not null,
    entry_id uuid not null,
    version int not null check (version > 0),
    primary key (report_id, entry_id),
    foreign key (report_id, student_id) references issued_reports (id, student_id),
    foreign key (entry_id, student_id) references entries (id, student_id)
  );

  -- The documents of several students in one file, made in the background.
  create table document_batches (
    id uuid primary key,
    school_id uuid not null references schools,
    label text not null check (label <> ''),
    -- Of whom, by short name, in their order: who is left out since is named.
    students text[] not null,
    what text not null check (what in ('progress', 'running')),
    -- Of running reports: only what was seen in this stretch.
    from_day date,
    to_day date,
    -- How they are laid out; null as it usually is for a group.
    arrangement jsonb check (jsonb_typeof(arrangement) = 'object'),
    made_by uuid not null references people,
    made_at timestamptz not null,
    state text not null default 'waiting' check (state in ('waiting', 'making', 'ready', 'failed', 'over')),
    problem text,
    attempts int not null default 0,
    not_before timestamptz not null default '-infinity'
  );
  create index document_batches_made_by on document_batches (made_by, made_at desc);
  create index document_batches_open on document_batches (not_before) where state in ('waiting', 'making');
  create table document_batch_parts (
    batch_id uuid not null references document_batches,
    student_id uuid not null references students,
    position int not null,
    pages int,
    pdf bytea,
    left_out text check (left_out <> ''),
    primary key (batch_id, student_id)
  );
`;
