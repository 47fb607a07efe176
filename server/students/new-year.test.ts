import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type NewYearInput, newYearInput } from '~/core/students/new-year';
import { asPerson } from '~/tests/database/as-person';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addPerson,
  addStudent,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
  today,
} from '~/tests/database/small-school';
import { connect, type Database } from '../platform/db/database';
import { Invalid, NotFound } from '../platform/failures';
import { requireSchoolAdmin } from '../school/administrators';
import { addClosures, closuresIn } from '../school/closures-file';
import { schoolOf } from '../school/school';
import { beginNewYear, newYearRoster, prepareNewYear } from './new-year';

const fresh = freshDatabase();
let school: SmallSchool;
let head: string;
let app: Database;
const [oaks, elms] = [randomUUID(), randomUUID()];
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  // Who sets up the school and is on nobody's team sees no plan.
  head = await addPerson(fresh.db, 'head');
  await makeAdmin(fresh.db, head);
  await fresh.db('class_groups').insert([
    { id: oaks, school_id: schoolId, name: 'Oaks', position: 0 },
    { id: elms, school_id: schoolId, name: 'Elms', position: 1 },
  ]);
  await fresh.db('student_groups').insert({ student_id: school.student, group_id: oaks, school_id: schoolId });
  const plan = { id: randomUUID(), student_id: school.student, starts_on: '2026-09-08', ends_on: '2027-06-11' };
  await fresh.db('plans').insert(plan);
  await fresh.db('reporting_periods').insert({ plan_id: plan.id, label: 'Quarter 1', ends_on: '2026-12-04' });
  app = connect(fresh.url, { poolSize: 1, as: 'app' });
});
afterAll(() => app.destroy());

const as = <Result>(personId: string, work: (trx: Database) => Promise<Result>) => asPerson(app, personId, work);
const prepared = (input: NewYearInput, by = head) =>
  as(by, async (trx) => prepareNewYear(trx, await requireSchoolAdmin(trx, actorOf(by)), input));
const begun = (input: NewYearInput, seen: string) =>
  as(head, async (trx) => beginNewYear(trx, await requireSchoolAdmin(trx, actorOf(head)), { input, seen }, now));

const input = newYearInput.parse({
  grades: [{ from: 'Grade 4', to: 'Grade 5' }],
  groups: [{ id: oaks, to: elms }],
  teamsUntil: '2027-06-11',
  periods: [
    { label: 'Quarter 1', endsOn: '2026-12-04' },
    { label: 'Quarter 2', endsOn: '2027-01-29' },
    { label: 'After the plan', endsOn: '2028-01-28' },
  ],
});

describe('a new school year', () => {
  it('is for administrators, who see no plan by it', async () => {
    await expect(prepared(input, school.manager)).rejects.toThrow(NotFound);
    const rows = await as(head, (trx) => trx('plans').select('id'));
    expect(rows).toEqual([]);
    // Nor does anybody else lay out periods by asking the database for it.
    const laid = await as(school.manager, (trx) =>
      trx.raw(`select lay_out_period(?, 'Mine', '2027-03-01', now()) as n`, [schoolId]),
    );
    expect(laid.rows).toEqual([{ n: 0 }]);
  });

  it('does what it said, and nothing when something has changed since', async () => {
    const { sentences, seal } = await prepared(input);
    expect(sentences).toEqual([
      '1 student of Grade 4: Grade 5.',
      '1 student: from Oaks to Elms.',
      '1 place of 1 person on teams end on Fri, Jun 11, 2027; case managers stay.',
      '1 plan gets the reporting period Quarter 2, to Fri, Jan 29, 2027.',
    ]);
    expect(await fresh.db('students').pluck('grade')).toEqual(['Grade 4']);
    const another = await addStudent(fresh.db, 'Bram', [[school.manager, 'caseManager']]);
    await expect(begun(input, seal)).rejects.toMatchObject({ fields: { form: expect.stringContaining('once more') } });
    expect(await fresh.db('students').pluck('grade')).toEqual(['Grade 4', 'Grade 4']);

    await begun(input, (await prepared(input)).seal);
    expect(await fresh.db('students').pluck('grade')).toEqual(['Grade 5', 'Grade 5']);
    expect(await fresh.db('student_groups').pluck('group_id')).toEqual([elms]);
    const stays = await fresh.db('team_members').where({ student_id: school.student }).orderBy('role');
    expect(stays.map(({ role, until_date }) => [role, until_date])).toEqual([
      ['caseManager', null],
      ['paraprofessional', '2027-06-11'],
    ]);
    const periods = await fresh.db('reporting_periods').orderBy('ends_on').select('label', 'ends_on');
    expect(periods).toEqual([
      { label: 'Quarter 1', ends_on: '2026-12-04' },
      { label: 'Quarter 2', ends_on: '2027-01-29' },
    ]);
    // Each of it stands among the changes, by whom.
    const changes = await fresh.db('changes').where({ changed_by: head }).select('what', 'student_id');
    expect(changes.map(({ what }) => what).sort()).toEqual(['member of the team', 'plan', 'student', 'student']);
    expect(changes.some((one) => one.student_id === another)).toBe(true);
    const again = await prepared(input);
    expect(again.sentences).toEqual([]);
    await expect(begun(input, again.seal)).rejects.toThrow(Invalid);
  });

  it('archives who leaves, and refuses another school’s group and a day that is over', async () => {
    const leaving = newYearInput.parse({ grades: [{ from: 'Grade 5', leaves: true }] });
    const { sentences, seal } = await prepared(leaving);
    expect(sentences[0]).toContain('2 students leave and are archived');
    await begun(leaving, seal);
    const roster = await as(head, async (trx) => newYearRoster(trx, await requireSchoolAdmin(trx, actorOf(head))));
    expect(roster.students).toEqual([]);
    const foreign = newYearInput.parse({ groups: [{ id: oaks, to: randomUUID() }] });
    await expect(prepared(foreign)).rejects.toMatchObject({ fields: { 'groups[0].to': expect.any(String) } });
    await expect(prepared(newYearInput.parse({ teamsUntil: '2026-06-01' }))).rejects.toMatchObject({
      fields: { teamsUntil: 'That day is over.' },
    });
  });
});

