import { afterAll, beforeAll, inject } from 'vitest';
import { connect, type Database } from '~/server/db/database';
import { dropDatabase, makeDatabase, newName, urlOf } from './databases';

/** A database of this test file's own, empty and migrated. */
export function freshDatabase(): { db: Database; url: string } {
  const name = newName('unit');
  const fresh = { url: urlOf(name) } as { db: Database; url: string };
  beforeAll(async () => {
    await makeDatabase(name, inject('template'));
    fresh.db = connect(urlOf(name), { poolSize: 4 });
  });
  afterAll(async () => {
    await fresh.db.destroy();
    await dropDatabase(name);
  });
  return fresh;
}
