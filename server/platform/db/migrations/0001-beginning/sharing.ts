/** Who reads a student's report besides the team, what they see, what they say, and what is written down of it. */
export const sharing = `
  -- What a kind of reader is shown, and how: the school's (student_id null) or one student's own.
  create table visibility_rules (
    school_id uuid not null references schools,
    student_id uuid,
    kind text not null check (kind in ('team', 'family', 'student', 'specialist')),
    fields text[] not null,
    layout text not null check (layout in ('sentences', 'table', 'cards')),
    grouping text not null check (grouping in ('week', 'goal', 'none')),
    oldest_first boolean not null,
    changed_by uuid not null references people,
    changed_at timestamptz not null,
    unique nulls not distinct (school_id, student_id, kind),
    foreign key (student_id, school_id) references students (id, school_id)
  );

  create table share_links (
    id uuid primary key,
    student_id uuid not null references students,
    reader_name text not null check (char_length(reader_name) between 1 and 120),
    kind text not null check (kind in ('family', 'student', 'specialist')),
    -- What the reader needs it for: a record of disclosures names it.
    purpose text not null check (char_length(purpose) between 1 and 200),
    ends_on date not null,
    created_by uuid not null references people,
    created_at timestamptz not null,
    withdrawn_by uuid references people,
    withdrawn_at timestamptz,
    passcode_hash text,
    wrong_passcodes int not null default 0 check (wrong_passcodes >= 0),
    wrong_at timestamptz,
    locked_at timestamptz,
    email text check (email like '%_@_%'),
    frequency text not null default 'byHand' check (frequency in ('byHand', 'entry', 'daily', 'weekly')),
    stopped_at timestamptz,
    unique (id, student_id),
    check ((withdrawn_by is null) = (withdrawn_at is null)),
    check (frequency = 'byHand' or email is not null)
  );
  create index share_links_student on share_links (student_id);
  -- Every address of a share link: the one that was shown, and those that went out in messages.
  create table share_link_tokens (
    token_hash bytea primary key check (octet_length(token_hash) = 32),
    link_id uuid not null references share_links,
    made_at timestamptz not null
  );
  create index share_link_tokens_link on share_link_tokens (link_id);
  -- A browser that has given the passcode.
  create table share_link_passes (
    token_hash bytea primary key check (octet_length(token_hash) = 32),
    link_id uuid not null references share_links,
    ends_at timestamptz not null
  );

  -- Who opened, took away or was sent what of a student, and by which share link.
  create table access_log (
    id bigint generated always as identity primary key,
    student_id uuid not null references students,
    person_id uuid references people,
    link_id uuid,
    what text not null check (what <> ''),
    how text not null check (how in ('opened', 'exported', 'sent', 'issued')),
    at timestamptz not null,
    -- The day at the school: pages are opened once a day and person.
    day date not null,
    check ((person_id is null) <> (link_id is null)),
    foreign key (link_id, student_id) references share_links (id, student_id)
  );
  create index access_log_student on access_log (student_id, at desc);
  create index access_log_link on access_log (link_id, at desc) where link_id is not null;
  create unique index access_log_daily on access_log (student_id, person_id, day, what) where how = 'opened' and person_id is not null;

  -- What team, family and the student say of an entry; a reflection may also stand for itself.
  create table comments (
    id uuid primary key,
    seq bigint generated always as identity,
    student_id uuid not null references students,
    entry_id uuid,
    kind text not null check (kind in ('comment', 'reflection')),
    person_id uuid references people,
    link_id uuid,
    -- An answer of the team to what one reader said is for that reader, and the team.
    answers uuid references comments check (answers <> id),
    said_on date not null,
    said_time time not null,
    text text not null check (char_length(text) between 1 and 2000),
    said_at timestamptz not null,
    hidden_by uuid references people,
    hidden_at timestamptz,
    hidden_reason text check (hidden_reason <> ''),
    check ((person_id is null) <> (link_id is null)),
    check (entry_id is not null or kind = 'reflection'),
    check ((hidden_by is null) = (hidden_at is null) and (hidden_by is null) = (hidden_reason is null)),
    foreign key (entry_id, student_id) references entries (id, student_id),
    foreign key (link_id, student_id) references share_links (id, student_id)
  );
  create index comments_student on comments (student_id, said_at);
  create index comments_entry on comments (entry_id) where entry_id is not null;

  -- What was changed of who may do and see what, and of what a school rests on: never changed again.
  create table changes (
    id bigint generated always as identity primary key,
    school_id uuid references schools,
    student_id uuid references students,
    -- Whom it is about, where it is about a person.
    person_id uuid references people,
    what text not null check (what <> ''),
    before jsonb,
    after jsonb,
    changed_by uuid references people,
    changed_at timestamptz not null
  );
  create index changes_school on changes (school_id, id desc);
  create index changes_student on changes (student_id, id desc) where student_id is not null;
`;
