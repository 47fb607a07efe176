// What need not be waited for: messages leave, and large papers are made. One of these is at work at a time; a second one waits
// until the first is gone, and then takes over what it left.
import { setTimeout as pause } from 'node:timers/promises';
import nodemailer, { type TransportOptions } from 'nodemailer';
import PgBoss from 'pg-boss';
import { v5 as nameId } from 'uuid';
import { z } from 'zod';
import { wallTime } from '~/core/calendar/zone';
import { now } from '../clock';
import { config } from '../config';
import { connect, isDatabaseGone } from '../db/database';
import { collectPost } from '../post/collect';
import { type Carrier, deliver, dueMessages, settleInterrupted } from '../post/deliver';
import { openBatches } from '../progress-reports/batches';
import { makeBatch } from '../progress-reports/make-batch';
import { theSchool } from '../school/school';

const ONLY_ONE = 4310_0000;
const LOOK_EVERY = 500;
const AT_ONCE = 8;
const MESSAGE_QUEUE = 'messages';
const BATCH_QUEUE = 'batches';

z.config({ jitless: true });
const db = connect(config.DATABASE_URL, { poolSize: AT_ONCE + 4 });
const carrier: Carrier = {
  transport: nodemailer.createTransport({
    url: config.SMTP_URL ?? `smtp://127.0.0.1:${config.CARRIER_PORT}`,
    pool: true,
    maxConnections: AT_ONCE,
    maxMessages: Infinity,
  } as TransportOptions),
  from: config.SMTP_FROM,
  takesOnce: config.SMTP_URL === undefined,
};

/** Holds the lock of the one worker for as long as this process lives: a dead one lets go by itself. */
async function becomeTheOne(): Promise<void> {
  const connection = await db.client.acquireConnection();
  await connection.query('set statement_timeout = 0');
  await connection.query('select pg_advisory_lock($1)', [ONLY_ONE]);
}

/** A lost database comes back; of anything else somebody should know. */
function complain(error: unknown): void {
  if (!isDatabaseGone(error)) console.error(error instanceof Error ? error.message : error);
}

await becomeTheOne();
await settleInterrupted(db, carrier);
const boss = new PgBoss({ connectionString: config.DATABASE_URL, max: 4, application_name: 'worker' });
boss.on('error', () => {});
await boss.start();
await boss.createQueue(MESSAGE_QUEUE);
await boss.work<{ id: string }>(
  MESSAGE_QUEUE,
  { batchSize: 10 * AT_ONCE, pollingIntervalSeconds: 0.5 },
  async (jobs) => {
    const school = await theSchool(db);
    const queue = [...jobs];
    const one = async () => {
      for (let job = queue.shift(); job; job = queue.shift()) {
        // What fails stays in the post, and gets another job.
        await deliver(db, job.data.id, { school, publicUrl: config.PUBLIC_URL, carrier, now: now() }).catch(complain);
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, one));
  },
);

await boss.createQueue(BATCH_QUEUE);
await boss.work<{ id: string }>(BATCH_QUEUE, { batchSize: 1, pollingIntervalSeconds: 0.5 }, async ([job]) => {
  const school = await theSchool(db);
  const today = wallTime(now(), school.timeZone).on;
  if (job) await makeBatch(db, job.data.id, { school, today }).catch(complain);
});

/** A job for each message, try and minute: made twice, it is the same; lost, it is made again. */
const JOBS = '5c1c2f1a-3d1f-4b9e-8a5c-2f8f5c0d7e21';

async function round(): Promise<void> {
  const school = await theSchool(db);
  await collectPost(db, school.timeZone, now());
  const minute = Math.floor(Date.now() / 60_000);
  const job = (name: string, id: string, about: string | number) => {
    return { id: nameId(`${name} ${id} ${about} ${minute}`, JOBS), name, data: { id } };
  };
  const messages = (await dueMessages(db, now())).map(({ id, attempts }) => job(MESSAGE_QUEUE, id, attempts));
  const batches = (await openBatches(db)).map(({ id }) => job(BATCH_QUEUE, id, ''));
  if (messages.length + batches.length > 0) await boss.insert([...messages, ...batches]);
}

process.send?.({ ready: true });
let isStopping = false;
const stop = async () => {
  isStopping = true;
  await boss.stop({ graceful: true, timeout: 5000 }).catch(() => {});
  process.exit(0);
};
process.once('SIGTERM', stop);
process.once('SIGINT', stop);
process.once('disconnect', stop);

while (!isStopping) {
  try {
    await round();
  } catch (error) {
    complain(error);
  }
  await pause(LOOK_EVERY);
}
