// npm run check: what was changed since the last commit, formatted, linted and typed, and the tests that it reaches.
import { checkNode, ensurePackages } from './setup/packages.mjs';
import { ensurePostgres } from './setup/postgres.mjs';
import { run } from './setup/run.mjs';

checkNode();
await ensurePackages();
const steps = [
  ['biome', ['check', '--changed', '--since=HEAD', '--no-errors-on-unmatched', '--write', '.']],
  ['react-router', ['typegen']],
  ['tsc', []],
];
for (const [command, args] of steps) {
  const code = await run(command, args);
  if (code !== 0) process.exit(code);
}
const { url, stop } = await ensurePostgres('tests');
const code = await run('vitest', ['run', '--changed', '--passWithNoTests'], { env: { DATABASE_URL: url } });
stop();
process.exit(code);
