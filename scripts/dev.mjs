// For working on the screens: the demo with React Router's development server, which reloads what changes.
import { checkNode, ensurePackages } from './setup/packages.mjs';
import { ensurePostgres } from './setup/postgres.mjs';
import { run } from './setup/run.mjs';

checkNode();
await ensurePackages();
const { url, stop } = await ensurePostgres();
const env = { DATABASE_URL: url };
const code =
  (await run('tsx', ['scripts/demo.ts'], { env })) || (await run('react-router', ['dev', '--port', '4311'], { env }));
stop();
process.exit(code);
