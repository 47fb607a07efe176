// For working on the screens: the demo with React Router's development server, which reloads what changes.
import { checkNode, ensurePackages } from './setup/packages.mjs';
import { ensurePostgres } from './setup/postgres.mjs';
import { run, wantsDemo } from './setup/run.mjs';

checkNode();
await ensurePackages();
const isDemo = wantsDemo();
const { url, stop } = await ensurePostgres();
const env = { DATABASE_URL: url };
let code = await run('tsx', ['scripts/prepare.ts', ...(isDemo ? ['--demo'] : [])], { env });
if (code === 0) {
  // The worker and the test mail server are at work beside the pages, as they are after the start command.
  for (const file of ['server/worker/main.ts', 'test-mail/main.ts']) {
    run(process.execPath, ['--import', 'tsx', file], { env: { ...env, PUBLIC_URL: 'http://localhost:4311' } });
  }
  code = await run('react-router', ['dev', '--port', '4311'], { env });
}
stop();
process.exit(code);
