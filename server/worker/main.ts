// What need not be waited for: messages leave, and files of groups are made. One of these is at work at a time; a second one waits
// until the first is gone, and then takes over what it left.
import { setTimeout as pause } from 'node:timers/promises';
import nodemailer, { type TransportOptions } from 'nodemailer';
import { z } from 'zod';
import type { MailServer } from '../messages/deliver';
import { now } from '../platform/clock';
import { config } from '../platform/config';
import { connect, isDatabaseGone } from '../platform/db/database';
import { holdLock } from '../platform/db/lock';
import { AT_ONCE, Bell, work } from './work';

const ONLY_ONE = 4310_0000;
const [FIRST_PAUSE, LONGEST_PAUSE] = [500, 10_000];
const SHORTLY = 10_000;

z.config({ jitless: true });
const db = connect(config.DATABASE_URL, {
  poolSize: AT_ONCE + 2,
  as: config.ROW_SECURITY === 'on' ? 'worker' : undefined,
});
const mailServer: MailServer = {
  transport: nodemailer.createTransport({
    url: config.SMTP_URL ?? `smtp://127.0.0.1:${config.TEST_MAIL_PORT}`,
    pool: true,
    maxConnections: AT_ONCE,
    maxMessages: Infinity,
    connectionTimeout: SHORTLY,
    greetingTimeout: SHORTLY,
    socketTimeout: 6 * SHORTLY,
  } as TransportOptions),
  from: config.SMTP_FROM,
  takesOnce: config.SMTP_URL === undefined,
  keepsAll: config.SMTP_URL === undefined,
};

/** Says what went wrong, without the values that a query or a message held. */
function complain(error: unknown): void {
  const { name, code, stack } = (error ?? {}) as { name?: string; code?: string; stack?: string };
  const frame = stack?.split('\n').find((line) => line.trimStart().startsWith('at '));
  console.error('The worker:', [name, code, frame?.trim()].filter(Boolean).join(' '));
}

const stopping = new AbortController();
for (const reason of ['SIGTERM', 'SIGINT', 'disconnect']) process.once(reason, () => stopping.abort());

/** One turn as the worker that is at work: until the lock is lost, or it is told to stop. */
async function takeTurn(): Promise<void> {
  const bell = new Bell();
  const beat = `insert into heartbeats (process, at) values ('worker', now())
                on conflict (process) do update set at = excluded.at`;
  const lock = await holdLock(
    config.DATABASE_URL,
    ONLY_ONE,
    { beat, channel: 'work', onNotice: bell.ring },
    stopping.signal,
  );
  process.send?.({ ready: true });
  const signal = AbortSignal.any([lock.lost, stopping.signal]);
  const backup = config.BACKUP_FOLDER
    ? { url: config.DATABASE_URL, folder: config.BACKUP_FOLDER, passphrase: config.BACKUP_PASSPHRASE }
    : null;
  await work({
    db,
    backup,
    ownerUrl: config.DATABASE_URL,
    mailServer,
    publicUrl: config.PUBLIC_URL,
    clock: now,
    signal,
    bell,
    complain,
  });
  await lock.release();
}

for (let wait = FIRST_PAUSE; !stopping.signal.aborted; ) {
  try {
    await takeTurn();
    wait = FIRST_PAUSE;
  } catch (error) {
    if (stopping.signal.aborted) break;
    // The database may be away for a while: it is asked again, later and later. Anything else ends this process.
    if (!isDatabaseGone(error)) throw error;
    await pause(wait);
    wait = Math.min(LONGEST_PAUSE, 2 * wait);
  }
}
process.exit(0);
