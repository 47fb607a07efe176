// Brings the database up to date. With --demo, loads the demo into an empty one; else an empty one gets a code that opens its set-up.
// With --reset, builds the demo anew, where nobody but the demo's people has ever had an account.
import { loadDemo } from '~/demo/load';
import { newSetUpCode } from '~/server/people/beginning';
import { now } from '~/server/platform/clock';
import { config } from '~/server/platform/config';
import { connect, type Database } from '~/server/platform/db/database';
import { alone } from '~/server/platform/db/lock';
import { migrate } from '~/server/platform/db/migrate';
import { schoolIfAny } from '~/server/school/school';

/** Of several that prepare the same database at once, one loads the demo, and the others find it there. */
const PREPARING = 4310_0003;
const demoIsThere =
  'This database holds the demo. For a school of one’s own, name another in DATABASE_URL, or empty this one.';
const wants = (flag: string) => process.argv.includes(flag);

const db = connect(config.DATABASE_URL);
try {
  await alone(config.DATABASE_URL, PREPARING, async () => {
    if (wants('--reset')) await emptyDemo(db);
    await migrate(config.DATABASE_URL, { hasGuard: config.ROW_SECURITY === 'on' });
    const school = await schoolIfAny(db);
    if (school) {
      if (school.isDemo && !wants('--demo') && !wants('--reset')) console.log(demoIsThere);
      return;
    }
    if (wants('--demo') || wants('--reset')) await fillWithDemo(db);
    else await offerSetUp(db);
  });
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
} finally {
  await db.destroy();
}

async function fillWithDemo(empty: Database) {
  const start = performance.now();
  await loadDemo(empty, now());
  const { count } = (await empty('entries').count<{ count: string }[]>().first()) ?? { count: 0 };
  console.log(`Loaded the demo: ${count} entries in ${((performance.now() - start) / 1000).toFixed(1)} s.`);
}

async function offerSetUp(empty: Database) {
  const code = await newSetUpCode(empty, now());
  console.log(`
There is no school in this database yet. Whoever opens ${new URL('/set-up', config.PUBLIC_URL)}
begins with this code, which works once:

    ${code}
`);
}

/** Takes all tables away, where they are the demo's and nobody else's. */
async function emptyDemo(full: Database) {
  const refuse = (why: string) => {
    throw new Error(`${why} It is not reset.`);
  };
  const tables = await full('information_schema.tables').where({ table_schema: 'public' }).select('table_name');
  const has = (table: string) => tables.some(({ table_name }) => table_name === table);
  if (tables.length > 0 && (!has('schools') || !has('people'))) refuse('This database holds something else.');
  if (has('schools') && (await full('schools').where({ is_demo: false }).first()))
    refuse('This database holds a real school.');
  if (has('people') && (await full('people').whereNull('demo_order').first('id'))) {
    refuse('Somebody who is not of the demo has an account in this database.');
  }
  await full.raw('drop schema public cascade; create schema public');
}
