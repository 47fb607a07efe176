import cluster from 'node:cluster';
import { setTimeout } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import * as build from 'virtual:react-router/server-build';
import { z } from 'zod';
import { restartClock } from '~/server/platform/clock';
import { config } from '~/server/platform/config';
import { closeDatabase } from '~/server/platform/db/current';
import { isDatabaseGone } from '~/server/platform/db/database';
import { migrate } from '~/server/platform/db/migrate';
import { closeLive } from '~/server/platform/live';
import { makeApp } from './app';
import { log } from './log';
import { endStreams } from './streams';

/** Says why it cannot go on, and whether another start would help: see `scripts/setup/supervise.mjs`. */
function giveUp(sentence: string, code = 1): never {
  console.error(sentence);
  process.exit(code);
}
const NO_USE = 78;

// A goal's data schema is made for each save: compiling it would take longer than using it once.
z.config({ jitless: true });

/** On a busy machine a database that is there may be late to answer: it is asked three times. */
async function migrateOnceReached(attempts = 3): Promise<void> {
  try {
    await migrate(config.DATABASE_URL, { hasGuard: config.ROW_SECURITY === 'on' });
  } catch (error) {
    if (!isDatabaseGone(error) || attempts === 1) throw error;
    await setTimeout(1000);
    await migrateOnceReached(attempts - 1);
  }
}

if (cluster.isPrimary) {
  try {
    await migrateOnceReached();
  } catch (error) {
    if (isDatabaseGone(error)) giveUp('The database cannot be reached at DATABASE_URL.');
    giveUp(error instanceof Error ? error.message : String(error));
  }
}
if (cluster.isPrimary && config.WEB_PROCESSES > 1) shareOut(config.WEB_PROCESSES);
else serve();

/** Several processes behind one address: what they have to agree on is in the database. One that dies is begun again. */
function shareOut(processes: number): void {
  let isStopping = false;
  let isTold = false;
  const begin = () => {
    const child = cluster.fork();
    let isUp = false;
    child.on('message', (message) => {
      isUp = true;
      if (!isTold && process.send) process.send(message);
      isTold = true;
    });
    child.once('exit', (code) => {
      if (isStopping) {
        if (Object.keys(cluster.workers ?? {}).length === 0) process.exit(0);
        return;
      }
      // What cannot even begin is for whoever started us to see; what was up is begun again.
      if (!isUp) process.exit(code || 1);
      log.warn({ code }, 'a process of the server has ended, and is begun again');
      globalThis.setTimeout(begin, 500);
    });
  };
  for (let i = 0; i < processes; i++) begin();
  const stopAll = () => {
    isStopping = true;
    for (const child of Object.values(cluster.workers ?? {})) child?.kill('SIGTERM');
    globalThis.setTimeout(() => process.exit(0), 6000).unref();
  };
  for (const reason of ['SIGTERM', 'SIGINT', 'disconnect']) process.once(reason, stopAll);
}

function serve(): void {
  const app = makeApp(build, { assets: fileURLToPath(new URL('../client', import.meta.url)) });
  const server = app.listen(config.PORT, config.HOST);
  // What is sent is watched for its speed as well: see `bodies.ts`.
  server.headersTimeout = 15_000;
  server.requestTimeout = 10 * 60_000;

  server.on('listening', () => {
    const address = server.address();
    const port = typeof address === 'object' && address ? address.port : config.PORT;
    log.info({ port }, 'listening');
    // The start command waits for this line.
    process.send?.({ listening: port });
  });

  // Tests share a server, each on the same afternoon.
  process.on('message', (message) => message === 'restartClock' && restartClock());

  server.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code === 'EADDRINUSE') {
      giveUp(`Port ${config.PORT} is taken; choose another with PORT=… npm start`, NO_USE);
    }
    giveUp(`The server could not start: ${error.message}`);
  });

  /** Lets answers under way finish, then closes the pool. */
  async function stop() {
    endStreams();
    server.close(async () => {
      await closeLive();
      await closeDatabase();
      process.exit(0);
    });
    server.closeIdleConnections();
    globalThis.setTimeout(() => process.exit(0), 5000).unref();
  }

  process.once('SIGTERM', stop);
  process.once('SIGINT', stop);
  // Whoever started this process is gone: nobody would ever stop it.
  process.once('disconnect', stop);
}
