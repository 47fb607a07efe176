import { AsyncLocalStorage } from 'node:async_hooks';
import { config } from '../config';
import { type Asking, tell } from './asking';
import { connect, type Database, snapshot } from './database';

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
  const trx = await thePool().transaction();
  try {
    await tell(trx, who);
    return await current.run(trx, work);
  } finally {
    await trx.commit();
  }
}

/** The same, where everything is seen as it stood at one moment; begun anew where another was first. */
export function askingAtOneMoment<Result>(who: Asking, work: () => Promise<Result>): Promise<Result> {
  return snapshot(thePool(), async (trx) => {
    await tell(trx, who);
    return current.run(trx, work);
  });
}
