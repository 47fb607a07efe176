import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { schoolInput } from '~/core/school/school-input';
import { planInput, studentInput } from '~/core/students/student-input';
import { emptied } from '~/tests/database/emptied';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addPerson,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
  today,
} from '~/tests/database/small-school';
import { Invalid, NotFound } from '../platform/failures';
import { requireSchoolAdmin } from '../school/administrators';
import { schoolOf } from '../school/school';
import { saveSchool, schoolInForm } from '../school/set-up';
import { planOf, savePlan } from './plan';
import { addStudent, canHandOver, caseManagerHistory, editStudent, roster, rosterStudent, setArchived } from './roster';
import { requireStudent, studentsOf } from './students';

const fresh = freshDatabase();
let school: SmallSchool;
let group: string;
beforeEach(async () => {
  await emptied(fresh.db);
  school = await smallSchool(fresh.db);
  await makeAdmin(fresh.db, school.stranger);
  group = randomUUID();
  await fresh.db('class_groups').insert({ id: group, school_id: schoolId, name: 'Garden group', position: 0 });
});

const office = () => actorOf(school.stranger);
const admin = () => requireSchoolAdmin(fresh.db, office());
const input = (changes: object = {}) =>
  studentInput.parse({
    id: randomUUID(),
    firstName: 'Bram',
    lastName: 'Nilsson',
    grade: 'Grade 5',
    groupIds: [group],
    caseManagerId: school.manager,
    ...changes,
  });
const messagesOf = (promise: Promise<unknown>) =>
  promise.then(
    () => 'nothing was refused',
    (error) => (error instanceof Invalid ? error.fields : error),
  );

describe('the roster', () => {
  it('is for who sets up the school, and shows names without what was observed', async () => {
    await expect(
      requireSchoolAdmin(fresh.db, actorOf(school.manager)).then((admin) => roster(fresh.db, admin)),
    ).rejects.toThrow(NotFound);
    const { students } = await roster(fresh.db, await admin());
    expect(students).toMatchObject([{ firstName: 'Ada', caseManager: { name: 'manager' } }]);
    await expect(requireStudent(fresh.db, office(), school.student, 'see')).rejects.toThrow(NotFound);
  });

  it('takes a student once, whose case manager then has a page for them', async () => {
    const bram = input();
    await addStudent(fresh.db, await admin(), bram, now);
    await addStudent(fresh.db, await admin(), bram, now);
    expect(await requireStudent(fresh.db, actorOf(school.manager), bram.id, 'editGoals')).toMatchObject({
      shortName: 'Bram N.',
      initials: 'BN',
      groups: ['Garden group'],
    });
    await expect(
      requireSchoolAdmin(fresh.db, actorOf(school.aide)).then((admin) => addStudent(fresh.db, admin, input(), now)),
    ).rejects.toThrow(NotFound);
  });

  it('asks about a name that is near another’s', async () => {
    const near = { firstName: 'Áda', lastName: 'Exampel' };
    expect(await messagesOf(addStudent(fresh.db, await admin(), input(near), now))).toMatchObject({
      isSomeoneElse: 'There is already Ada Example (Grade 4). Is this someone else?',
    });
    await addStudent(fresh.db, await admin(), input({ ...near, isSomeoneElse: true }), now);
    expect((await roster(fresh.db, await admin())).students).toHaveLength(2);
  });

  it('is found in by name and group, and comes in pages', async () => {
    const rows = Array.from({ length: 104 }, (_, i) => ({
      ...{ id: randomUUID(), school_id: schoolId, first_name: `Kid${i}`, last_name: 'Lund', short_name: `Kid${i} L.` },
      ...{ initials: 'KL', grade: '1' },
    }));
    await fresh.db('students').insert(rows);
    const first = await roster(fresh.db, await admin());
    expect([first.students.length, first.found, first.enrolled]).toEqual([100, 105, 105]);
    const second = await roster(fresh.db, await admin(), { page: 2 });
    expect(second.students).toHaveLength(5);
    expect(new Set([...first.students, ...second.students].map(({ id }) => id)).size).toBe(105);
    expect(
      (await roster(fresh.db, await admin(), { find: 'kid10 LUND' })).students.map(({ firstName }) => firstName),
    ).toEqual(['Kid10']);
    expect((await roster(fresh.db, await admin(), { find: '%' })).found).toBe(0);
    await addStudent(fresh.db, await admin(), input(), now);
    expect(
      (await roster(fresh.db, await admin(), { group: 'Garden group' })).students.map(({ firstName }) => firstName),
    ).toEqual(['Bram']);
  });

  it('hands a student on: the case manager before stays as an educator', async () => {
    const change = input({ id: school.student, firstName: 'Ada', lastName: 'Example', caseManagerId: school.aide });
    await editStudent(fresh.db, actorOf(school.manager), change, now);
    const stays = await fresh
      .db('team_members')
      .where({ student_id: school.student })
      .orderBy(['from_date', 'role'])
      .select('person_id', 'role', 'from_date', 'until_date');
    // Until yesterday it was as it was.
    const [yesterday, before] = ['2026-11-23', '2026-09-01'];
    expect(stays).toEqual([
      { person_id: school.manager, role: 'caseManager', from_date: before, until_date: yesterday },
      { person_id: school.aide, role: 'paraprofessional', from_date: before, until_date: yesterday },
      { person_id: school.aide, role: 'caseManager', from_date: today, until_date: null },
      { person_id: school.manager, role: 'educator', from_date: today, until_date: null },
    ]);
    await expect(editStudent(fresh.db, actorOf(school.manager), change, now)).rejects.toThrow(NotFound);
    expect(
      await messagesOf(editStudent(fresh.db, office(), { ...change, groupIds: [randomUUID()] }, now)),
    ).toHaveProperty('groupIds');
  });

  it('is not taken over by whoever edits goals; who hands a student on is written down', async () => {
    const grant = (rights: ('observe' | 'editGoals' | 'share')[]) =>
      fresh.db('team_members').where({ student_id: school.student, person_id: school.aide }).update({ rights });
    await grant(['editGoals']);
    const ada = { id: school.student, firstName: 'Ada', lastName: 'Example' };
    const takeOver = input({ ...ada, caseManagerId: school.aide });
    expect(await messagesOf(editStudent(fresh.db, actorOf(school.aide), takeOver, now))).toHaveProperty(
      'caseManagerId',
    );
    expect(await canHandOver(fresh.db, actorOf(school.aide), school.student)).toBe(false);
    // Everything else of the student is theirs to change, and the case manager stays.
    await editStudent(fresh.db, actorOf(school.aide), input({ ...ada, grade: 'Grade 9' }), now);
    expect((await rosterStudent(fresh.db, office(), school.student)).caseManager?.id).toBe(school.manager);
    expect(await caseManagerHistory(fresh.db, school.student)).toEqual([]);

    await editStudent(fresh.db, office(), takeOver, now);
    await editStudent(fresh.db, office(), takeOver, now);
    expect(await caseManagerHistory(fresh.db, school.student)).toEqual([
      { at: now, from: 'manager', to: 'aide', by: 'stranger' },
    ]);
    await expect(fresh.db('changes').delete()).rejects.toThrow('not removed');
    // Somebody whose address was never proven is nobody’s case manager.
    const stray = await addPerson(fresh.db, 'stray');
    await fresh.db('people').where({ id: stray }).update({ email_proven_at: null });
    const toStray = input({ ...ada, caseManagerId: stray });
    expect(await messagesOf(editStudent(fresh.db, office(), toStray, now))).toHaveProperty('caseManagerId');
  });

  it('archives and brings back; nothing is lost', async () => {
    const archive = async (isArchived: boolean) =>
      setArchived(fresh.db, await admin(), { studentId: school.student, isArchived }, now);
    await archive(true);
    expect(await studentsOf(fresh.db, actorOf(school.manager))).toEqual([]);
    expect(await roster(fresh.db, await admin())).toMatchObject({ students: [], enrolled: 0, archived: 1 });
    expect((await roster(fresh.db, await admin(), { isArchived: true })).students).toMatchObject([
      { isArchived: true },
    ]);
    await archive(false);
    expect(await studentsOf(fresh.db, actorOf(school.manager))).toHaveLength(1);
    await expect(
      requireSchoolAdmin(fresh.db, office()).then((admin) =>
        setArchived(fresh.db, admin, { studentId: randomUUID(), isArchived: true }, now),
      ),
    ).rejects.toThrow(NotFound);
  });
});

