import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { boardRows } from '~/core/desk/board';
import type { WorkInput } from '~/core/desk/steps';
import type { StepState } from '~/core/school/step-words';
import { freshDatabase } from '~/tests/database/fresh';
import {
  accessTo,
  actorOf,
  addGoal,
  addStudent,
  now,
  type SmallSchool,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { correctObservation } from '../entries/change';
import { canChangeEntry } from '../entries/corrections';
import { pairable } from '../entries/pairs';
import { observationOf, observationsOf, sessionsByGoal, sessionsOfGoal } from '../entries/read';
import { recordSession } from '../entries/record';
import { hashToken, newToken } from '../people/tokens';
import { Invalid, NotFound } from '../platform/failures';
import { loggedAmounts } from '../progress/class-totals';
import { weekCounts } from '../progress/coverage';
import type { StudentAccess } from '../students/access';
import { boardOf, markSeen } from './board';
import { cardsOf, endCard, makeCards, resumeDesk } from './cards';
import { deskGoals, saveDeskGoals, saveLog } from './log';
import { deskWorks, sayStep } from './steps';
import { openTurn, takeTurn, turnOf } from './turns';
import { saveWork, setWorkClosed, workOf, worksOf } from './works';

const fresh = freshDatabase();
let school: SmallSchool;
let ben: string;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  ben = await addStudent(fresh.db, 'Ben', [[school.manager, 'caseManager']]);
});
const manager = () => actorOf(school.manager);

const blank = (title: string) => ({ id: randomUUID(), title, hint: '' });
const work = (changes: Partial<WorkInput> = {}): WorkInput => ({
  ...{
    id: randomUUID(),
    title: 'Bird house',
    steps: [blank('Measure'), blank('Cut')],
    studentIds: [school.student, ben],
  },
  ...changes,
});
const keep = async (input: WorkInput) => {
  await saveWork(fresh.db, manager(), input, now);
  return workOf(fresh.db, manager(), input.id);
};

async function cardOf(studentId: string) {
  const [card] = await makeCards(fresh.db, manager(), [studentId], now);
  const { id } = (await fresh.db('cards').where({ student_id: studentId, ended_at: null }).first('id'))!;
  return { ...card!, id: id as string };
}

const saying = (workId: string, stepId: string, state: StepState, more: object = {}) => ({
  ...{ id: randomUUID(), workId, stepId, state, word: '', at: now.getTime() },
  ...more,
});

describe('a piece of work', () => {
  it('is kept once, changed with its steps, and given to whom one may observe', async () => {
    const input = work();
    await Promise.all([
      saveWork(fresh.db, manager(), input, now),
      saveWork(fresh.db, manager(), { ...input }, now),
    ]).catch(() => {});
    const first = await keep({ ...input, steps: (await workOf(fresh.db, manager(), input.id)).steps.slice(0, 2) });
    const [measure, cut] = first.steps;
    const changed = await keep({
      ...input,
      title: 'Bird house, week 2',
      steps: [cut!, blank('Sand'), measure!],
      studentIds: [ben],
    });
    expect(changed.steps.map(({ title }) => title)).toEqual(['Cut', 'Sand', 'Measure']);
    expect(changed.steps[0]?.id).toBe(cut?.id);
    expect(changed.studentIds).toEqual([ben]);
    expect((await worksOf(fresh.db, manager())).some(({ title }) => title === 'Bird house, week 2')).toBe(true);
    // A step of another work is not taken over.
    const thief = await keep(work({ steps: [{ ...blank('Mine'), id: cut!.id }, blank('Own')] }));
    expect(thief.steps.map(({ title }) => title)).toEqual(['Own']);
    expect((await workOf(fresh.db, manager(), input.id)).steps[0]?.title).toBe('Cut');
    const aides = work({ studentIds: [ben] });
    await expect(saveWork(fresh.db, actorOf(school.aide), aides, now)).rejects.toThrow(NotFound);
    await expect(workOf(fresh.db, manager(), aides.id)).rejects.toThrow(NotFound);
  });

  it('is changed by its maker only, and unknown to whoever knows none of its students', async () => {
    const input = work({ studentIds: [ben] });
    await keep(input);
    await expect(workOf(fresh.db, actorOf(school.stranger), input.id)).rejects.toThrow(NotFound);
    await expect(saveWork(fresh.db, actorOf(school.stranger), { ...input, studentIds: [] }, now)).rejects.toThrow(
      NotFound,
    );
    const close = (person: string) => setWorkClosed(fresh.db, actorOf(person), { id: input.id, isClosed: true }, now);
    await expect(close(school.aide)).rejects.toThrow(NotFound);
    await close(school.manager);
    expect(await deskWorks(fresh.db, accessTo(ben))).not.toContainEqual(expect.objectContaining({ id: input.id }));
  });
});

