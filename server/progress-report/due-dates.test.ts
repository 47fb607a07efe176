import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { asPerson } from '~/tests/database/as-person';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addStudent,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
  today,
} from '~/tests/database/small-school';
import {
  calendarAddressOf,
  endCalendarAddress,
  makeCalendarAddress,
  personBehindCalendar,
} from '../people/calendar-address';
import { savePlan } from '../students/plan';
import { dueDatesOf } from './due-dates';

const fresh = freshDatabase();
let school: SmallSchool;
const plan = { startsOn: '2026-09-08', endsOn: '2027-06-11', periods: [{ label: 'Quarter 1', endsOn: '2026-12-04' }] };
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  await fresh
    .db('school_staff')
    .insert({ school_id: schoolId, person_id: school.manager, from_date: '2026-09-01' })
    .onConflict()
    .ignore();
  await savePlan(fresh.db, actorOf(school.manager), school.student, plan, { newId: randomUUID(), now });
});

const dueFor = (person: string, from = today) =>
  asPerson(fresh.db, person, (trx) => dueDatesOf(trx, person, from, today));

describe('what falls due', () => {
  it('is of the students whose reports one shares, from a day on, in order', async () => {
    expect((await dueFor(school.manager)).map(({ kind, on, label, initials }) => [kind, on, label, initials])).toEqual([
      ['period', '2026-12-04', 'Quarter 1', 'AE'],
      ['plan', '2027-06-11', '', 'AE'],
    ]);
    expect((await dueFor(school.manager, '2026-12-05')).map(({ kind }) => kind)).toEqual(['plan']);
    // The aide reads and observes, and shares nothing.
    expect(await dueFor(school.aide)).toEqual([]);
    expect(await dueFor(school.stranger)).toEqual([]);
  });

  it('leaves out who is archived', async () => {
    const student = await addStudent(fresh.db, 'Zed', [[school.manager, 'caseManager']]);
    await savePlan(fresh.db, actorOf(school.manager), student, plan, { newId: randomUUID(), now });
    expect(await dueFor(school.manager)).toHaveLength(4);
    await fresh.db('students').where({ id: student }).update({ archived_at: now });
    expect(await dueFor(school.manager)).toHaveLength(2);
  });
});

describe('the address of a calendar', () => {
  it('is one’s own, of which only the hash is kept; another takes its place, and it can be ended', async () => {
    expect(await calendarAddressOf(fresh.db, school.manager)).toBeNull();
    const first = await makeCalendarAddress(fresh.db, school.manager, { hasNames: false }, now);
    const behind = (token: string) => personBehindCalendar(fresh.db, token, now);
    expect(await behind(first)).toMatchObject({ personId: school.manager, hasNames: false });
    const second = await makeCalendarAddress(fresh.db, school.manager, { hasNames: true }, now);
    expect([await behind(first), await behind(second)]).toEqual([null, expect.objectContaining({ hasNames: true })]);
    expect(await calendarAddressOf(fresh.db, school.manager)).toEqual({ hasNames: true });
    await endCalendarAddress(fresh.db, school.manager, now);
    expect(await behind(second)).toBeNull();
  });

  it('opens nothing once its owner has left', async () => {
    const token = await makeCalendarAddress(fresh.db, school.manager, { hasNames: false }, now);
    await fresh.db('school_staff').where({ person_id: school.manager }).update({ until_date: '2026-11-23' });
    expect(await personBehindCalendar(fresh.db, token, now)).toBeNull();
    await fresh.db('school_staff').where({ person_id: school.manager }).update({ until_date: null });
    expect(await personBehindCalendar(fresh.db, token, now)).not.toBeNull();
  });
});
