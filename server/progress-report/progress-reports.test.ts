import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { progressReportDocument } from '~/core/documents/progress-report-document';
import { missingIn } from '~/core/progress-report/content';
import type { IssueInput } from '~/core/progress-report/input';
import { everything } from '~/core/sharing/visibility-rule';
import type { PlanInput } from '~/core/students/student-input';
import { plainText, type RichText } from '~/core/words/rich-text';
import { freshDatabase } from '~/tests/database/fresh';
import {
  accessTo,
  actorOf,
  addGoal,
  addStudent,
  now,
  type SmallSchool,
  schoolId,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { textOfPdf } from '~/tests/examples/pdf-text';
import { documentPdf } from '../documents/pdf';
import { withdrawObservation } from '../entries/change';
import { recordSession } from '../entries/record';
import { setFrequency } from '../messages/frequency';
import { Conflict, NotFound } from '../platform/failures';
import { type School, schoolOf } from '../school/school';
import { makeShareLink } from '../sharing/share-links';
import { type Plan, planOf, savePlan } from '../students/plan';
import { requireStudent } from '../students/students';
import { draftOf, saveDraft } from './draft';
import { issuedOf, issuedOutside, issuedReport, issueReport, namesInReport } from './issued';
import { draftsInBrief, reportStanding, reportStandings } from './overview';

const fresh = freshDatabase();
let school: SmallSchool;
let theSchoolOfIt: School;
const PERIOD = '2026-12-04';
const plan = { startsOn: '2026-09-08', endsOn: '2027-06-11', periods: [{ label: 'Quarter 1', endsOn: PERIOD }] };
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  theSchoolOfIt = await schoolOf(fresh.db, schoolId);
  await savePlan(fresh.db, actorOf(school.manager), school.student, plan, { newId: randomUUID(), now });
  for (const on of ['2026-10-01', '2026-10-08', '2026-10-15', '2026-11-12']) await observe(on);
});

async function observe(on: string) {
  const id = randomUUID();
  const outcome = { data: { trials: ['independent', 'independent', 'incorrect'] }, reason: null };
  const session = { on, time: '09:00', observerId: school.manager, locationId: null };
  const entries = [{ id, goalId: school.goal, outcome, note: '' }];
  await recordSession(fresh.db, actorOf(school.manager), school.student, { ...session, entries }, { wall, now });
  return id;
}

const said = (text: string): RichText => ({
  type: 'doc',
  content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
});
type Period = Plan['periods'][number];
const words = (text: string) => ({ whole: said(text), goals: {} });
const student = () => requireStudent(fresh.db, actorOf(school.manager), school.student, 'share');
const draft = async () => draftOf(fresh.db, await student(), PERIOD, { school: theSchoolOfIt, today });
const save = (version: number, text: string, person = school.manager) =>
  saveDraft(fresh.db, actorOf(person), school.student, { period: PERIOD, version, words: words(text) }, now);
const issue = async (changes: Partial<IssueInput> = {}, at = now) => {
  const { version } = await draft();
  const id = randomUUID();
  const input = {
    ...{ id, period: PERIOD, version, words: words('As issued') },
    readers: ['family' as const],
    replaces: null,
    ...changes,
  };
  await issueReport(fresh.db, actorOf(school.manager), school.student, input, { school: theSchoolOfIt, now: at });
  return input.id;
};

describe('a draft', () => {
  it('says of each goal what its entries say, and what is missing', async () => {
    const unseen = await addGoal(fresh.db, school.student, '2');
    const { report } = await draft();
    expect(report.goals.map(({ number, now: is, evidence }) => [number, is, evidence])).toEqual([
      ['1', '67%', '4 observations by 1 person since the plan began, all of them in this period.'],
      ['2', null, 'No observation yet.'],
    ]);
    expect(missingIn(report, today).map(({ goalId, text }) => [goalId, text])).toEqual([
      [school.goal, '1 Plants a row: there is no baseline.'],
      [unseen, '2 Plants a row: nothing was observed in this period.'],
      [null, 'The period is not over: it ends on Dec 4.'],
    ]);
    await expect(draftOf(fresh.db, await student(), '2026-12-05', { school: theSchoolOfIt, today })).rejects.toThrow(
      NotFound,
    );
  });

  it('keeps the words of whoever was first, and tells the second', async () => {
    expect(await save(0, 'Mine')).toBe(1);
    expect(await save(0, 'Mine')).toBe(1);
    await expect(save(0, 'Also mine')).rejects.toThrow(Conflict);
    expect(await save(1, 'Later')).toBe(2);
    await expect(save(2, 'x', school.aide)).rejects.toThrow(NotFound);
  });
});

