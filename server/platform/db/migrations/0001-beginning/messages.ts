/** What leaves by e-mail, and the mail server that stands in for a real one. */
export const messages = `
  create table message_templates (
    school_id uuid not null references schools,
    kind text not null check (kind in ('entry', 'digest', 'byHand', 'invitation', 'locked', 'issued')),
    subject text not null check (subject <> ''),
    body text not null check (body <> ''),
    changed_by uuid not null references people,
    changed_at timestamptz not null,
    primary key (school_id, kind)
  );

  -- An entry was made of a student somebody is told about: written in the same transaction as the entry.
  create table entry_events (
    seq bigint generated always as identity primary key,
    student_id uuid not null,
    entry_id uuid not null,
    made_at timestamptz not null,
    -- Whether the messages that leave at each entry were made of it.
    is_collected boolean not null default false,
    foreign key (entry_id, student_id) references entries (id, student_id)
  );
  create index entry_events_student on entry_events (student_id, made_at);
  create index entry_events_new on entry_events (seq) where not is_collected;
  create index share_links_told on share_links (student_id) where frequency <> 'byHand';
  create index team_members_told on team_members (student_id) where frequency <> 'byHand';
  create function note_entry_event() returns trigger language plpgsql as $$
    begin
      if exists (select from share_links where student_id = new.student_id and frequency <> 'byHand')
         or exists (select from team_members where student_id = new.student_id and frequency <> 'byHand') then
        insert into entry_events (student_id, entry_id, made_at) values (new.student_id, new.id, new.recorded_at);
      end if;
      return null;
    end
  $$;
  create trigger entries_told after insert on entries for each row execute function note_entry_event();

  create table messages (
    id uuid primary key,
    seq bigint generated always as identity,
    -- What it is about and for whom: the same is never made twice.
    key text not null unique,
    kind text not null check (kind in ('entry', 'digest', 'byHand', 'invitation', 'locked', 'issued')),
    student_id uuid not null references students,
    link_id uuid,
    person_id uuid references people,
    invitation_id uuid references invitations,
    to_name text not null,
    to_email text not null check (to_email like '%_@_%'),
    -- Of a message by hand; else the template of its kind is filled in when it leaves.
    own_subject text,
    own_body text,
    -- What left, without its links.
    sent_subject text,
    sent_body text,
    state text not null check (state in ('waiting', 'held', 'sending', 'sent', 'bounced', 'uncertain', 'stopped', 'failed')),
    reason text,
    not_before timestamptz not null,
    attempts int not null default 0,
    made_by uuid references people,
    made_at timestamptz not null,
    sent_at timestamptz,
    again_of uuid references messages,
    check (num_nonnulls(link_id, person_id, invitation_id) = 1),
    check ((state = 'sent') = (sent_at is not null)),
    unique (id, student_id),
    foreign key (link_id, student_id) references share_links (id, student_id)
  );
  create index messages_student on messages (student_id, seq desc);
  create index messages_to_send on messages (not_before) where state in ('waiting', 'held', 'sending');
  create index messages_sent on messages (sent_at) where state = 'sent';
  create index messages_digests on messages (link_id, person_id, student_id, seq desc) where kind = 'digest';
  -- The entries that a message tells of.
  create table message_entries (
    message_id uuid not null,
    student_id uuid not null,
    entry_id uuid not null,
    position int not null,
    primary key (message_id, entry_id),
    foreign key (message_id, student_id) references messages (id, student_id),
    foreign key (entry_id, student_id) references entries (id, student_id)
  );
  -- The link in a message by which it can be stopped.
  create table message_stops (
    token_hash bytea primary key check (octet_length(token_hash) = 32),
    message_id uuid not null references messages
  );

  -- The test mail server: what it got, and how it treats whom.
  create table test_mail_inbox (
    id bigint generated always as identity primary key,
    message_id text not null unique,
    recipient text not null,
    subject text not null,
    body text not null,
    headers jsonb not null,
    arrived_at timestamptz not null
  );
  create table test_mail_rules (
    id uuid primary key,
    -- Part of an address; the first rule that fits is followed.
    address text not null check (address <> ''),
    does text not null check (does in ('bounce', 'defer', 'delay')),
    seconds int not null default 0 check (seconds between 0 and 60),
    words text not null default '',
    made_at timestamptz not null
  );

  -- Whoever waits for work hears of it.
  create function tell_worker() returns trigger language plpgsql as $$
    begin
      perform pg_notify('work', tg_table_name);
      return null;
    end
  $$;
  create trigger messages_wake after insert or update of state, not_before on messages
    for each statement execute function tell_worker();
  create trigger entry_events_wake after insert on entry_events for each statement execute function tell_worker();
  create trigger document_batches_wake after insert on document_batches for each statement execute function tell_worker();
`;
