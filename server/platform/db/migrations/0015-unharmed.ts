import type { Knex } from 'knex';

/** Tells the worker only of rows that there are, and that it has something to do with: a statement that changed nothing wakes nobody. */
const quietTriggers = `
  create or replace function tell_worker_of_added() returns trigger language plpgsql as $$
    begin
      if exists (select from added) then perform pg_notify('work', tg_table_name); end if;
      return null;
    end
  $$;
  ${['messages', 'entry_events', 'document_batches', 'rule_looks', 'rule_firings', 'destructions']
    .map(
      (table) => `
  drop trigger ${table}_wake on ${table};
  create trigger ${table}_wake after insert on ${table} referencing new table as added
    for each statement execute function tell_worker_of_added();`,
    )
    .join('')}
  create trigger messages_changed_wake after update of state, not_before on messages for each row
    when (new.state in ('waiting', 'held') and (new.state, new.not_before) is distinct from (old.state, old.not_before))
    execute function tell_worker();
  create trigger destructions_changed_wake after update of confirmed_at on destructions for each row
    when (new.confirmed_at is distinct from old.confirmed_at) execute function tell_worker();
`;

export async function up(db: Knex): Promise<void> {
  await db.raw(quietTriggers);
}
