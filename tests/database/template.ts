import type { TestProject } from 'vitest/node';
import { migrate } from '~/server/platform/db/migrate';
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
  await migrate(urlOf(name));
  project.provide('template', name);
  return () => dropDatabase(name);
}
