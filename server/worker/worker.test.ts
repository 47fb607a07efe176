import { type ChildProcess, spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { setTimeout as pause } from 'node:timers/promises';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, smallSchool } from '~/tests/database/small-school';
import { cuttableWire } from '~/tests/e2e/server';
import { connect } from '../platform/db/database';
import { holdLock } from '../platform/db/lock';
import { makeShareLink } from '../sharing/share-links';
import { Bell, work } from './work';

const fresh = freshDatabase();
const quiet = freshDatabase();
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

/** Starts a process of ours; it says when it is there, or at work. */
function begin(file: string, port: number, url = fresh.url): ChildProcess {
  const child = spawn(process.execPath, ['--import', 'tsx', file], {
    env: { ...process.env, DATABASE_URL: url, TEST_MAIL_PORT: String(port), CLOCK: now.toISOString() },
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  running.push(child);
  return child;
}

/** The same, waited for. */
async function start(file: string, port: number): Promise<ChildProcess> {
  const child = begin(file, port);
  await new Promise((resolve, reject) => {
    child.once('message', resolve);
    child.once('exit', (code) => reject(new Error(`${file} ended with ${code}`)));
  });
  return child;
}

/** The connections that hold the lock of the one worker, or wait for it. */
const atTheLock = async (granted: boolean) => {
  const found = await fresh.db.raw(
    `select pid from pg_locks where locktype = 'advisory' and granted = ? and objid = ${4310_0000}
        and database = (select oid from pg_database where datname = current_database())`,
    [granted],
  );
  return found.rows.map(({ pid }: { pid: number }) => pid);
};
const holders = () => atTheLock(true);

describe('two workers', () => {
  it('are never at work at once; when the lock goes the one notices, and one of them goes on', {
    timeout: 240_000,
  }, async () => {
    const wire = await cuttableWire(new URL(fresh.url).pathname.slice(1));
    const port = await freePort();
    const both = [begin('server/worker/main.ts', port, wire.url), begin('server/worker/main.ts', port, wire.url)];
    const turns: number[] = [];
    for (const [at, worker] of both.entries()) worker.on('message', () => turns.push(at));
    const waitFor = async (condition: () => boolean | Promise<boolean>) => {
      while (!(await condition())) await pause(50);
    };
    // On a machine that stands still for a while a turn may be lost and taken again between two looks.
    const nextAfter = (before: number) => waitFor(() => turns.length > before);
    await nextAfter(0);
    // Both are there: one at work, the other waiting. Before that, telling the second to stop would just kill it.
    await waitFor(async () => (await atTheLock(false)).length === 1);
    const [first] = await holders();

    // The lock's connection is ended from outside: another turn begins, by either of the two.
    const beforeItEnded = turns.length;
    await fresh.db.raw('select pg_terminate_backend(?)', [first]);
    await nextAfter(beforeItEnded);
    expect(await holders()).toHaveLength(1);
    expect((await holders())[0]).not.toBe(first);

    // The database is gone for a while, as when it restarts.
    const beforeTheCut = turns.length;
    wire.cut();
    await waitFor(async () => (await holders()).length === 0);
    await pause(500);
    wire.mend();
    await nextAfter(beforeTheCut);
    expect(await holders()).toHaveLength(1);
    expect(both.map(({ exitCode }) => exitCode)).toEqual([null, null]);
    const beat = await fresh.db('heartbeats').where({ process: 'worker' }).first('at');
    expect(Date.now() - beat!.at.getTime()).toBeLessThan(10_000);

    for (const worker of both) worker.kill('SIGTERM');
    await waitFor(() => both.every(({ exitCode }) => exitCode === 0));
    wire.close();
  });
});

/** How many seconds of a core a process has used (proc(5): ticks of a hundredth). */
const secondsUsed = (pid: number) => {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
    .replace(/^.*\) /, '')
    .split(' ');
  return (Number(fields[11]) + Number(fields[12])) / 100;
};

describe('at rest', () => {
  it('a worker asks the database for nothing, and uses no processor', async () => {
    const school = await smallSchool(quiet.db);
    const link = randomUUID();
    const way = { id: link, readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2026-12-31' };
    await makeShareLink(quiet.db, actorOf(school.manager), school.student, way, now);
    await quiet.db('messages').insert({
      ...{ id: randomUUID(), key: 'later', kind: 'byHand', student_id: school.student, link_id: link },
      ...{ to_name: 'Aunt Ida', to_email: 'ida@home.example', own_subject: 'Later', own_body: 'Hello' },
      ...{ state: 'held', not_before: new Date(now.getTime() + 24 * 3_600_000), made_at: now },
    });
    // Another school's, in a process of its own, for what it costs.
    const process = await start('server/worker/main.ts', await freePort());

    const asked: string[] = [];
    const db = connect(quiet.url, { poolSize: 4 });
    db.on('query', ({ sql }) => asked.push(sql));
    const [bell, stopping] = [new Bell(), new AbortController()];
    const lock = await holdLock(quiet.url, 1, { channel: 'work', onNotice: bell.ring });
    const mailServer = { transport: { sendMail: vi.fn() }, from: 'x@school.example', takesOnce: true };
    const startedAt = Date.now();
    const done = work({
      ...{ db, mailServer, publicUrl: 'https://here.example', bell, signal: stopping.signal, complain: console.error },
      clock: () => new Date(now.getTime() + Date.now() - startedAt),
    });
    await pause(3000);
    const before = [asked.length, secondsUsed(process.pid!)] as const;
    await pause(10_000);
    expect(asked.slice(before[0])).toEqual([]);
    expect(secondsUsed(process.pid!) - before[1]).toBeLessThan(0.2);

    // It is not deaf: what there is to do is heard of.
    await quiet.db('messages').update({ not_before: now });
    await vi.waitFor(async () => expect(await quiet.db('messages').pluck('state')).toEqual(['sent']), 5000);
    stopping.abort();
    await done;
    process.kill('SIGTERM');
    await Promise.all([lock.release(), db.destroy()]);
  });
});

describe('the worker and the test mail server', () => {
  it('lose and double nothing, though the worker is killed in the middle; what bounces says why', {
    timeout: 60_000,
  }, async () => {
    const school = await smallSchool(fresh.db);
    const link = randomUUID();
    const way = { id: link, readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2026-12-31' };
    await makeShareLink(fresh.db, actorOf(school.manager), school.student, way, now);
    const letters = Array.from({ length: 120 }, (_, i) => ({
      ...{ id: randomUUID(), key: `byHand:${i}`, kind: 'byHand' as const, student_id: school.student, link_id: link },
      ...{ to_name: 'Aunt Ida', to_email: i === 7 ? 'nobody@bounce.example' : `ida${i}@home.example` },
      ...{ own_subject: `Letter ${i}`, own_body: 'Hello', state: 'waiting' as const, not_before: now, made_at: now },
    }));
    await fresh.db('messages').insert(letters);
    await fresh
      .db('test_mail_rules')
      .insert({ id: randomUUID(), address: '@bounce.', does: 'bounce', words: 'No such mailbox', made_at: now });
    const port = await freePort();
    await start('test-mail/main.ts', port);
    const arrived = async () =>
      (await fresh.db('test_mail_inbox').select('subject')).map(({ subject }) => subject as string);

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
