import { afterAll, beforeAll, inject } from 'vitest';
import { connect, type Database } from '~/server/platform/db/database';
import { dropDatabase, makeDatabase, newName, urlOf } from './databases';

/**
 * A database of this test file's own, empty and migrated. Its pool has one connection: a command that takes a second one while it
 * holds the first would wait for itself, and fail here.
 */
export function freshDatabase({ poolSize = 1 } = {}): { db: Database; url: string } {
  const name = newName('unit');
  const fresh = { url: urlOf(name) } as { db: Database; url: string };
  beforeAll(async () => {
    await makeDatabase(name, inject('template'));
    fresh.db = connect(urlOf(name), { poolSize });
  });
  afterAll(async () => {
    await fresh.db.destroy();
    await dropDatabase(name);
  });
  return fresh;
}
