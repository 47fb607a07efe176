import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { boardRows } from '~/core/desk/board';
import type { StepState, WorkInput } from '~/core/desk/steps';
import { freshDatabase } from '~/tests/database/fresh';
import { accessTo, actorOf, addStudent, now, type SmallSchool, smallSchool } from '~/tests/database/small-school';
import { hashToken, newToken } from '../people/tokens';
import { Invalid, NotFound } from '../platform/failures';
import { boardOf, markSeen } from './board';
import { cardsOf, endCard, makeCards, resumeDesk } from './cards';
import { deskWorks, sayStep } from './steps';
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
    expect(changes).toEqual([{ card: 'made' }, { card: 'renewed' }]);
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
