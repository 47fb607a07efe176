import { config } from '../config';
import { connect, type Database } from './database';

let current: Database | undefined;

/** The one pool of this process, opened at first use. */
export function database(): Database {
  current ??= connect(config.DATABASE_URL);
  return current;
}

/** Closes the pool, at the end of the process. */
export async function closeDatabase(): Promise<void> {
  await current?.destroy();
  current = undefined;
}
