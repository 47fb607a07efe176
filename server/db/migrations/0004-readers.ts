import type { Knex } from 'knex';

export async function up(db: Knex): Promise<void> {
  await db.raw(`
    -- What a kind of reader is shown, and how: the school's (student_id null) or one student's own.
    create table reader_rules (
      student_id uuid references students,
      kind text not null check (kind in ('team', 'family', 'student', 'specialist')),
      shows text[] not null,
      layout text not null check (layout in ('sentences', 'table', 'cards')),
      grouping text not null check (grouping in ('week', 'goal', 'none')),
      oldest_first boolean not null,
      changed_by uuid not null references people,
      changed_at timestamptz not null,
      unique nulls not distinct (student_id, kind)
    );

    -- What a member may do beside reading; null is what the role usually carries.
    alter table team_members
      add column rights text[] check (rights <@ array['observe', 'setUp', 'share']),
      add column changed_by uuid references people,
      add column changed_at timestamptz;
    -- Who was asked by e-mail to join a team; the link works once.
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
      check ((accepted_by is null) = (accepted_at is null))
    );
    create index invitations_student on invitations (student_id);
    -- Every link of an invitation: the one that was shown, and the one that went out in its message.
    create table invitation_tokens (
      token_hash bytea primary key check (octet_length(token_hash) = 32),
      invitation_id uuid not null references invitations
    );

    -- A way in is for a kind of reader, whose rule says what it shows. What it showed besides is now said by the rule,
    -- which is at least as careful.
    alter table share_links
      add column kind text not null default 'family' check (kind in ('family', 'student', 'specialist')),
      add column passcode_hash text,
      add column wrong_passcodes int not null default 0 check (wrong_passcodes >= 0),
      add column wrong_at timestamptz,
      add column locked_at timestamptz;
    alter table share_links alter column kind drop default,
      drop column shows_notes, drop column shows_observers, drop column shows_behavior;
    -- Every link that opens a way in: the one that was shown, and those that went out in messages.
    create table share_link_tokens (
      token_hash bytea primary key check (octet_length(token_hash) = 32),
      link_id uuid not null references share_links,
      made_at timestamptz not null
    );
    insert into share_link_tokens select token_hash, id, created_at from share_links;
    alter table share_links drop column token_hash;
    create index share_link_tokens_link on share_link_tokens (link_id);
    -- A browser that has given the passcode.
    create table share_link_passes (
      token_hash bytea primary key check (octet_length(token_hash) = 32),
      link_id uuid not null references share_links,
      ends_at timestamptz not null
    );

    -- The record of reading: who opened or exported what of a student, and by which way in.
    create table readings (
      id bigint generated always as identity primary key,
      student_id uuid not null references students,
      person_id uuid references people,
      link_id uuid references share_links,
      what text not null check (what <> ''),
      how text not null check (how in ('opened', 'exported', 'sent')),
      read_at timestamptz not null,
      check ((person_id is null) <> (link_id is null))
    );
    insert into readings (student_id, link_id, what, how, read_at)
      select l.student_id, o.link_id, 'report', 'opened', o.opened_at
        from share_link_openings o join share_links l on l.id = o.link_id order by o.id;
    drop table share_link_openings;
    create index readings_student on readings (student_id, read_at desc);
    create index readings_link on readings (link_id, read_at desc) where link_id is not null;
    create trigger readings_stay before delete or update on readings for each row execute function refuse_removal();

    -- What team, family and the student say of an entry; a reflection may also stand for itself.
    create table comments (
      id uuid primary key,
      seq bigint generated always as identity,
      student_id uuid not null references students,
      entry_id uuid,
      kind text not null check (kind in ('comment', 'reflection')),
      person_id uuid references people,
      link_id uuid references share_links,
      said_on date not null,
      said_time time not null,
      text text not null check (char_length(text) between 1 and 2000),
      said_at timestamptz not null,
      hidden_by uuid references people,
      hidden_at timestamptz,
      hidden_reason text check (hidden_reason <> ''),
      check ((person_id is null) <> (link_id is null)),
      check (entry_id is not null or kind = 'reflection'),
      check ((hidden_by is null) = (hidden_at is null) and (hidden_by is null) = (hidden_reason is null))
    );
    create index comments_student on comments (student_id, said_at);
    create trigger comments_stay before delete on comments for each row execute function refuse_removal();

    -- Notes in which the case manager lets another child's name stand, as they said at a version.
    create table names_let_stand (
      entry_id uuid not null,
      version int not null,
      student_id uuid not null references students,
      let_by uuid not null references people,
      let_at timestamptz not null,
      primary key (entry_id, version)
    );
  `);
}

export async function down(db: Knex): Promise<void> {
  await db.raw(`
    drop table names_let_stand, comments, share_link_passes, invitation_tokens, invitations, reader_rules;
    create table share_link_openings (
      id bigint generated always as identity primary key,
      link_id uuid not null references share_links,
      opened_at timestamptz not null
    );
    insert into share_link_openings (link_id, opened_at)
      select link_id, read_at from readings where link_id is not null order by id;
    create index share_link_openings_link on share_link_openings (link_id, opened_at desc);
    create trigger openings_stay before delete or update on share_link_openings for each row execute function refuse_removal();
    drop table readings;
    alter table share_links add column token_hash bytea unique,
      add column shows_notes boolean not null default false, add column shows_observers boolean not null default false,
      add column shows_behavior boolean not null default false;
    update share_links l set token_hash = (select t.token_hash from share_link_tokens t where t.link_id = l.id order by t.made_at limit 1);
    alter table share_links alter column token_hash set not null, drop column kind, drop column passcode_hash,
      drop column wrong_passcodes, drop column wrong_at, drop column locked_at;
    drop table share_link_tokens;
    alter table team_members drop column rights, drop column changed_by, drop column changed_at;
  `);
}
