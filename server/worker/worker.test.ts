import { type ChildProcess, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { createServer } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, smallSchool } from '~/tests/database/small-school';
import { makeWayIn } from '../ways-in/ways-in';

const fresh = freshDatabase();
const running: ChildProcess[] = [];
afterAll(() => {
  for (const child of running) child.kill('SIGKILL');
});

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const address = server.address();
      server.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });

/** Starts a process of ours and waits until it says that it is there. */
async function start(file: string, port: number): Promise<ChildProcess> {
  const child = spawn('node_modules/.bin/tsx', [file], {
    env: { ...process.env, DATABASE_URL: fresh.url, CARRIER_PORT: String(port), CLOCK: now.toISOString() },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  running.push(child);
  await new Promise((resolve, reject) => {
    child.once('message', resolve);
    child.once('exit', (code) => reject(new Error(`${file} ended with ${code}`)));
  });
  return child;
}

describe('the worker and the simulated carrier', () => {
  it('lose and double nothing, though the worker is killed in the middle; what bounces says why', {
    timeout: 60_000,
  }, async () => {
    const school = await smallSchool(fresh.db);
    const link = randomUUID();
    const way = { id: link, readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2026-12-31' };
    await makeWayIn(fresh.db, actorOf(school.manager), school.student, way, now);
    const letters = Array.from({ length: 120 }, (_, i) => ({
      ...{ id: randomUUID(), key: `byHand:${i}`, kind: 'byHand', student_id: school.student, link_id: link },
      ...{ to_name: 'Aunt Ida', to_email: i === 7 ? 'nobody@bounce.example' : `ida${i}@home.example` },
      ...{ own_subject: `Letter ${i}`, own_body: 'Hello', state: 'waiting', not_before: now, made_at: now },
    }));
    await fresh.db('messages').insert(letters);
    await fresh
      .db('carrier_rules')
      .insert({ id: randomUUID(), address: '@bounce.', does: 'bounce', words: 'No such mailbox', made_at: now });
    const port = await freePort();
    await start('carrier/main.ts', port);
    const arrived = async () =>
      (await fresh.db('carrier_inbox').select('subject')).map(({ subject }) => subject as string);

    const first = await start('server/worker/main.ts', port);
    while ((await arrived()).length < 20) await pause(20);
    first.kill('SIGKILL');
    await start('server/worker/main.ts', port);
    const isDone = async () =>
      (await fresh.db('messages').whereIn('state', ['waiting', 'sending']).first('id')) === undefined;
    while (!(await isDone())) await pause(100);

    const subjects = await arrived();
    expect(subjects).toHaveLength(119);
    expect(new Set(subjects).size).toBe(119);
    expect(await fresh.db('messages').where({ state: 'bounced' }).select('own_subject', 'reason')).toEqual([
      { own_subject: 'Letter 7', reason: expect.stringContaining('No such mailbox') },
    ]);
  });
});
