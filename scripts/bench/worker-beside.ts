import { type ChildProcess, spawn } from 'node:child_process';
import { databaseUrl, started } from './ground';

/** The worker beside the measured server; it has nobody to send messages to. */
export async function startWorker(): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/worker/main.ts'], {
    env: { ...process.env, DATABASE_URL: databaseUrl, CLOCK: started },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  await new Promise((resolve, reject) => {
    child.once('message', resolve);
    child.once('exit', (code) => reject(new Error(`The worker ended with ${code}.`)));
  });
  return child;
}
