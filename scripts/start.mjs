// Brings everything up: packages, database, tables, demo, build, server. Ctrl-C ends it all.
import { spawn } from 'node:child_process';
import { checkNode, ensureBuild, ensurePackages } from './setup/packages.mjs';
import { ensurePostgres } from './setup/postgres.mjs';
import { environment, projectFolder, run, serverFlags } from './setup/run.mjs';
import { giveUp } from './setup/say.mjs';

checkNode();
await ensurePackages();
const { url, stop } = await ensurePostgres();
const env = environment({ DATABASE_URL: url });
const end = (code) => {
  stop();
  process.exit(code);
};

await ensureBuild();
if ((await run('tsx', ['scripts/demo.ts'], { env })) !== 0) end(1);

const start = (command, args) =>
  spawn(command, args, {
    cwd: projectFolder,
    env: { ...env, NODE_ENV: 'production' },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  });
const server = start(process.execPath, [...serverFlags, 'build/server/index.js']);
// Messages and large papers are made beside the pages; messages go to the simulated carrier unless SMTP_URL says otherwise.
const beside = [
  start('node_modules/.bin/tsx', ['server/worker/main.ts']),
  ...(process.env.SMTP_URL ? [] : [start('node_modules/.bin/tsx', ['carrier/main.ts'])]),
];
server.on('message', ({ listening }) => {
  const address = process.env.PUBLIC_URL ?? `http://localhost:${listening}`;
  console.log(`
Gentle Margin is at ${address}
Sign in as hanneke.bruun@quince-lane.example with the password quince-and-thyme, or tap one of the demo people.
Ctrl-C stops it.
`);
});
server.on('exit', (code) => end(code ?? 0));
server.on('error', (error) => giveUp(`The server could not start: ${error.message}`));
for (const signal of ['SIGINT', 'SIGTERM']) {
  process.on(signal, () => {
    for (const one of [server, ...beside]) one.kill('SIGTERM');
  });
}
