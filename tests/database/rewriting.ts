import type { Knex } from 'knex';
import type { Database } from '~/server/db/database';

/** Writes into a test’s own database what it refuses to everybody: a past that was not, where a test needs one. */
export function rewriting<Result>(db: Database, work: (trx: Knex.Transaction) => Promise<Result>): Promise<Result> {
  return db.transaction(async (trx) => {
    await trx.raw('set local session_replication_role = replica');
    return work(trx);
  });
}
