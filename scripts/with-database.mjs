// Runs a command with DATABASE_URL set: `node scripts/with-database.mjs vitest run`.
import { checkNode, ensurePackages } from './setup/packages.mjs';
import { ensurePostgres } from './setup/postgres.mjs';
import { run } from './setup/run.mjs';

checkNode();
await ensurePackages();
const [command, ...args] = process.argv.slice(2);
const { url, stop } = await ensurePostgres(['vitest', 'playwright'].includes(command) ? 'tests' : 'data');
const code = await run(command, args, { env: { DATABASE_URL: url } });
stop();
process.exit(code);
