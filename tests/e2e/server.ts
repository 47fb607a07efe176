import { type ChildProcess, fork } from 'node:child_process';
import { once } from 'node:events';
import { createServer, connect as dial, type Socket } from 'node:net';
import { serverFlags } from '../../scripts/setup/run.mjs';
import { urlOf } from '../database/databases';

/** A wire to the database that can be cut: to the server it looks as if the database had gone. */
export async function cuttableWire(name: string) {
  const target = new URL(urlOf(name));
  const open = new Set<Socket>();
  let isCut = false;
  const wire = createServer((near) => {
    if (isCut) return near.destroy();
    const far = dial(Number(target.port || 5432), target.hostname);
    for (const socket of [near, far]) {
      open.add(socket);
      socket.on('error', () => {});
      socket.on('close', () => {
        open.delete(socket);
        near.destroy();
        far.destroy();
      });
    }
    near.pipe(far).pipe(near);
  });
  wire.listen(0, '127.0.0.1');
  await once(wire, 'listening');
  const url = new URL(target);
  url.hostname = '127.0.0.1';
  url.port = String((wire.address() as { port: number }).port);
  return {
    url: url.href,
    cut: () => {
      isCut = true;
      for (const socket of open) socket.destroy();
    },
    mend: () => {
      isCut = false;
    },
    close: () => {
      for (const socket of open) socket.destroy();
      wire.close();
    },
  };
}

export interface RunningServer {
  url: string;
  process: ChildProcess;
  /** Everything the server has written to its log. */
  log: () => string;
  stop: () => Promise<void>;
}

/** Starts the built server on a free port. */
export async function startServer(env: Record<string, string>): Promise<RunningServer> {
  const server = fork('build/server/index.js', {
    env: { ...process.env, NODE_ENV: 'production', PORT: '0', ...env },
    execArgv: serverFlags,
    stdio: ['ignore', 'pipe', 'pipe', 'ipc'],
  });
  let log = '';
  for (const stream of [server.stdout, server.stderr]) stream?.on('data', (chunk) => (log += chunk));
  const listening = new Promise<number>((resolve, reject) => {
    server.on('message', (message: { listening: number }) => resolve(message.listening));
    server.on('exit', (code) => reject(new Error(`The server ended with ${code}: ${log}`)));
  });
  const port = await listening;
  const stop = async () => {
    if (server.exitCode !== null) return;
    const ended = once(server, 'exit');
    server.kill('SIGTERM');
    await ended;
  };
  return { url: `http://localhost:${port}`, process: server, log: () => log, stop };
}
