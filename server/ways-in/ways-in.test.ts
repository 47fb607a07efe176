import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, now, type SmallSchool, smallSchool, today } from '~/tests/database/small-school';
import { Invalid, NotFound } from '../failures';
import { studentFor, studentsOf, studentTabs, supportTeam } from '../students/students';
import { makeWayIn, openWayIn, waysInto, withdrawWayIn } from './ways-in';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
});

const input = (changes: object = {}) => ({
  id: randomUUID(),
  readerName: 'Grandmother',
  showsNotes: true,
  showsObservers: false,
  showsBehavior: false,
  endsOn: '2026-12-31',
  ...changes,
});
const make = (wanted: ReturnType<typeof input>, person = school.manager) =>
  makeWayIn(fresh.db, actorOf(person), school.student, wanted, now);
const open = (token: string, on = today) => openWayIn(fresh.db, token, on, now);

describe('a way in', () => {
  it('opens this student’s report as its reader may see it, and writes each opening down', async () => {
    const wanted = input();
    const token = (await make(wanted)) as string;
    expect(await open(token)).toMatchObject({
      studentId: school.student,
      readerName: 'Grandmother',
      sees: { notes: true, observers: false, behavior: false },
    });
    const all = await make(input({ showsBehavior: true, showsObservers: true }));
    expect((await open(all as string))?.sees).toEqual({ notes: true, observers: true, behavior: true });
    await open(token);
    const listed = (await waysInto(fresh.db, actorOf(school.manager), school.student)).find(
      ({ id }) => id === wanted.id,
    );
    expect(listed).toMatchObject({ openings: 2, lastReadAt: now });
  });

  it('keeps only the hash of its token', async () => {
    const token = (await make(input())) as string;
    const stored = await fresh.db('share_links').select(fresh.db.raw('encode(token_hash, ?) as hash', ['base64']));
    expect(JSON.stringify(stored)).not.toContain(token);
    expect(token.length).toBeGreaterThan(40);
  });

  it('does not open after its end, after withdrawal, or when it never was: these look the same', async () => {
    const token = (await make(input({ endsOn: today }))) as string;
    expect(await open(token)).not.toBeNull();
    expect(await open(token, '2026-11-25')).toBeNull();
    const wanted = input();
    const withdrawn = (await make(wanted)) as string;
    await withdrawWayIn(fresh.db, actorOf(school.manager), school.student, wanted.id, now);
    await withdrawWayIn(fresh.db, actorOf(school.manager), school.student, wanted.id, now);
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
      await expect(waysInto(fresh.db, actorOf(person), school.student)).rejects.toThrow(NotFound);
      await expect(withdrawWayIn(fresh.db, actorOf(person), school.student, wanted.id, now)).rejects.toThrow(NotFound);
    }
    await expect(withdrawWayIn(fresh.db, actorOf(school.manager), school.student, randomUUID(), now)).rejects.toThrow(
      NotFound,
    );
  });

  it('leaves a record of readings that cannot be taken back', async () => {
    await expect(fresh.db('share_link_openings').delete()).rejects.toThrow('not removed');
  });
});

describe('who knows of a student', () => {
  it('is the support team, from the first to the last day of membership', async () => {
    expect((await studentFor(fresh.db, actorOf(school.aide), school.student, 'see')).role).toBe('paraprofessional');
    await expect(studentFor(fresh.db, actorOf(school.aide), school.student, 'share')).rejects.toThrow(NotFound);
    await expect(studentFor(fresh.db, actorOf(school.stranger), school.student, 'see')).rejects.toThrow(NotFound);
    expect(await studentsOf(fresh.db, actorOf(school.stranger))).toEqual([]);
    expect(await studentTabs(fresh.db, actorOf(school.stranger))).toEqual([]);

    await fresh.db('team_members').where({ person_id: school.aide }).update({ until_date: '2026-11-23' });
    await expect(studentFor(fresh.db, actorOf(school.aide), school.student, 'see')).rejects.toThrow(NotFound);
    expect((await supportTeam(fresh.db, school.student, today)).map(({ id }) => id)).toEqual([school.manager]);
    expect(await supportTeam(fresh.db, school.student, '2026-11-23')).toHaveLength(2);
  });
});