describe('a desk', () => {
  it('takes what its student says once, of their own work only, and the board has it', async () => {
    const made = await keep(work());
    const card = await cardOf(school.student);
    const desk = { studentId: school.student, cardId: card.id };
    const [measure, cut] = made.steps;
    const stuck = saying(made.id, measure!.id, 'stuck', { word: 'Which end?' });
    await Promise.all([sayStep(fresh.db, desk, stuck, now), sayStep(fresh.db, desk, stuck, now)]);
    // A word belongs to where one is stuck, and to nothing else.
    await sayStep(fresh.db, desk, saying(made.id, cut!.id, 'done', { word: 'easy' }), now);
    const { students, said } = await boardOf(fresh.db, manager(), made.id);
    expect(said).toHaveLength(2);
    expect(students.map(({ id }) => id).sort()).toEqual([school.student, ben].sort());
    const [row] = boardRows([school.student], [measure!.id, cut!.id], said);
    expect(row?.cells.map(({ state, word }) => [state, word])).toEqual([
      ['stuck', 'Which end?'],
      ['done', ''],
    ]);
    const found = await deskWorks(fresh.db, school.student);
    expect(found.find(({ id }) => id === made.id)?.steps.map(({ state }) => state)).toEqual(['stuck', 'done']);

    const other = await keep(work({ studentIds: [ben] }));
    const foreign = saying(other.id, other.steps[0]!.id, 'done');
    await expect(sayStep(fresh.db, desk, foreign, now)).rejects.toThrow(NotFound);
    await expect(sayStep(fresh.db, desk, saying(made.id, other.steps[0]!.id, 'done'), now)).rejects.toThrow(NotFound);
  });

  it('is told kindly of a step that was taken away meanwhile, and of work that was put away', async () => {
    const made = await keep(work());
    const desk = { studentId: school.student, cardId: (await cardOf(school.student)).id };
    const gone = made.steps[1]!;
    await keep({ ...work(), id: made.id, steps: [made.steps[0]!] });
    const late = sayStep(fresh.db, desk, saying(made.id, gone.id, 'done'), now);
    await expect(late).rejects.toThrow(Invalid);
    await setWorkClosed(fresh.db, manager(), { id: made.id, isClosed: true }, now);
    await expect(sayStep(fresh.db, desk, saying(made.id, made.steps[0]!.id, 'done'), now)).rejects.toThrow(Invalid);
  });

  it('shows that somebody has seen it, until it is said anew', async () => {
    const made = await keep(work());
    const desk = { studentId: school.student, cardId: (await cardOf(school.student)).id };
    const look = saying(made.id, made.steps[0]!.id, 'pleaseLook');
    await sayStep(fresh.db, desk, look, now);
    const isSeen = async () =>
      (await deskWorks(fresh.db, school.student)).find(({ id }) => id === made.id)?.steps[0]?.isSeen;
    await markSeen(fresh.db, actorOf(school.stranger), [look.id], now);
    expect(await isSeen()).toBe(false);
    await Promise.all([
      markSeen(fresh.db, manager(), [look.id], now),
      markSeen(fresh.db, manager(), [look.id, randomUUID()], now),
    ]);
    expect(await isSeen()).toBe(true);
    await sayStep(fresh.db, desk, saying(made.id, made.steps[0]!.id, 'pleaseLook', { at: now.getTime() + 1 }), now);
    await sayStep(fresh.db, desk, { ...look, id: randomUUID() }, new Date(now.getTime() + 60_000));
    expect((await fresh.db('work_states').where({ work_id: made.id })).length).toBe(3);
  });
});

