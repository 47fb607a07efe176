import { randomUUID } from 'node:crypto';
import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { now, smallSchool } from '~/tests/database/small-school';
import { connect } from '../platform/db/database';
import { Bell, work } from './work';

const fresh = freshDatabase({ poolSize: 4 });
let folder: string;
beforeAll(async () => {
  await smallSchool(fresh.db);
  folder = await mkdtemp(join(tmpdir(), 'gm-nights-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

it('makes the copy of a night as soon as it is time, once, and none where no folder is named', async () => {
  const complain = vi.fn();
  const at = async (clock: Date, backup: { url: string; folder: string } | null) => {
    const stopping = new AbortController();
    const mailServer = { transport: { sendMail: vi.fn() }, from: 'x@school.example', takesOnce: true };
    const done = work({
      ...{ db: fresh.db, mailServer, publicUrl: 'https://here.example', clock: () => clock, bell: new Bell() },
      ...{ signal: stopping.signal, complain, backup },
    });
    return {
      stop: () => {
        stopping.abort();
        return done;
      },
    };
  };
  const copies = async () => (await readdir(folder)).filter((name) => name.endsWith('.dump'));
  const one = { url: fresh.url, folder };
  // It is one in the morning at the school, in New York; the copy of this night is not due.
  const early = await at(new Date('2026-11-25T06:00:00Z'), one);
  const nowhere = await at(now, null);
  const first = await at(now, one);
  await vi.waitFor(async () => expect(await copies()).toEqual(['gentle-margin-night-2026-11-24.dump']), 20_000);
  for (const { stop } of [early, nowhere, first]) await stop();
  const again = await at(now, one);
  await again.stop();
  expect(await copies()).toEqual(['gentle-margin-night-2026-11-24.dump']);
  expect(complain).not.toHaveBeenCalled();
});

it('destroys a record that was confirmed, as the owner of the tables, and keeps its receipt beside the copies', async () => {
  const complain = vi.fn();
  const { id: studentId, school_id } = (await fresh.db('students').first('id', 'school_id'))!;
  await fresh.db('students').update({ archived_at: now });
  await fresh.db('destructions').insert({
    ...{
      id: randomUUID(),
      school_id,
      student_id: studentId,
      reason: 'Left.',
      told_on: '2026-11-20',
      told_how: 'By letter.',
    },
    ...{ asked_by_name: 'head', asked_at: now, confirmed_by_name: 'second', confirmed_at: now },
  });
  const run = async (more: object, until: () => Promise<unknown>) => {
    const stopping = new AbortController();
    const mailServer = { transport: { sendMail: vi.fn() }, from: 'x@school.example', takesOnce: true };
    const db = connect(fresh.url, { poolSize: 4, as: 'worker' });
    const done = work({
      ...{ db, mailServer, publicUrl: 'https://here.example', clock: () => now, bell: new Bell() },
      ...{ signal: stopping.signal, complain, ...more },
    });
    await until();
    stopping.abort();
    await done;
    await db.destroy();
  };
  // Without the owner's hand nothing is done.
  await run({}, async () => {});
  expect(await fresh.db('students')).toHaveLength(1);
  const backup = { url: fresh.url, folder };
  await run({ ownerUrl: fresh.url, backup }, () =>
    vi.waitFor(async () => expect(await readdir(folder)).toContain('destroyed.json'), 20_000),
  );
  expect(await fresh.db('students')).toEqual([]);
  expect(complain).not.toHaveBeenCalled();
});
