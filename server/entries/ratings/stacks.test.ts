// A stack that several people rate, as the application's own role has it.
import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { StackInput } from '~/core/entries/ratings/stack';
import { freshDatabase } from '~/tests/database/fresh';
import { actorOf, addGoal, addStudent, now, type SmallSchool, smallSchool, wall } from '~/tests/database/small-school';
import { type Asking, tell } from '../../platform/db/asking';
import { connect, type Database } from '../../platform/db/database';
import { type Invalid, NotFound } from '../../platform/failures';
import { rateInStack, sampleToRate, stackBehind, workFile } from './stack-rater';
import { makeStack, makeStackEntries, newStackLinks, putWork, setStackClosed, stackOf, stacksOf } from './stacks';

const fresh = freshDatabase();
let app: Database;
let school: SmallSchool;
let students: string[];
let goals: string[];

const level = (points: number) => ({ points, words: `level ${points}` });
const criterion = (key: string) => ({ key, name: key, levels: [1, 2, 3].map(level) });
const rubric = { kind: 'rubric', criteria: ['line', 'edge'].map(criterion), kept: { kind: 'mean' } };

async function withRubric(student: string, number = '7'): Promise<string> {
  const goal = await addGoal(fresh.db, student, number);
  await fresh
    .db('goal_measures')
    .where({ goal_id: goal })
    .update({ measure: JSON.stringify(rubric) });
  return goal;
}

beforeAll(async () => {
  school = await smallSchool(fresh.db);
  app = connect(fresh.url, { poolSize: 1, as: 'app' });
  students = [school.student];
  for (const name of ['Ben', 'Cem']) students.push(await addStudent(fresh.db, name, [[school.manager, 'caseManager']]));
  goals = await Promise.all(students.map((student) => withRubric(student)));
});
afterAll(() => app.destroy());

const manager = () => actorOf(school.manager);
const as = <Result>(who: Asking, what: (db: Database) => Promise<Result>) =>
  app.transaction(async (trx) => {
    await tell(trx, who);
    return what(trx);
  });
const teacher = <Result>(what: (db: Database) => Promise<Result>) => as(manager(), what);
const fieldsOf = (promise: Promise<unknown>) =>
  promise.then(
    (): Record<string, string> => ({}),
    (error: Invalid) => error.fields,
  );

const input = (changes: Partial<StackInput> = {}): StackInput => ({
  ...{
    id: randomUUID(),
    title: 'Recipe card',
    goalIds: goals,
    staffIds: [school.manager],
    classmateIds: students,
    each: 2,
  },
  ...changes,
});
async function made(changes: Partial<StackInput> = {}) {
  const stack = input(changes);
  await teacher((db) => makeStack(db, manager(), stack, now));
  const links = await teacher((db) => newStackLinks(db, manager(), stack.id));
  const behind = (token: string) => app.transaction((trx) => stackBehind(trx, token));
  const read = () => teacher((db) => stackOf(db, manager(), stack.id));
  const close = (isClosed: boolean) => teacher((db) => setStackClosed(db, manager(), { id: stack.id, isClosed }, now));
  return { stack, links, behind, read, close };
}
type OnList = Awaited<ReturnType<typeof stackBehind>>[number];
const rate = (one: OnList, points: number, words = '') =>
  as({ doorTo: one.studentId }, (db) =>
    rateInStack(db, one, { id: randomUUID(), points: { line: points, edge: 2 }, words }, now),
  );

describe('a stack', () => {
  it('is made once: a work sample of each, and raters spread evenly, never on their own', async () => {
    const { stack, links, behind, read } = await made();
    await teacher((db) => makeStack(db, manager(), stack, now));
    const { samples, raters } = await read();
    // One number for each, on its teacher’s page and before every rater, whatever else is on their list.
    expect(samples.map(({ number }) => number)).toEqual([1, 2, 3]);
    const numberOf = new Map(samples.map(({ studentId, number }) => [studentId as string, number]));
    for (const { token } of links)
      for (const one of await behind(token)) expect(one.number).toBe(numberOf.get(one.studentId));
    expect(samples.map(({ turns, rated }) => [turns, rated])).toEqual([
      [2, 0],
      [2, 0],
      [2, 0],
    ]);
    expect(raters.map(({ turns }) => turns).toSorted()).toEqual([1, 1, 2, 2]);
    const owners = new Map(samples.map(({ id, studentId }) => [id, studentId as string]));
    for (const { raterId, token } of links) {
      const list = await behind(token);
      const rater = await fresh.db('stack_raters').where({ id: raterId }).first('student_id');
      expect(list.map(({ sampleId }) => owners.get(sampleId))).not.toContain(rater!.student_id);
    }
    expect((await teacher((db) => stacksOf(db, manager()))).map(({ id }) => id)).toContain(stack.id);
  });

  it.each([
    ['without a rater', { staffIds: [], classmateIds: [] }, 'staffIds'],
    ['by a goal that has no rubric', { goalIds: [randomUUID()] }, 'goalIds'],
    ['rated by somebody from elsewhere', { staffIds: [randomUUID()] }, 'staffIds'],
  ])('%s is refused at its field', async (_, changes, field) => {
    expect(Object.keys(await fieldsOf(made(changes)))).toEqual([field]);
  });

  it('is refused where the one rater would rate their own, and where a student is in it twice', async () => {
    const own = { goalIds: goals.slice(0, 1), staffIds: [], classmateIds: students.slice(0, 1) };
    expect(Object.keys(await fieldsOf(made(own)))).toEqual(['classmateIds']);
    const again = await withRubric(school.student, '8');
    expect(await fieldsOf(made({ goalIds: [goals[0]!, again] }))).toEqual({
      goalIds: 'Choose one goal of each student.',
    });
    await fresh.db('goals').where({ id: again }).update({ retired_on: '2026-11-20', retired_how: 'met' });
  });

  it('is its maker’s alone, and of their own students', async () => {
    const { stack } = await made();
    const other = actorOf(school.stranger);
    await expect(as(other, (db) => stackOf(db, other, stack.id))).rejects.toThrow(NotFound);
    await expect(as(other, (db) => newStackLinks(db, other, stack.id))).rejects.toThrow(NotFound);
    expect(Object.keys(await fieldsOf(as(other, (db) => makeStack(db, other, input(), now))))).toEqual(['goalIds']);
    await expect(teacher((db) => newStackLinks(db, manager(), stack.id, randomUUID()))).rejects.toThrow(NotFound);
  });
});