describe('a log that a student keeps', () => {
  const plants = {
    ...{ kind: 'cumulativeTotal', unit: { one: 'plant', many: 'plants' }, total: 140, amounts: 'added' },
    categories: [
      { key: 'herbs', label: 'Herbs' },
      { key: 'beans', label: 'Beans' },
    ],
  };
  const at = { wall, now, timeZone: 'America/New_York' };
  const log = (goalId: string, changes: object = {}) => ({
    ...{ id: randomUUID(), goalId, on: today, amount: 12, category: 'herbs', note: 'lemon thyme' },
    ...changes,
  });
  const open = (goalId: string, selfCounts = true) => {
    const choice = { goalId, shows: 'log' as const, plain: 'Plants I potted', selfCounts };
    return saveDeskGoals(fresh.db, manager(), ben, [choice], now);
  };
  let goal: string;
  let desk: { studentId: StudentAccess<'read'>; cardId: string };
  beforeAll(async () => {
    goal = await addGoal(fresh.db, ben, '9', { measure: plants });
    desk = { studentId: accessTo(ben), cardId: (await cardOf(ben)).id };
    await open(goal);
  });
  const total = async () => {
    const [one] = (await deskGoals(fresh.db, accessTo(ben))).filter(({ goal: { id } }) => id === goal);
    return (await loggedAmounts(fresh.db, [one!.goal])).reduce((sum, { amount }) => sum + amount, 0);
  };

  it('is marked as the student’s, counts once, and is corrected by them that day with its history', async () => {
    const said = log(goal);
    await Promise.all([saveLog(fresh.db, desk, said, at), saveLog(fresh.db, desk, said, at)]);
    expect(await total()).toBe(12);
    await saveLog(fresh.db, desk, { ...said, amount: 9 }, at);
    expect(await total()).toBe(9);
    // The goal's own page, its files and the meeting read it as every other entry: nobody is its observer but the student.
    const sessions = await sessionsOfGoal(fresh.db, accessTo(ben), goal);
    expect(sessions).toMatchObject([{ id: said.id, observer: null, observerName: 'Student', isSelfRecorded: true }]);
    const [entry] = await observationsOf(fresh.db, [accessTo(ben)], { ids: [said.id] });
    expect(entry).toMatchObject({
      observerName: 'Student',
      recordedByName: 'Student',
      version: 2,
      isSelfRecorded: true,
    });
    expect(await fresh.db('entry_revisions').where({ entry_id: said.id }).pluck('version')).toEqual([1]);
    const nextDay = { ...at, wall: { ...wall, on: '2026-11-25' }, now: new Date(now.getTime() + 86_400_000) };
    await expect(saveLog(fresh.db, desk, { ...said, amount: 8 }, nextDay)).rejects.toThrow(Invalid);
    // Sent again as it stands, it is there already.
    await saveLog(fresh.db, desk, { ...said, amount: 9 }, nextDay);
    expect(await weekCounts(fresh.db, [accessTo(ben)], '2026-09-01')).toEqual([]);
  });

  it('names the student as who changed it, until an adult does; and is no second observer’s', async () => {
    const other = await addGoal(fresh.db, ben, '11', { measure: plants });
    await open(other);
    const said = log(other, { amount: 7 });
    await saveLog(fresh.db, desk, said, at);
    await saveLog(fresh.db, desk, { ...said, amount: 6 }, at);
    const own = () => observationOf(fresh.db, accessTo(ben), said.id);
    expect(await own()).toMatchObject({ observerName: 'Student', changedByName: 'Student' });
    // Whoever gave the card did not record it: an aide of the team may not take it for their own.
    const member = { role: 'educator' as const, rights: null };
    expect(canChangeEntry(member, manager(), await own(), now)).toBe(false);
    const adults = {
      id: randomUUID(),
      goalId: other,
      outcome: { data: { amounts: [{ amount: 6, category: null }] }, reason: null },
      note: '',
    };
    const session = {
      ...{ on: today, time: '10:00', observerId: school.manager, locationId: null },
      entries: [adults],
    };
    await recordSession(fresh.db, manager(), ben, session, { wall, now });
    expect(await pairable(fresh.db, await own())).toEqual([]);
    expect(await pairable(fresh.db, await observationOf(fresh.db, accessTo(ben), adults.id))).toEqual([]);
    const correction = {
      ...{ on: today, time: '10:00', observerId: school.manager, locationId: null, version: 2 },
      ...{ outcome: adults.outcome, note: '', why: 'Counted with him.' },
    };
    await correctObservation(fresh.db, manager(), { studentId: ben, entryId: said.id }, correction, { wall, now });
    expect(await own()).toMatchObject({ observerName: 'Student', changedByName: 'manager', version: 3 });
    // What an adult has put right is not the student's to change any more.
    await expect(saveLog(fresh.db, desk, { ...said, amount: 1 }, at)).rejects.toThrow(Invalid);
  });

  it('makes no figure where the case manager says so, and does again where they take it back', async () => {
    const before = await total();
    await saveLog(fresh.db, desk, log(goal, { amount: 5, category: null }), at);
    expect(await total()).toBe(before + 5);
    await open(goal, false);
    expect(await total()).toBe(0);
    const theirs = (await deskGoals(fresh.db, accessTo(ben))).find(({ goal: { id } }) => id === goal);
    expect((await sessionsByGoal(fresh.db, [theirs!.goal], { inDetail: true })).get(goal)).toBeUndefined();
    await open(goal);
    expect(await total()).toBe(before + 5);
    const kept = await fresh.db('changes').where({ what: 'visibility', student_id: ben }).orderBy('id').pluck('after');
    expect(kept.at(-1)).toMatchObject({ goal: '9', desk: 'log', 'entries count': 'yes' });
  });

  it('refuses what cannot be, with a sentence at the field', async () => {
    const fails = (changes: object) =>
      saveLog(fresh.db, desk, log(goal, changes), at).then(
        () => null,
        (error) => error,
      );
    expect(await fails({ amount: 10_000 })).toMatchObject({
      fields: { amount: expect.stringContaining('the whole 140') },
    });
    expect(await fails({ amount: -3 })).toMatchObject({ fields: { amount: expect.stringContaining('below nothing') } });
    expect(await fails({ category: 'roses' })).toMatchObject({ fields: { amount: expect.any(String) } });
    expect(await fails({ on: '2026-11-25' })).toMatchObject({ fields: { on: expect.stringContaining('to come') } });
    expect(await fails({ on: '2026-11-01' })).toMatchObject({ fields: { on: expect.stringContaining('teacher') } });
    expect(await fails({ goalId: school.goal })).toBeInstanceOf(NotFound);
    // What somebody else recorded is not theirs to change.
    const other = (await fresh.db('entries').whereNot({ student_id: ben }).first('id'))?.id ?? randomUUID();
    if (await fresh.db('entries').where({ id: other }).first())
      expect(await fails({ id: other })).toBeInstanceOf(NotFound);
  });

  it('is opened by whoever may share the report, for goals that take one number', async () => {
    const trials = await addGoal(fresh.db, ben, '10');
    const choice = { goalId: trials, shows: 'log' as const, plain: '', selfCounts: true };
    await expect(saveDeskGoals(fresh.db, manager(), ben, [choice], now)).rejects.toThrow(Invalid);
    const progress = { ...choice, shows: 'progress' as const };
    await expect(saveDeskGoals(fresh.db, actorOf(school.aide), ben, [progress], now)).rejects.toThrow(NotFound);
    await expect(saveDeskGoals(fresh.db, manager(), school.student, [progress], now)).rejects.toThrow(NotFound);
    await saveDeskGoals(fresh.db, manager(), ben, [progress], now);
    await expect(saveLog(fresh.db, desk, log(trials), at)).rejects.toThrow(NotFound);
  });
});

