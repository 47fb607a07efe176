// npm run bench: how fast and how large, as ratios against bare baselines of the same run. Prints one JSON object. Parts can be named: `npm run bench -- studentPage core`.
import { spawn } from 'node:child_process';
import { ensureBrowser } from '../setup/browsers.mjs';
import { checkNode, ensureBuild, ensurePackages } from '../setup/packages.mjs';
import { ensurePostgres } from '../setup/postgres.mjs';
import { projectFolder, run } from '../setup/run.mjs';

checkNode();
await ensurePackages();
await ensureBrowser('in which taps are timed');
await ensureBuild();

/** Seconds until the start command says where the application is. */
function startSeconds() {
  return new Promise((resolve, reject) => {
    const began = performance.now();
    const start = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: projectFolder,
      env: { ...process.env, PORT: '0', LOG_LEVEL: 'silent' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    let seconds = null;
    start.stdout.on('data', (text) => {
      if (seconds === null && String(text).includes('Gentle Margin is at')) {
        seconds = (performance.now() - began) / 1000;
        start.kill('SIGTERM');
      }
    });
    start.on('exit', () => (seconds === null ? reject(new Error('It did not start.')) : resolve(seconds)));
  });
}

const isLarge = process.argv.includes('--large');
const named = process.argv.slice(2).filter((word) => word !== '--large');
const timesStart = !isLarge && (named.length === 0 || named.includes('secondStartSeconds'));
if (timesStart) await startSeconds();
const secondStart = timesStart ? await startSeconds() : 0;
const { url, stop } = await ensurePostgres();
const env = { DATABASE_URL: url, SECOND_START: secondStart.toFixed(2) };
const script = isLarge ? 'large' : 'measure';
const code = await run('tsx', [`scripts/bench/${script}.ts`, ...named], { env });
stop();
process.exit(code);
