import type { Knex } from 'knex';

const toldWhen = `text not null default 'byHand' check (told in ('byHand', 'entry', 'daily', 'weekly'))`;

export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- When a reader is told of new entries by e-mail.
    alter table share_links
      add column email text check (email like '%_@_%'),
      add column told ${toldWhen},
      add column stopped_at timestamptz,
      add check (told = 'byHand' or email is not null);
    alter table team_members add column told ${toldWhen}, add column stopped_at timestamptz;

    create table wordings (
      kind text primary key check (kind in ('entry', 'digest', 'byHand', 'invitation', 'locked', 'issued')),
      subject text not null check (subject <> ''),
      body text not null check (body <> ''),
      changed_by uuid not null references people,
      changed_at timestamptz not null
    );

    create table post_settings (
      only_one boolean primary key default true check (only_one),
      daily_limit int not null default 1500 check (daily_limit > 0)
    );
    insert into post_settings default values;

    -- An entry was made of a student somebody is told about: written in the same transaction as the entry.
    create table entry_events (
      seq bigint generated always as identity primary key,
      student_id uuid not null references students,
      entry_id uuid not null,
      made_at timestamptz not null,
      -- Whether the messages that leave at each entry were made of it.
      is_collected boolean not null default false
    );
    create index entry_events_student on entry_events (student_id, made_at);
    create index entry_events_new on entry_events (seq) where not is_collected;
    create function note_entry_event() returns trigger language plpgsql as $$
      begin
        if exists (select from share_links where student_id = new.student_id and told <> 'byHand')
           or exists (select from team_members where student_id = new.student_id and told <> 'byHand') then
          insert into entry_events (student_id, entry_id, made_at) values (new.student_id, new.id, new.recorded_at);
        end if;
        return null;
      end
    $$;
    create trigger observations_told after insert on observations for each row execute function note_entry_event();
    create trigger abc_notes_told after insert on abc_notes for each row execute function note_entry_event();
    create trigger tallies_told after insert on tallies for each row execute function note_entry_event();
    create index share_links_told on share_links (student_id) where told <> 'byHand';
    create index team_members_told on team_members (student_id) where told <> 'byHand';

    create table messages (
      id uuid primary key,
      seq bigint generated always as identity,
      -- What it is about and for whom: the same is never made twice.
      key text not null unique,
      kind text not null check (kind in ('entry', 'digest', 'byHand', 'invitation', 'locked', 'issued')),
      student_id uuid not null references students,
      link_id uuid references share_links,
      person_id uuid references people,
      invitation_id uuid references invitations,
      to_name text not null,
      to_email text not null check (to_email like '%_@_%'),
      entry_ids uuid[] not null default '{}',
      -- Of a message by hand; else the wording of its kind is filled in when it leaves.
      own_subject text,
      own_body text,
      -- What left, without its links.
      sent_subject text,
      sent_body text,
      state text not null check (state in ('waiting', 'held', 'sending', 'sent', 'bounced', 'uncertain', 'stopped')),
      reason text,
      not_before timestamptz not null,
      attempts int not null default 0,
      made_by uuid references people,
      made_at timestamptz not null,
      sent_at timestamptz,
      again_of uuid references messages,
      check (num_nonnulls(link_id, person_id, invitation_id) = 1),
      check ((state = 'sent') = (sent_at is not null))
    );
    create index messages_student on messages (student_id, seq desc);
    create index messages_to_send on messages (not_before) where state in ('waiting', 'held', 'sending');
    create index messages_sent on messages (sent_at) where state = 'sent';
    create trigger messages_stay before delete on messages for each row execute function refuse_removal();
    -- The link in a message by which it can be stopped.
    create table message_stops (
      token_hash bytea primary key check (octet_length(token_hash) = 32),
      message_id uuid not null references messages
    );

    -- The simulated carrier: what it got, and how it treats whom.
    create table carrier_inbox (
      id bigint generated always as identity primary key,
      message_id text not null unique,
      recipient text not null,
      subject text not null,
      body text not null,
      headers jsonb not null,
      arrived_at timestamptz not null
    );
    create table carrier_rules (
      id uuid primary key,
      -- Part of an address; the first rule that fits is followed.
      address text not null check (address <> ''),
      does text not null check (does in ('bounce', 'defer', 'delay')),
      seconds int not null default 0 check (seconds between 0 and 60),
      words text not null default '',
      made_at timestamptz not null
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table carrier_rules, carrier_inbox, message_stops, messages, post_settings, wordings;
    drop trigger observations_told on observations;
    drop trigger abc_notes_told on abc_notes;
    drop trigger tallies_told on tallies;
    drop function note_entry_event;
    drop table entry_events;
    alter table team_members drop column told, drop column stopped_at;
    alter table share_links drop column email, drop column told, drop column stopped_at;
  `);
}
