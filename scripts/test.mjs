// All tests, one after the other: types, lint, units against a real PostgreSQL, build, the real interface in Chromium.
import { ensureBrowser } from './setup/browsers.mjs';
import { checkNode, ensureBuild, ensurePackages } from './setup/packages.mjs';
import { ensurePostgres } from './setup/postgres.mjs';
import { run } from './setup/run.mjs';

checkNode();
await ensurePackages();
await ensureBrowser('which the browser tests drive');
const { url, stop } = await ensurePostgres();
const env = { DATABASE_URL: url };

const steps = [
  ['Types', () => run('npm', ['run', '--silent', 'types'])],
  ['Lint and format', () => run('biome', ['check', '--error-on-warnings', '.'])],
  ['Unit tests', () => run('vitest', ['run', '--reporter=dot'], { env })],
  ['Build', () => ensureBuild().then(() => 0)],
  ['Browser tests', () => run('playwright', ['test'], { env })],
];
for (const [name, step] of steps) {
  console.log(`\n— ${name}`);
  const code = await step();
  if (code !== 0) {
    console.error(`\n${name}: failed.`);
    stop();
    process.exit(code);
  }
}
stop();
