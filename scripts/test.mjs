// All tests: types, lint, units against a real PostgreSQL, build, then the real interface in Chromium.
import { ensureBrowser } from './setup/browsers.mjs';
import { checkNode, ensureBuild, ensurePackages } from './setup/packages.mjs';
import { ensurePostgres } from './setup/postgres.mjs';
import { run } from './setup/run.mjs';

checkNode();
await ensurePackages();
await ensureBrowser('which the browser tests drive');
const { url, stop } = await ensurePostgres('tests');
const env = { DATABASE_URL: url };

/** Steps one after the other; resolves to the name of the first that fails. */
async function inTurn(steps) {
  for (const [name, step] of steps) {
    console.log(`\n— ${name}`);
    if ((await step()) !== 0) return name;
  }
  return null;
}

// Two things at a time, as many as a small machine has cores.
const beforehand = await Promise.all([
  inTurn([
    ['Types', () => run('npm', ['run', '--silent', 'types'])],
    ['Lint and format', () => run('biome', ['check', '--error-on-warnings', '.'])],
    ['Build', () => ensureBuild().then(() => 0)],
  ]),
  inTurn([['Unit tests', () => run('vitest', ['run', '--reporter=dot'], { env })]]),
]);
const failed =
  beforehand.find(Boolean) ?? (await inTurn([['Browser tests', () => run('playwright', ['test'], { env })]]));
stop();
if (failed) {
  console.error(`\n${failed}: failed.`);
  process.exit(1);
}
