import { AsyncLocalStorage } from 'node:async_hooks';
import type { Knex } from 'knex';
import { config } from '../config';
import { type Asking, tell } from './asking';
import { connect, type Database, isRefusedWithAnother, snapshot } from './database';

let pool: Database | undefined;
const current = new AsyncLocalStorage<Database>();

/** The one pool of this process, opened at first use. Whoever asks through it has not said who they are, and sees nothing of a student. */
function thePool(): Database {
  pool ??= connect(config.DATABASE_URL, {
    poolSize: config.POOL_SIZE,
    as: config.ROW_SECURITY === 'on' ? 'app' : undefined,
  });
  return pool;
}

/** The database as the one who asks sees it: the transaction of what is being answered, where there is one. */
export function database(): Database {
  return current.getStore() ?? thePool();
}

/** Closes the pool, at the end of the process. */
export async function closeDatabase(): Promise<void> {
  await pool?.destroy();
  pool = undefined;
}

/**
 * Does something in one transaction, as somebody: within it `database()` is that transaction. What was written stands at the end,
 * also where it ends with a failure: each command is whole by itself, and tries are counted whether they succeed or not.
 */
export async function asking<Result>(who: Asking, work: () => Promise<Result>): Promise<Result> {
  const trx = await begin(who);
  try {
    return await current.run(trx, work);
  } finally {
    await trx.commit();
  }
}

interface Shared {
  trx: Promise<Knex.Transaction>;
  readers: number;
}

/** What is read at the moment, by the one who asks: one object for each request. */
const shared = new WeakMap<Asking, Shared>();

/**
 * The same, for what only reads: what is asked for one request at the same time shares one transaction, which ends with the last of
 * them. Where the database refused what another of them asked, and with it everything after, this one asks again by itself.
 */
export async function askingTogether<Result>(who: Asking, work: () => Promise<Result>): Promise<Result> {
  try {
    return await askingAlong(who, work);
  } catch (error) {
    if (!isRefusedWithAnother(error)) throw error;
    return asking(who, work);
  }
}

async function askingAlong<Result>(who: Asking, work: () => Promise<Result>): Promise<Result> {
  const together = shared.get(who) ?? { trx: begin(who), readers: 0 };
  shared.set(who, together);
  together.readers++;
  try {
    return await current.run(await together.trx, work);
  } finally {
    together.readers--;
    if (together.readers === 0) {
      shared.delete(who);
      await (await together.trx).commit();
    }
  }
}

async function begin(who: Asking): Promise<Knex.Transaction> {
  const trx = await thePool().transaction();
  try {
    await tell(trx, who);
    return trx;
  } catch (error) {
    await trx.rollback();
    throw error;
  }
}

/** The same, where everything is seen as it stood at one moment; begun anew where another was first. */
export function askingAtOneMoment<Result>(who: Asking, work: () => Promise<Result>): Promise<Result> {
  return snapshot(thePool(), async (trx) => {
    await tell(trx, who);
    return current.run(trx, work);
  });
}
