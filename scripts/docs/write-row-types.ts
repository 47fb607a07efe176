// npm run db:types: writes server/platform/db/tables.ts anew from the live schema.
import { writeFileSync } from 'node:fs';
import { migrate } from '~/server/platform/db/migrate';
import { dropDatabase, makeDatabase, newName, urlOf } from '~/tests/database/databases';
import { rowTypes } from './row-types';

const name = newName('types');
await makeDatabase(name);
try {
  await migrate(urlOf(name));
  writeFileSync('server/platform/db/tables.ts', await rowTypes(urlOf(name)));
} finally {
  await dropDatabase(name);
}