describe('a plan', () => {
  it('has dates and reporting periods, which are its case manager’s to set', async () => {
    const plan = planInput.parse({
      startsOn: '2026-09-01',
      endsOn: '2027-08-31',
      periods: [
        { label: 'Spring', endsOn: '2027-03-31' },
        { label: 'Winter', endsOn: '2026-12-18' },
      ],
    });
    expect(await planOf(fresh.db, school.student, today)).toBeNull();
    await savePlan(fresh.db, actorOf(school.manager), school.student, plan, { newId: randomUUID(), now });
    await savePlan(fresh.db, actorOf(school.manager), school.student, plan, { newId: randomUUID(), now });
    expect((await planOf(fresh.db, school.student, today))?.periods.map(({ label }) => label)).toEqual([
      'Winter',
      'Spring',
    ]);
    await expect(savePlan(fresh.db, office(), school.student, plan, { newId: randomUUID(), now })).rejects.toThrow(
      NotFound,
    );
    const wrong = planInput.safeParse({ ...plan, endsOn: '2026-08-01' });
    expect(wrong.error?.issues.map(({ path }) => path.join('.'))).toEqual(
      expect.arrayContaining(['endsOn', 'periods.0.endsOn']),
    );
  });
});

describe('the school', () => {
  it('keeps its days, closures, groups, places and timetable', async () => {
    const stored = await schoolInForm(fresh.db, await admin());
    const change = schoolInput.parse({
      ...stored,
      timeZone: 'Europe/Lisbon',
      closures: [{ first: '2026-12-21', last: '2027-01-01', label: 'Winter break' }],
      groups: [...stored.groups, { id: randomUUID(), name: 'Kitchen group' }],
      dayParts: [{ part: 'Garden', groupId: group, locationId: null, weekdays: [1, 3], from: '09:00', to: '10:30' }],
    });
    await saveSchool(fresh.db, await admin(), change, now);
    const after = await schoolInForm(fresh.db, await admin());
    expect(after).toMatchObject({
      timeZone: 'Europe/Lisbon',
      groups: [{ name: 'Garden group' }, { name: 'Kitchen group' }],
      dayParts: [{ part: 'Garden', weekdays: [1, 3], from: '09:00', to: '10:30' }],
    });
    expect((await schoolOf(fresh.db, schoolId)).calendar.closures).toMatchObject([
      { first: '2026-12-21', last: '2027-01-01' },
    ]);
    await expect(
      requireSchoolAdmin(fresh.db, actorOf(school.manager)).then((admin) => saveSchool(fresh.db, admin, change, now)),
    ).rejects.toThrow(NotFound);
    expect(schoolInput.safeParse({ ...after, timeZone: 'Moon/Crater' }).success).toBe(false);
    expect(schoolInput.safeParse({ ...after, weekdays: [] }).success).toBe(false);
  });
});
