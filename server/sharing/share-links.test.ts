import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, type SmallSchool, smallSchool, today } from '~/tests/database/small-school';
import { Invalid, NotFound } from '../platform/failures';
import { requireStudent, studentsOf, studentTabs, supportTeam } from '../students/students';
import { recordAccess } from './access-log';
import {
  findShareLink,
  hasPass,
  makeShareLink,
  newLink,
  shareLinksOf,
  tryPasscode,
  unlockShareLink,
  withdrawShareLink,
} from './share-links';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
});

const input = (changes: object = {}) => ({
  id: randomUUID(),
  readerName: 'Grandmother',
  kind: 'family' as const,
  endsOn: '2026-12-31',
  ...changes,
});
const make = (wanted: ReturnType<typeof input>, person = school.manager) =>
  makeShareLink(fresh.db, actorOf(person), school.student, wanted, now);
const open = (token: string, on = today) => findShareLink(fresh.db, token, on);
const later = (seconds: number) => new Date(now.getTime() + 1000 * seconds);

describe('a way in', () => {
  it('opens this student’s report for one kind of reader; looking again within ten minutes is one reading, and what is taken away is none', async () => {
    const wanted = input({ kind: 'specialist' });
    const token = (await make(wanted)) as string;
    const found = await open(token);
    expect(found).toMatchObject({ studentId: school.student, readerName: 'Grandmother', kind: 'specialist' });
    const read = (at: Date, how: 'opened' | 'exported' = 'opened') =>
      recordAccess(fresh.db, { linkId: wanted.id }, { studentId: school.student, what: 'report', how }, at);
    for (const seconds of [0, 30, 1200]) await read(later(seconds));
    // What is taken away is written down each time.
    for (const seconds of [1201, 1202]) await read(later(seconds), 'exported');
    const listed = (await shareLinksOf(fresh.db, actorOf(school.manager), school.student)).find(
      ({ id }) => id === wanted.id,
    );
    expect(listed).toMatchObject({ readings: 2, lastReadAt: later(1200) });
  });

  it('keeps only the hash of its tokens; a further link opens the same', async () => {
    const wanted = input();
    const token = (await make(wanted)) as string;
    const stored = await fresh
      .db('share_link_tokens')
      .select(fresh.db.raw('encode(token_hash, ?) as hash', ['base64']));
    expect(JSON.stringify(stored)).not.toContain(token);
    expect(token.length).toBeGreaterThan(40);
    const further = await newLink(fresh.db, wanted.id, now);
    expect((await open(further))?.id).toBe(wanted.id);
    await withdrawShareLink(fresh.db, actorOf(school.manager), school.student, wanted.id, now);
    expect(await open(further)).toBeNull();
  });

  it('with a passcode is slowed after slips, then locked, until the case manager unlocks it', async () => {
    const wanted = input({ passcode: 'seven plums' });
    await make(wanted);
    const link = wanted.id;
    const attempt = (passcode: string, at: Date) => tryPasscode(fresh.db, link, passcode, at);
    for (const wrong of [1, 2, 3]) expect(await attempt('a guess', now)).toEqual({ wrong });
    expect(await attempt('a guess', now)).toEqual({ wrong: 4 });
    expect(await attempt('seven plums', later(1))).toEqual({ waitSeconds: 4 });
    for (const [i, wait] of [5, 10, 20].entries())
      expect(await attempt('x', later(100 * (i + 1) + wait))).toEqual({ wrong: 5 + i });
    expect(await attempt('x', later(1000))).toEqual({ locked: true });
    expect(await attempt('seven plums', later(9000))).toEqual({ locked: true });
    await expect(unlockShareLink(fresh.db, actorOf(school.aide), school.student, link, now)).rejects.toThrow(NotFound);
    await unlockShareLink(fresh.db, actorOf(school.manager), school.student, link, now);
    const answer = await attempt('seven plums', later(9001));
    const pass = 'pass' in answer ? answer.pass : '';
    expect(await hasPass(fresh.db, link, pass, later(9002))).toBe(true);
    expect(await hasPass(fresh.db, link, pass, later(9001 + 13 * 3600))).toBe(false);
    expect(await hasPass(fresh.db, randomUUID(), pass, later(9002))).toBe(false);
  });

  it('does not open after its end, after withdrawal, or when it never was: these look the same', async () => {
    const token = (await make(input({ endsOn: today }))) as string;
    expect(await open(token)).not.toBeNull();
    expect(await open(token, '2026-11-25')).toBeNull();
    const wanted = input();
    const withdrawn = (await make(wanted)) as string;
    await withdrawShareLink(fresh.db, actorOf(school.manager), school.student, wanted.id, now);
    await withdrawShareLink(fresh.db, actorOf(school.manager), school.student, wanted.id, now);
    expect(await open(withdrawn)).toBeNull();
    expect(await open('a-token-nobody-made')).toBeNull();
  });

  it('closes with the student’s page', async () => {
    const token = (await make(input())) as string;
    await fresh.db('students').where({ id: school.student }).update({ archived_at: now });
    expect(await open(token)).toBeNull();
    await fresh.db('students').where({ id: school.student }).update({ archived_at: null });
  });

  it('sent twice is made once, and its token is not told again', async () => {
    const wanted = input();
    expect(await make(wanted)).toBeTruthy();
    expect(await make(wanted)).toBeNull();
  });

  it('ends today at the earliest and within a school year', async () => {
    await expect(make(input({ endsOn: '2026-11-23' }))).rejects.toThrow(Invalid);
    await expect(make(input({ endsOn: '2028-01-01' }))).rejects.toThrow(Invalid);
  });

  it('is for the case manager to make, list and withdraw', async () => {
    const wanted = input();
    await make(wanted);
    for (const person of [school.aide, school.stranger]) {
      await expect(make(input(), person)).rejects.toThrow(NotFound);
      await expect(shareLinksOf(fresh.db, actorOf(person), school.student)).rejects.toThrow(NotFound);
      await expect(withdrawShareLink(fresh.db, actorOf(person), school.student, wanted.id, now)).rejects.toThrow(
        NotFound,
      );
    }
    await expect(
      withdrawShareLink(fresh.db, actorOf(school.manager), school.student, randomUUID(), now),
    ).rejects.toThrow(NotFound);
  });

  it('leaves a access logs that cannot be taken back', async () => {
    await expect(fresh.db('access_log').delete()).rejects.toThrow('not removed');
  });
});

describe('who knows of a student', () => {
  it('is the support team, from the first to the last day of membership', async () => {
    expect((await requireStudent(fresh.db, actorOf(school.aide), school.student, 'see')).role).toBe('paraprofessional');
    await expect(requireStudent(fresh.db, actorOf(school.aide), school.student, 'share')).rejects.toThrow(NotFound);
    await expect(requireStudent(fresh.db, actorOf(school.stranger), school.student, 'see')).rejects.toThrow(NotFound);
    expect(await studentsOf(fresh.db, actorOf(school.stranger))).toEqual([]);
    expect(await studentTabs(fresh.db, actorOf(school.stranger))).toEqual([]);

    await fresh.db('team_members').where({ person_id: school.aide }).update({ until_date: '2026-11-23' });
    await expect(requireStudent(fresh.db, actorOf(school.aide), school.student, 'see')).rejects.toThrow(NotFound);
    expect((await supportTeam(fresh.db, school.student, today)).map(({ id }) => id)).toEqual([school.manager]);
    expect(await supportTeam(fresh.db, school.student, '2026-11-23')).toHaveLength(2);
  });
});