describe('closures from a calendar', () => {
  const calendar = (...events: string[]) =>
    Buffer.from(['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:x', ...events, 'END:VCALENDAR', ''].join('\r\n'));
  const event = (...lines: string[]) => ['BEGIN:VEVENT', `UID:${randomUUID()}`, ...lines, 'END:VEVENT'].join('\r\n');

  it('are its whole days from today on: the end of an event is the day after it (RFC 5545, 3.6.1)', async () => {
    const { closures, passedOver } = await closuresIn(
      calendar(
        event('SUMMARY:Winter break', 'DTSTART;VALUE=DATE:20261221', 'DTEND;VALUE=DATE:20270102'),
        event('SUMMARY:A holiday\\, folded', ' over two lines', 'DTSTART;VALUE=DATE:20270118'),
        event('SUMMARY:Over', 'DTSTART;VALUE=DATE:20251225'),
        event('SUMMARY:Staff meeting', 'DTSTART:20261201T150000Z', 'DTEND:20261201T160000Z'),
        // It began long ago: what is still to come of it is told.
        event('SUMMARY:Founding day', 'DTSTART;VALUE=DATE:20180102', 'RRULE:FREQ=WEEKLY;UNTIL=20261201'),
        event('SUMMARY:First Fridays', 'DTSTART;VALUE=DATE:20270205', 'RRULE:FREQ=MONTHLY;BYDAY=1FR;COUNT=2'),
      ),
      today,
    );
    expect(closures).toEqual([
      { first: '2026-11-24', last: '2026-11-24', label: 'Founding day' },
      { first: '2026-12-01', last: '2026-12-01', label: 'Founding day' },
      { first: '2026-12-21', last: '2027-01-01', label: 'Winter break' },
      { first: '2027-01-18', last: '2027-01-18', label: 'A holiday, foldedover two lines' },
      { first: '2027-02-05', last: '2027-02-05', label: 'First Fridays' },
      { first: '2027-03-05', last: '2027-03-05', label: 'First Fridays' },
    ]);
    expect(passedOver).toBe(1);
  });

  it('refuses what is none, and takes over what is chosen, once', async () => {
    await expect(closuresIn(Buffer.from('Dear school,'), today)).rejects.toThrow(Invalid);
    await expect(closuresIn(calendar(), today)).rejects.toThrow(Invalid);
    for (const wrong of ['DTSTART;VALUE=DATE:20269999', 'DTSTART;VALUE=DATE:20261201\r\nRRULE:FREQ=NEVER']) {
      await expect(closuresIn(calendar(event(wrong)), today)).rejects.toThrow(Invalid);
    }
    const winter = { first: '2026-12-21', last: '2027-01-01', label: 'Winter break', isWanted: true };
    const chosen = { closures: [winter, { ...winter, first: '2026-12-14', last: '2026-12-14', isWanted: false }] };
    const admin = await requireSchoolAdmin(fresh.db, actorOf(head));
    expect(await addClosures(fresh.db, admin, chosen, now)).toBe(1);
    expect(await addClosures(fresh.db, admin, chosen, now)).toBe(0);
    expect((await schoolOf(fresh.db, schoolId)).calendar.closures).toEqual([
      { first: '2026-12-21', last: '2027-01-01', label: 'Winter break' },
    ]);
  });
});
