import { type ChildProcess, spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { clock } from './demo-template';
import type { App } from './fixtures';

/** A port that nobody listens on at the moment. */
export const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

async function start(file: string, env: Record<string, string>): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--import', 'tsx', file], {
    env: { ...process.env, ...env },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  await new Promise((resolve, reject) => {
    child.once('message', resolve);
    child.once('exit', (code) => reject(new Error(`${file} ended with ${code}`)));
  });
  return child;
}

/** Does something while the worker and the test mail server are at work beside a test’s server, as the start command starts them. */
export async function withPost(app: App, work: () => Promise<void>): Promise<void> {
  const env = {
    DATABASE_URL: app.databaseUrl,
    TEST_MAIL_PORT: String(await freePort()),
    PUBLIC_URL: app.url,
    // The hour that it is at the server: what leaves now there is due here.
    CLOCK: new Date(Date.parse(clock) + Date.now() - app.startedAt).toISOString(),
  };
  const beside = await Promise.all([start('test-mail/main.ts', env), start('server/worker/main.ts', env)]);
  try {
    await work();
  } finally {
    for (const one of beside) one.kill('SIGKILL');
  }
}
