// npm run --silent analyse -- series|abc|agreement FILE.csv. Only the analysis goes to the standard output.
import { checkNode, ensurePackages } from './setup/packages.mjs';
import { run } from './setup/run.mjs';

checkNode();
await ensurePackages({ isQuiet: true });
process.exitCode = await run('tsx', ['scripts/analyse/analyse.ts', ...process.argv.slice(2)]);