describe('a card', () => {
  it('is one a student: a new one ends the one before, and who may not share makes none', async () => {
    const first = await cardOf(ben);
    const second = await cardOf(ben);
    expect(first.code).not.toBe(second.code);
    expect(await fresh.db('cards').where({ student_id: ben, ended_at: null }).pluck('id')).toEqual([second.id]);
    await expect(makeCards(fresh.db, actorOf(school.aide), [school.student], now)).rejects.toThrow(NotFound);
    await expect(endCard(fresh.db, actorOf(school.stranger), ben, now)).rejects.toThrow(NotFound);
    const [stored] = await fresh.db('cards').where({ id: second.id });
    expect(JSON.stringify(stored)).not.toContain(second.code.split(' ')[0]);
    const changes = await fresh.db('changes').where({ what: 'card', student_id: ben }).orderBy('id').pluck('after');
    expect(changes[0]).toEqual({ card: 'made' });
    expect(changes.at(-1)).toEqual({ card: 'renewed' });
  });

  it('opens a desk that ends with the card, with its student, and when it rests too long', async () => {
    const open = async (studentId: string) => {
      const card = await cardOf(studentId);
      const token = newToken();
      await fresh.db('desk_sessions').insert({
        ...{ id: randomUUID(), card_id: card.id, student_id: studentId, token_hash: hashToken(token) },
        ...{ began_at: now, seen_at: now },
      });
      return token;
    };
    const later = (minutes: number) => new Date(now.getTime() + minutes * 60_000);
    const resting = await open(ben);
    const { shared_idle_minutes: idle } = (await fresh.db('schools').first('shared_idle_minutes'))!;
    expect(await resumeDesk(fresh.db, resting, later(idle - 1))).toMatchObject({ firstName: 'Ben' });
    // It was used at that time: it may rest as long again, and no longer.
    expect(await resumeDesk(fresh.db, resting, later(2 * idle - 2))).not.toBeNull();
    expect(await resumeDesk(fresh.db, resting, later(3 * idle + 2))).toBeNull();

    const leaver = await addStudent(fresh.db, 'Lena', [[school.manager, 'caseManager']]);
    const leaving = await open(leaver);
    expect(await resumeDesk(fresh.db, leaving, now)).toMatchObject({ firstName: 'Lena' });
    await fresh.db('students').where({ id: leaver }).update({ archived_at: now });
    expect(await resumeDesk(fresh.db, leaving, now)).toBeNull();

    const twice = await open(school.student);
    const listed = async () =>
      (await cardsOf(fresh.db, manager(), now)).find(({ studentId }) => studentId === school.student)?.card;
    expect((await listed())?.devices).toBe(1);
    const [session] = await fresh.db('desk_sessions').where({ student_id: school.student, ended_at: null });
    await fresh.db('desk_sessions').insert({ ...session!, id: randomUUID(), token_hash: hashToken(newToken()) });
    expect((await listed())?.devices).toBe(2);
    await endCard(fresh.db, manager(), school.student, now);
    expect(await resumeDesk(fresh.db, twice, now)).toBeNull();
    expect(await listed()).toBeNull();
  });
});

describe('a shared tablet', () => {
  it('lets those sit down who have a card and were named, for its time, and nobody else', async () => {
    await cardOf(ben);
    await endCard(fresh.db, manager(), school.student, now);
    const token = await openTurn(fresh.db, manager(), { studentIds: [ben, school.student], minutes: 30 }, now);
    const later = new Date(now.getTime() + 29 * 60_000);
    expect((await turnOf(fresh.db, token, later)).map(({ studentId }) => studentId)).toEqual([ben]);
    expect(await takeTurn(fresh.db, token, school.student, later)).toBeNull();
    expect(await turnOf(fresh.db, token, new Date(now.getTime() + 31 * 60_000))).toEqual([]);
    expect(await turnOf(fresh.db, 'guessed', now)).toEqual([]);
    const aide = openTurn(fresh.db, actorOf(school.aide), { studentIds: [school.student], minutes: 30 }, now);
    await expect(aide).rejects.toThrow(NotFound);
  });
});
