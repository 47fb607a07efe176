import type { TestProject } from 'vitest/node';
import { connect } from '~/server/db/database';
import { migrate } from '~/server/db/migrate';
import { dropDatabase, makeDatabase, newName, urlOf } from './databases';

declare module 'vitest' {
  export interface ProvidedContext {
    template: string;
  }
}

/** Makes the empty, migrated database that each test file's own is a copy of. */
export default async function setup(project: TestProject) {
  const name = newName('template');
  await makeDatabase(name);
  const db = connect(urlOf(name), { poolSize: 2 });
  await migrate(db);
  await db.destroy();
  project.provide('template', name);
  return () => dropDatabase(name);
}
