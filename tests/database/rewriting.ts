import type { Knex } from 'knex';
import type { Database } from '~/server/platform/db/database';

/** The tables that refuse something by a trigger. */
const guarded = `select distinct c.relname from pg_trigger t join pg_class c on c.oid = t.tgrelid
   join pg_namespace n on n.oid = c.relnamespace where n.nspname = 'public' and not t.tgisinternal`;

/** Writes into a test’s own database what it refuses to everybody: a past that was not, where a test needs one. */
export function rewriting<Result>(db: Database, work: (trx: Knex.Transaction) => Promise<Result>): Promise<Result> {
  return db.transaction(async (trx) => {
    const found = await trx.raw<{ rows: { relname: string }[] }>(guarded);
    const all = (what: string) =>
      found.rows.map(({ relname }) => `alter table ${relname} ${what} trigger user;`).join('');
    await trx.raw(all('disable'));
    const result = await work(trx);
    await trx.raw(all('enable'));
    return result;
  });
}
