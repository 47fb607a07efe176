import type { Knex } from 'knex';
import { tell } from '~/server/platform/db/asking';
import type { Database } from '~/server/platform/db/database';
import { actorOf } from './small-school';

/** Does something in a transaction that the database answers as it would for somebody. */
export function asPerson<Result>(
  db: Database,
  personId: string,
  work: (trx: Knex.Transaction) => Promise<Result>,
): Promise<Result> {
  return db.transaction(async (trx) => {
    await tell(trx, actorOf(personId));
    return work(trx);
  });
}
