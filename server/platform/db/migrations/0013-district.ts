import type { Knex } from 'knex';

/** Sign-in by a district's own service: whose account there is whose here. And in whose place somebody who is awaited is to be. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table district_accounts (
      -- As the service calls itself, and its own unchanging name for somebody.
      issuer text not null check (length(issuer) between 1 and 500),
      subject text not null check (length(subject) between 1 and 255),
      person_id uuid not null references people,
      since timestamptz not null,
      primary key (issuer, subject),
      unique (issuer, person_id)
    );
    -- Who has the student until then: where somebody else was given them meanwhile, that stays.
    alter table awaited_members add column instead_of uuid references people;
  `);
}
