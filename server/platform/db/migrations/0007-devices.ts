import type { Knex } from 'knex';

/**
 * What a device keeps for a day without network: how many days at most is a school's to say; and the keys with which devices seal what
 * waits to be sent, so that only the server can open it again.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table schools add column days_on_devices int not null default 7 check (days_on_devices between 0 and 30);

    create table sealing_keys (
      id uuid primary key,
      public_key jsonb not null check (jsonb_typeof(public_key) = 'object'),
      private_key jsonb not null check (jsonb_typeof(private_key) = 'object'),
      made_at timestamptz not null
    );
    -- One that is in use: two processes that begin at once must not make two.
    create unique index sealing_keys_one on sealing_keys ((true));

    -- What a device fetches for when there is no network is a disclosure too: once a day, as what is opened.
    alter table access_log drop constraint access_log_how_check;
    alter table access_log add constraint access_log_how_check check (how in ('opened', 'exported', 'sent', 'issued', 'kept'));
    drop index access_log_daily;
    create unique index access_log_daily on access_log (student_id, person_id, day, what, how)
      where how in ('opened', 'kept') and person_id is not null;
  `);
}