describe('a rater’s link', () => {
  it('leads to their list; a newer one ends it, and one that is guessed leads nowhere', async () => {
    const { stack, links, behind } = await made();
    const [first] = links;
    expect((await behind(first!.token)).length).toBeGreaterThan(0);
    await teacher((db) => newStackLinks(db, manager(), stack.id, first!.raterId));
    expect(await behind(first!.token)).toEqual([]);
    expect(await behind('no such link')).toEqual([]);
  });

  it('takes a rating, and a change of it until it is closed; what it said is kept', async () => {
    const { links, behind, read, close } = await made();
    const [one] = await behind(links[0]!.token);
    await rate(one!, 1, 'Shaky.');
    await rate(one!, 3, 'Straight, on a second look.');
    const door = { doorTo: one!.studentId };
    const { own, rubric: shown } = await as(door, (db) => sampleToRate(db, one!));
    expect(own).toEqual({ points: { line: 3, edge: 2 }, words: 'Straight, on a second look.' });
    expect(shown.criteria.map(({ key }) => key)).toEqual(['line', 'edge']);
    const kept = await fresh.db('rating_revisions').orderBy('seq', 'desc').first('points', 'words');
    expect(kept).toEqual({ points: { line: 1, edge: 2 }, words: 'Shaky.' });
    expect((await behind(links[0]!.token))[0]).toMatchObject({ isRated: true });
    expect((await read()).raters.map(({ rated }) => rated).toSorted()).toEqual([0, 0, 0, 1]);
    await close(true);
    expect((await fieldsOf(rate(one!, 2))).form).toMatch(/closed/);
    await expect(as(door, (db) => db('rating_revisions').update({ words: '' }))).rejects.toThrow(/permission denied/);
  });

  it('shows the work, which stays as it is once it was rated', async () => {
    const { stack, links, behind } = await made();
    const [one] = await behind(links[0]!.token);
    const put = (text: string, file: Buffer | null) =>
      teacher((db) => putWork(db, manager(), { id: stack.id, sampleId: one!.sampleId, text, file }, now));
    const picture = await sharp({ create: { width: 20, height: 20, channels: 3, background: 'blue' } })
      .png()
      .toBuffer();
    await put('', picture);
    await put(' Two cups of flour. ', null);
    const door = { doorTo: one!.studentId };
    expect(await as(door, (db) => sampleToRate(db, one!))).toMatchObject({
      ...{ text: 'Two cups of flour.', fileType: 'image/jpeg', own: null },
    });
    expect((await as(door, (db) => workFile(db, one!.sampleId))).type).toBe('image/jpeg');
    const elsewhere = { doorTo: students.find((id) => id !== one!.studentId)! };
    await expect(as(elsewhere, (db) => workFile(db, one!.sampleId))).rejects.toThrow(NotFound);
    await expect(as(elsewhere, (db) => sampleToRate(db, one!))).rejects.toThrow(NotFound);
    expect(Object.keys(await fieldsOf(put('x'.repeat(20_001), null)))).toEqual(['text']);
    await rate(one!, 2);
    expect(Object.keys(await fieldsOf(put('Another text.', null)))).toEqual(['file']);
  });
});

describe('a stack that is closed', () => {
  it('becomes entries: staff make the score, classmates stand beside it; asked twice, each is made once', async () => {
    const { stack, links, behind, read, close } = await made();
    for (const { token } of links) for (const one of await behind(token)) await rate(one, 3, 'Good.');
    const make = () => teacher((db) => makeStackEntries(db, manager(), stack.id, { wall, now }));
    expect((await fieldsOf(make())).form).toMatch(/Close the stack first/);
    await close(true);
    const { samples } = await read();
    const byStaff = await fresh
      .db('stack_turns as t')
      .join('stack_raters as r', 'r.id', 't.rater_id')
      .where({ 't.stack_id': stack.id })
      .whereNotNull('r.person_id')
      .pluck('t.work_sample_id');
    expect([await make(), await make()]).toEqual([byStaff.length, 0]);
    const entries = (await read()).samples.filter(({ entryId }) => entryId !== null);
    expect(entries.map(({ id }) => id).toSorted()).toEqual(byStaff.toSorted());
    const { data } = (await fresh.db('entries').where({ id: entries[0]!.entryId! }).first('data'))!;
    const { ratings } = data as { ratings: { rater: string; isBeside?: boolean }[] };
    expect(ratings.filter(({ isBeside }) => isBeside).map(({ rater }) => rater)).toEqual(['Peer', 'Peer']);
    expect(samples).toHaveLength(3);
    // What is an entry is on nobody's list any more.
    const lists = await Promise.all(links.map(({ token }) => behind(token)));
    expect(lists.flat().map(({ sampleId }) => sampleId)).not.toContain(entries[0]!.id);
  });
});