describe('an issued report', () => {
  it('is frozen: numbered, dated, unchangeable; a later correction shows a mark and changes nothing', async () => {
    const link = randomUUID();
    const way = { id: link, readerName: 'Aunt Ida', kind: 'family' as const, endsOn: '2026-12-31' };
    await makeShareLink(fresh.db, actorOf(school.manager), school.student, way, now);
    const asked = { id: link, email: 'ida@home.example', frequency: 'byHand' as const };
    await setFrequency(fresh.db, actorOf(school.manager), school.student, asked, now);
    const extra = await observe('2026-11-19');
    const id = await issue();
    const read = () => issuedReport(fresh.db, school.student, id, theSchoolOfIt);
    const before = await read();
    expect(before).toMatchObject({ number: 1, issuedOn: today, correctedSince: 0, replacedBy: null });
    const ids = { studentId: school.student, entryId: extra };
    await withdrawObservation(fresh.db, actorOf(school.manager), ids, { version: 1, why: 'Not hers' }, now);
    const after = await read();
    expect(after.correctedSince).toBe(1);
    expect(after.report).toEqual(before.report);
    await expect(fresh.db('issued_reports').update({ number: 9 })).rejects.toThrow('not removed');
    // Readers with an address are told, once.
    expect(await fresh.db('messages').where({ kind: 'issued' }).select('to_email')).toEqual([
      { to_email: 'ida@home.example' },
    ]);
  });

  it('is for the kinds of reader it was issued for', async () => {
    const [line] = await issuedOf(fresh.db, school.student, theSchoolOfIt, 'family');
    expect(line?.number).toBe(1);
    expect(await issuedOf(fresh.db, school.student, theSchoolOfIt, 'specialist')).toEqual([]);
    const id = line?.id as string;
    await expect(issuedReport(fresh.db, school.student, id, theSchoolOfIt, 'student')).rejects.toThrow(NotFound);
    await expect(issuedReport(fresh.db, accessTo(randomUUID()), id, theSchoolOfIt)).rejects.toThrow(NotFound);
  });

  it('is replaced openly; of two who issue at once, one does', async () => {
    const [first] = await issuedOf(fresh.db, school.student, theSchoolOfIt);
    const replaces = first?.id as string;
    await expect(issue({ replaces: null })).rejects.toThrow(Conflict);
    const both = await Promise.allSettled([issue({ replaces }), issue({ replaces })]);
    expect(both.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
    const lines = await issuedOf(fresh.db, school.student, theSchoolOfIt);
    expect(lines.map(({ number, replaces: of, replacedBy }) => [number, of, replacedBy])).toEqual([
      [2, 1, null],
      [1, null, 2],
    ]);
    const second = lines[0]?.id as string;
    await issue({ id: second, replaces: second });
    expect(await issuedOf(fresh.db, school.student, theSchoolOfIt)).toHaveLength(2);
  });
});

describe('the report that is to be made now', () => {
  const standing = async (on: string) => {
    const { period, issued } = await reportStanding(
      fresh.db,
      { id: school.student },
      { school: theSchoolOfIt, today: on },
    );
    return [period?.label ?? null, issued?.number ?? null];
  };

  it('is of the period that goes on, with the one that stands for it; of none before the plan begins', async () => {
    expect(await standing(today)).toEqual(['Quarter 1', 2]);
    expect(await standing('2026-09-01')).toEqual([null, null]);
    // Its only period is over and reported: that one is shown.
    expect(await standing('2026-12-20')).toEqual(['Quarter 1', 2]);
  });
});

describe('a draft among many', () => {
  it('says for how many goals there are own words, and which were not observed in the period', async () => {
    const access = accessTo(school.student);
    const around = { school: theSchoolOfIt, today };
    const brief = async () =>
      (await draftsInBrief(fresh.db, await reportStandings(fresh.db, [access], around))).get(school.student);
    const before = await brief();
    expect(before).toMatchObject({ goals: 2, written: 0, hasWhole: true, unseen: ['2 Plants a row'] });
    const { version, words: kept } = await draft();
    const written = { ...kept, goals: { [school.goal]: said('Well done.') } };
    const input = { period: PERIOD, version, words: written };
    await saveDraft(fresh.db, actorOf(school.manager), school.student, input, now);
    expect(await brief()).toEqual({ ...before, written: 1 });
  });
});

describe('a period whose end is moved', () => {
  it('keeps the draft that was written for it, and the report that was issued for it', async () => {
    const before = (await planOf(fresh.db, school.student, today)) as Plan;
    const periods = before.periods.map((period) => ({ ...period, label: 'Autumn', endsOn: '2026-12-11' }));
    const write = (input: PlanInput) =>
      savePlan(fresh.db, actorOf(school.manager), school.student, input, { newId: randomUUID(), now });
    await write({ ...before, periods });
    const moved = await draftOf(fresh.db, await student(), '2026-12-11', { school: theSchoolOfIt, today });
    expect(moved.version).toBeGreaterThan(0);
    const { period, issued } = await reportStanding(fresh.db, await student(), { school: theSchoolOfIt, today });
    expect([period?.label, issued?.period.to]).toEqual(['Autumn', PERIOD]);
    // Two that change their ends with each other keep what is theirs; one that is taken away is out of sight only.
    const two = [...periods, { label: 'Spring', endsOn: '2027-03-01' }];
    await write({ ...before, periods: two });
    const [autumn, spring] = ((await planOf(fresh.db, school.student, today)) as Plan).periods as [Period, Period];
    await write({
      ...before,
      periods: [
        { ...autumn, endsOn: spring.endsOn },
        { ...spring, endsOn: autumn.endsOn },
      ],
    });
    expect((await planOf(fresh.db, school.student, today))?.periods.map(({ id }) => id)).toEqual([
      spring.id,
      autumn.id,
    ]);
    await write(before);
    expect((await draft()).version).toBe(moved.version);
  });
});

describe('other children in a report', () => {
  it('are not named to readers from outside, in the teacher’s own words or a goal’s; the draft says who is named', async () => {
    const wren = await addStudent(fresh.db, 'Wren', []);
    await fresh.db('students').where({ id: wren }).update({ last_name: 'Castellan' });
    await fresh.db('goals').where({ id: school.goal }).update({ wording: 'Plants a row beside Wren.' });
    const goals = { [school.goal]: said('He laughed with Mrs Castellan.') };
    const { version } = await draft();
    const input = { period: PERIOD, version, words: { whole: said('Wren’s bench is now his own.'), goals } };
    await saveDraft(fresh.db, actorOf(school.manager), school.student, input, now);
    expect(await namesInReport(fresh.db, school.student, (await draft()).report)).toEqual(['Wren', 'Mrs Castellan']);
    const [newest] = await issuedOf(fresh.db, school.student, theSchoolOfIt);
    const id = await issue({ words: input.words, replaces: newest?.id ?? null });
    const inside = await issuedReport(fresh.db, school.student, id, theSchoolOfIt);
    expect(JSON.stringify(inside.report)).toContain('Mrs Castellan');
    const outside = { kind: 'family' as const, shows: everything, linkId: randomUUID() };
    const { report } = await issuedOutside(fresh.db, school.student, id, theSchoolOfIt, outside);
    expect(plainText(report.words)).toBe('A classmate’s bench is now his own.');
    expect(report.goals.find(({ goalId }) => goalId === school.goal)).toMatchObject({
      wording: 'Plants a row beside a classmate.',
    });
    const pdf = (await textOfPdf(await documentPdf(progressReportDocument(report, inside), 'letter'))).pages.join(' ');
    expect(pdf).toContain('He laughed with a classmate.');
    expect(pdf).not.toMatch(/Wren|Castellan/);
    expect(report.student).toEqual(inside.report.student);
    await fresh.db('goals').where({ id: school.goal }).update({ wording: 'Plants along a string.' });
  });
});
