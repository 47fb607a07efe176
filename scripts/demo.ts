// Brings the database up to date and loads the demo: when the database is empty, or anew with --reset.
import { loadDemo } from '~/demo/load';
import { now } from '~/server/clock';
import { config } from '~/server/config';
import { connect } from '~/server/db/database';
import { migrate } from '~/server/db/migrate';

const db = connect(config.DATABASE_URL);
try {
  if (process.argv.includes('--reset')) await emptyDemo();
  await migrate(config.DATABASE_URL);
  if (!(await db('school').first())) {
    const start = performance.now();
    await loadDemo(db, now());
    const { count } = (await db('observations').count<{ count: string }[]>().first()) ?? { count: 0 };
    console.log(`Loaded the demo: ${count} observations in ${((performance.now() - start) / 1000).toFixed(1)} s.`);
  }
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exitCode = 1;
} finally {
  await db.destroy();
}

async function emptyDemo() {
  const school = (await db.schema.hasTable('school')) ? await db('school').first() : undefined;
  if (school && !school.is_demo) throw new Error('This database holds a real school; it is not reset.');
  await db.raw('drop schema public cascade; create schema public');
}
