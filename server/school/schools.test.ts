// Several schools in one database: each has its own lists, calendar, templates and people.
import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { usualTemplates } from '~/core/messages/message-template';
import { carefulRules } from '~/core/sharing/visibility-rule';
import { freshDatabase } from '~/tests/database/fresh';
import {
  accessTo,
  actorOf,
  addGoal,
  addPerson,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  sessionOf,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { recordSession } from '../entries/record';
import { goalsInBank, putInGoalBank } from '../goals/goal-bank';
import { goalOf } from '../goals/goals';
import { messageTemplates, saveMessageTemplate } from '../messages/message-templates';
import { dailyLimit, setDailyLimit } from '../messages/messages';
import { beginSession, goToSchool, resumeSession } from '../people/sessions';
import { Invalid, NotFound } from '../platform/failures';
import { rosterFinder } from '../sharing/other-children';
import { saveVisibilityRules, visibilityRules } from '../sharing/visibility';
import { addStudent, roster, rosterChoices, rosterStudent } from '../students/roster';
import { requireStudent, studentsOf } from '../students/students';
import { peopleToAdd } from '../students/team';
import { requireSchoolAdmin } from './administrators';
import { allSchools, locationsOf } from './school';
import { saveSchool, schoolInForm } from './set-up';

const fresh = freshDatabase();
let school: SmallSchool;
const elder = randomUUID();
/** At the school of the tests, and at Elder Brook. */
const here = (person: string) => actorOf(person);
const there = (person: string) => ({ ...actorOf(person), schoolId: elder });
let wren: string;

beforeAll(async () => {
  school = await smallSchool(fresh.db);
  await fresh
    .db('schools')
    .insert({ id: elder, name: 'Elder Brook', time_zone: 'America/Denver', weekdays: [1, 2, 3, 4] });
  const staff = { school_id: elder, from_date: '2026-09-01' };
  // The aide is a specialist at both; the stranger administers both; the manager works here only.
  await fresh.db('school_staff').insert([
    { ...staff, person_id: school.aide, is_admin: false },
    { ...staff, person_id: school.stranger, is_admin: true },
  ]);
  await makeAdmin(fresh.db, school.stranger);
  const input = {
    id: randomUUID(),
    firstName: 'Wren',
    lastName: 'Ashby',
    grade: 'Grade 2',
    groupIds: [],
    isSomeoneElse: false,
  };
  await addStudent(
    fresh.db,
    await requireSchoolAdmin(fresh.db, there(school.stranger)),
    { ...input, caseManagerId: school.aide },
    now,
  );
  wren = input.id;
});

describe('somebody who works at two schools', () => {
  it('sees the students of the one they are at', async () => {
    expect((await studentsOf(fresh.db, here(school.aide))).map(({ firstName }) => firstName)).toEqual(['Ada']);
    expect((await studentsOf(fresh.db, there(school.aide))).map(({ firstName }) => firstName)).toEqual(['Wren']);
    expect((await requireStudent(fresh.db, there(school.aide), wren, 'manage')).role).toBe('caseManager');
    await expect(requireStudent(fresh.db, here(school.aide), wren, 'see')).rejects.toThrow(NotFound);
  });

  it('goes from one to the other with their sign-in, and to no third', async () => {
    const token = await beginSession(fresh.db, school.aide, now);
    const first = await resumeSession(fresh.db, token, now);
    expect(first?.school.name).toBe('Elder Brook');
    expect(first?.schools.map(({ name }) => name)).toEqual(['Elder Brook', 'Test School']);
    await goToSchool(fresh.db, there(school.aide), first?.sessionId as string, schoolId);
    const second = await resumeSession(fresh.db, token, now);
    expect([second?.school.name, second?.school.timeZone]).toEqual(['Test School', 'America/New_York']);
    const third = randomUUID();
    await fresh.db('schools').insert({ id: third, name: 'Third', time_zone: 'UTC', weekdays: [1] });
    await expect(goToSchool(fresh.db, here(school.aide), first?.sessionId as string, third)).rejects.toThrow(NotFound);
    await expect(goToSchool(fresh.db, here(school.manager), first?.sessionId as string, elder)).rejects.toThrow(
      NotFound,
    );
    expect((await allSchools(fresh.db)).map(({ name }) => name)).toEqual(['Elder Brook', 'Test School', 'Third']);
  });

  it('is an administrator where they are one, and only while they work there', async () => {
    await requireSchoolAdmin(fresh.db, there(school.stranger));
    await expect(requireSchoolAdmin(fresh.db, there(school.aide))).rejects.toThrow(NotFound);
    const token = await beginSession(fresh.db, school.stranger, now);
    expect((await resumeSession(fresh.db, token, now))?.person.isSchoolAdmin).toBe(true);
    const past = await addPerson(fresh.db, 'past');
    await fresh.db('school_staff').where({ person_id: past }).update({ is_admin: true, until_date: '2026-11-23' });
    await expect(requireSchoolAdmin(fresh.db, here(past))).rejects.toThrow(NotFound);
    // Who works nowhere any more is not let in.
    expect(await resumeSession(fresh.db, await beginSession(fresh.db, past, now), now)).toBeNull();
  });
});

describe('a school of one’s own', () => {
  it('has its roster, its people and its groups', async () => {
    expect(
      (await roster(fresh.db, await requireSchoolAdmin(fresh.db, here(school.stranger)))).students.map(
        ({ firstName }) => firstName,
      ),
    ).toEqual(['Ada']);
    expect(
      (await roster(fresh.db, await requireSchoolAdmin(fresh.db, there(school.stranger)))).students.map(
        ({ firstName }) => firstName,
      ),
    ).toEqual(['Wren']);
    await expect(rosterStudent(fresh.db, here(school.stranger), wren)).rejects.toThrow(NotFound);
    const names = async (at: typeof here) =>
      (await rosterChoices(fresh.db, at(school.stranger))).people.map(({ name }) => name);
    expect(await names(there)).toEqual(['aide', 'stranger']);
    expect((await peopleToAdd(fresh.db, there(school.aide), wren)).map(({ name }) => name)).toEqual(['stranger']);
    // Nobody of another school becomes a case manager here.
    const input = {
      id: randomUUID(),
      firstName: 'Bo',
      lastName: 'Lind',
      grade: '1',
      groupIds: [],
      isSomeoneElse: false,
    };
    const add = addStudent(
      fresh.db,
      await requireSchoolAdmin(fresh.db, there(school.stranger)),
      { ...input, caseManagerId: school.manager },
      now,
    );
    await expect(add).rejects.toThrow(Invalid);
  });

  it('has its calendar, its locations and its timetable', async () => {
    const before = await schoolInForm(fresh.db, await requireSchoolAdmin(fresh.db, there(school.stranger)));
    const pond = { id: randomUUID(), name: 'Kitchen' };
    const dayParts = [{ groupId: null, part: 'Pond', weekdays: [1], from: '09:00', to: '10:00', locationId: pond.id }];
    await saveSchool(
      fresh.db,
      await requireSchoolAdmin(fresh.db, there(school.stranger)),
      { ...before, locations: [pond], dayParts },
      now,
    );
    expect((await locationsOf(fresh.db, elder)).map(({ name }) => name)).toEqual(['Kitchen']);
    expect((await locationsOf(fresh.db, schoolId)).map(({ id }) => id)).toEqual([school.kitchen]);
    expect((await schoolInForm(fresh.db, await requireSchoolAdmin(fresh.db, here(school.stranger)))).dayParts).toEqual(
      [],
    );
    // A location of another school is none here.
    const taken = { ...before, locations: [{ id: school.kitchen, name: 'Ours' }] };
    await expect(
      requireSchoolAdmin(fresh.db, there(school.stranger)).then((admin) => saveSchool(fresh.db, admin, taken, now)),
    ).rejects.toThrow(NotFound);
    const goal = await addGoal(fresh.db, wren);
    const session = sessionOf({ ...school, goal, manager: school.aide }, ['independent'], {
      locationId: school.kitchen,
    });
    const record = recordSession(fresh.db, there(school.aide), wren, session, { wall, now });
    await expect(record).rejects.toThrow(Invalid);
  });

  it('has its goal bank, its templates, its limit and what its readers see', async () => {
    const { area, wording, measure, criterion } = await goalOf(fresh.db, school.student, school.goal);
    const own = { id: randomUUID(), goal: { name: 'Plants', area, wording, measure, criterion } };
    await putInGoalBank(fresh.db, here(school.manager), school.student, own, now);
    const banked = async (at: typeof here) =>
      (await goalsInBank(fresh.db, at(school.stranger))).filter(({ isOwn }) => isOwn).length;
    expect([await banked(here), await banked(there)]).toEqual([1, 0]);

    await saveMessageTemplate(
      fresh.db,
      await requireSchoolAdmin(fresh.db, there(school.stranger)),
      'entry',
      { subject: 'Elder', body: 'Brook {link}' },
      now,
    );
    expect((await messageTemplates(fresh.db, elder)).entry.subject).toBe('Elder');
    expect((await messageTemplates(fresh.db, schoolId)).entry).toEqual(usualTemplates.entry);

    await setDailyLimit(fresh.db, await requireSchoolAdmin(fresh.db, there(school.stranger)), 7, now);
    expect([
      await dailyLimit(fresh.db, there(school.stranger)),
      await dailyLimit(fresh.db, here(school.stranger)),
    ]).toEqual([7, 1500]);

    const family = { ...carefulRules.family, shows: ['numbers' as const, 'note' as const] };
    await saveVisibilityRules(fresh.db, there(school.stranger), null, { ...carefulRules, family }, now);
    expect((await visibilityRules(fresh.db, accessTo(wren))).rules.family.shows).toEqual(['numbers', 'note']);
    expect((await visibilityRules(fresh.db, school.student)).rules.family.shows).toEqual(carefulRules.family.shows);
  });

  it('hides the names of its own children', async () => {
    const text = 'Ada sat with Wren.';
    const found = async (student: string) =>
      (await rosterFinder(fresh.db, student))(text, student).map((one) => one.text);
    expect(await found(school.student)).toEqual([]);
    expect(await found(wren)).toEqual([]);
    const input = {
      id: randomUUID(),
      firstName: 'Ada',
      lastName: 'Pell',
      grade: '1',
      groupIds: [],
      isSomeoneElse: false,
    };
    await addStudent(
      fresh.db,
      await requireSchoolAdmin(fresh.db, there(school.stranger)),
      { ...input, caseManagerId: school.aide },
      now,
    );
    expect(await found(wren)).toEqual(['Ada']);
    expect(await found(school.student)).toEqual([]);
  });

  it('has its own day: the one on its wall', async () => {
    const late = new Date('2026-11-25T06:30:00Z');
    const at = async (person: string) =>
      (await resumeSession(fresh.db, await beginSession(fresh.db, person, late), late))?.school.timeZone;
    expect([await at(school.manager), await at(school.aide)]).toEqual(['America/New_York', 'America/Denver']);
    expect(today).toBe('2026-11-24');
  });
});
