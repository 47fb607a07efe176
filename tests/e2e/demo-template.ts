import { loadDemo } from '~/demo/load';
import { connect } from '~/server/platform/db/database';
import { migrate } from '~/server/platform/db/migrate';
import { dropDatabase, makeDatabase, newName, urlOf } from '../database/databases';

/** The day on which all tests in the browser take place: a Tuesday afternoon in November. */
export const clock = '2026-11-24T15:30:00-05:00';

/** Makes the database with the demo that each test's own is a copy of. */
export default async function setup() {
  const name = newName('demo');
  await makeDatabase(name);
  await migrate(urlOf(name));
  const db = connect(urlOf(name), { poolSize: 2 });
  await loadDemo(db, new Date(clock));
  await db.destroy();
  process.env.DEMO_TEMPLATE = name;
  return () => dropDatabase(name);
}
