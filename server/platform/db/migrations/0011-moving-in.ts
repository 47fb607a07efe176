import type { Knex } from 'knex';

/**
 * Moving in: staff are asked to join a school, forget passwords and have other addresses; a code beside the password. Documents of several
 * students can be of goals that were chosen one by one.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table document_batches
      -- Goals chosen one by one, beside those of the areas; null where none was.
      add column goals uuid[] check (cardinality(goals) > 0);

    -- Links that open something of an account, once: to join a school's staff, to choose a password, to prove an address.
    create table account_links (
      id uuid primary key,
      kind text not null check (kind in ('join', 'password', 'email')),
      school_id uuid not null references schools,
      -- Whose account it is about; of a join, who accepted.
      person_id uuid references people,
      name text not null check (length(name) between 1 and 120),
      email text not null check (email like '%_@_%'),
      is_admin boolean not null default false,
      -- Null where somebody asked who had not signed in.
      made_by uuid references people,
      made_at timestamptz not null,
      ends_at timestamptz not null check (ends_at > made_at),
      used_at timestamptz,
      withdrawn_at timestamptz,
      check (kind = 'join' or person_id is not null),
      check (kind <> 'join' or (person_id is null) = (used_at is null)),
      check (kind = 'join' or not is_admin),
      check (used_at is null or withdrawn_at is null)
    );
    create index account_links_open on account_links (school_id, kind) where used_at is null and withdrawn_at is null;
    create table account_link_tokens (
      token_hash bytea primary key,
      link_id uuid not null references account_links,
      -- Passed on by whoever made it, where no mail leaves: it proves nothing of the address.
      is_read_out boolean not null default false
    );

    -- A message of an account is about no student.
    alter table messages
      alter column student_id drop not null,
      add column account_link_id uuid references account_links,
      drop constraint messages_check,
      add constraint messages_for_one check (num_nonnulls(link_id, person_id, invitation_id, account_link_id) = 1),
      add constraint messages_about_one check ((student_id is null) = (account_link_id is not null)),
      drop constraint messages_kind_check,
      add constraint messages_kind_check check (kind in ('entry', 'digest', 'byHand', 'invitation', 'locked', 'issued', 'rule', 'reminder', 'join', 'password', 'email')),
      add constraint messages_kind_of_account check ((kind in ('join', 'password', 'email')) = (account_link_id is not null));

    alter table schools
      -- Whether whoever shares reports, or administers, needs a code beside the password.
      add column asks_second_factor boolean not null default false;
    -- What an authenticator on somebody's phone shares with us; not in use until a code of it was typed.
    create table second_factors (
      person_id uuid primary key references people,
      secret text not null,
      made_at timestamptz not null,
      confirmed_at timestamptz,
      -- The newest half minute of which a code was taken: none is taken twice.
      last_step bigint
    );
    create table recovery_codes (
      person_id uuid not null references people,
      code_hash bytea not null,
      used_at timestamptz,
      primary key (person_id, code_hash)
    );
    -- An address at which a calendar program fetches somebody's due dates: who has it has not signed in. One each; another takes its place.
    create table calendar_addresses (
      person_id uuid primary key references people,
      token_hash bytea not null unique,
      -- Whether students are named; else it is their initials.
      has_names boolean not null default false,
      made_at timestamptz not null
    );
    -- Whose password was right, until their code is.
    create table half_sign_ins (
      token_hash bytea primary key,
      person_id uuid not null references people,
      is_shared boolean not null,
      made_at timestamptz not null
    );
  `);
}
