// npm run docs:data: writes docs/data.md anew from the live schema.
import { writeFileSync } from 'node:fs';
import { connect } from '~/server/platform/db/database';
import { migrate } from '~/server/platform/db/migrate';
import { dropDatabase, makeDatabase, newName, urlOf } from '~/tests/database/databases';
import { dataDiagram } from './data-diagram';
import { head, rooms } from './rooms';

const name = newName('data');
await makeDatabase(name);
await migrate(urlOf(name));
const db = connect(urlOf(name));
try {
  writeFileSync('docs/data.md', head + (await dataDiagram(db, rooms)));
} finally {
  await db.destroy();
  await dropDatabase(name);
}
