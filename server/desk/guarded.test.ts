// The desk as the application's own role has it: what the database shows at one student's door, and to the people of a school.
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import {
  accessTo,
  actorOf,
  addGoal,
  addStudent,
  now,
  type SmallSchool,
  smallSchool,
} from '~/tests/database/small-school';
import { hashToken } from '../people/tokens';
import { type Asking, tell } from '../platform/db/asking';
import { connect, type Database } from '../platform/db/database';
import { beginSession, makeCards, type NewCard, studentAtDesk } from './cards';
import { visibleStudents } from './live';
import { saveDeskGoals } from './log';
import { sayStep } from './steps';
import { openTurn, turnOf } from './turns';
import { saveWork } from './works';

const fresh = freshDatabase();
let app: Database;
let school: SmallSchool;
let ada: string;
let ben: string;
let cards: { ada: NewCard; ben: NewCard };
const work = { id: randomUUID(), title: 'Bird house', steps: [{ id: randomUUID(), title: 'Cut', hint: '' }] };
const bens = { id: randomUUID(), title: 'Cake', steps: [{ id: randomUUID(), title: 'Stir', hint: '' }] };

const as = <Result>(who: Asking, what: (db: Database) => Promise<Result>) =>
  app.transaction(async (trx) => {
    await tell(trx, who);
    return what(trx);
  });
const person = (id: string): Asking => actorOf(id);

/** A student with work, a goal at the desk, a card, an open desk and something said of a step. */
async function lesson(manager: string, student: string, given: typeof work): Promise<NewCard> {
  const actor = actorOf(manager);
  await saveWork(fresh.db, actor, { ...given, studentIds: [student] }, now);
  const goal = await addGoal(fresh.db, student, '8');
  const choice = { goalId: goal, shows: 'progress' as const, plain: 'My goal', selfCounts: true };
  await saveDeskGoals(fresh.db, actor, student, [choice], now);
  const [card] = await makeCards(fresh.db, actor, [student], now);
  const { id: cardId } = (await fresh.db('cards').where({ student_id: student, ended_at: null }).first('id'))!;
  await beginSession(fresh.db, { cardId, studentId: student }, now);
  const said = { id: randomUUID(), workId: given.id, stepId: given.steps[0]!.id, word: '', at: now.getTime() };
  await sayStep(fresh.db, { studentId: accessTo(student), cardId }, { ...said, state: 'atIt' }, now);
  await fresh.db('work_state_seen').insert({ state_id: said.id, student_id: student, seen_by: manager, seen_at: now });
  return card!;
}

beforeAll(async () => {
  school = await smallSchool(fresh.db);
  app = connect(fresh.url, { poolSize: 1, as: 'app' });
  ada = school.student;
  // Ben is the stranger's student: nobody of Ada's team has to do with him.
  ben = await addStudent(fresh.db, 'Ben', [[school.stranger, 'caseManager']]);
  cards = {
    ada: await lesson(school.manager, ada, work),
    ben: await lesson(school.stranger, ben, bens),
  };
  await openTurn(fresh.db, actorOf(school.manager), { studentIds: [ada], minutes: 30 }, now);
});
afterAll(() => app.destroy());

const ofStudents = ['cards', 'desk_sessions', 'desk_goals', 'student_works', 'work_states', 'work_state_seen'] as const;

describe('at a student’s door', () => {
  for (const table of ofStudents) {
    it(`${table} has that student’s rows, and no other’s`, async () => {
      const seen = await as({ doorTo: ada }, (db) => db(table).pluck('student_id'));
      expect(seen.length).toBeGreaterThan(0);
      expect(new Set(seen)).toEqual(new Set([ada]));
    });
  }

  it('works and their steps are those that the student has', async () => {
    const titles = (table: 'works' | 'work_steps') => as({ doorTo: ada }, (db) => db(table).pluck('title'));
    expect(await titles('works')).toEqual(['Bird house']);
    expect(await titles('work_steps')).toEqual(['Cut']);
  });

  it('nothing can be said of another student’s work, nor in their name', async () => {
    const { id: cardId } = (await fresh.db('cards').where({ student_id: ben }).first('id'))!;
    const row = {
      ...{ id: randomUUID(), student_id: ben, work_id: bens.id, step_id: bens.steps[0]!.id, state: 'done' as const },
      ...{ at: now, received_at: now, card_id: cardId },
    };
    await expect(as({ doorTo: ada }, (db) => db('work_states').insert(row))).rejects.toThrow('row-level security');
    expect(await fresh.db('work_states').where({ student_id: ben }).pluck('state')).toEqual(['atIt']);
  });
});

describe('to people', () => {
  it('a team sees its own students’ desks, and a stranger none of them', async () => {
    for (const table of ofStudents) {
      const seen = await as(person(school.aide), (db) => db(table).pluck('student_id'));
      expect(new Set(seen), table).toEqual(new Set([ada]));
    }
    expect(await as(person(school.aide), visibleStudents)).toEqual([ada]);
    expect(await as(person(school.stranger), visibleStudents)).toEqual([ben]);
    expect(await as(person(school.aide), (db) => db('works').pluck('title'))).toEqual(['Bird house']);
  });

  it('a shared tablet’s opening is known to whoever opened it', async () => {
    expect(await as(person(school.manager), (db) => db('desk_turns').pluck('opened_by'))).toEqual([school.manager]);
    expect(await as(person(school.stranger), (db) => db('desk_turns').pluck('id'))).toEqual([]);
  });

  it('what was said stays: it is neither changed nor taken away, by anybody', async () => {
    for (const table of ['work_states', 'work_state_seen'] as const) {
      await expect(as(person(school.manager), (db) => db(table).delete())).rejects.toThrow('permission denied');
    }
    await expect(as(person(school.manager), (db) => db('work_states').update({ word: 'x' }))).rejects.toThrow(
      'permission denied',
    );
    await expect(as(person(school.manager), (db) => db('cards').delete())).rejects.toThrow('permission denied');
    await expect(as(person(school.manager), (db) => db('works').delete())).rejects.toThrow('permission denied');
  });
});

describe('to whoever has said nothing of who they are', () => {
  it('no row is there, but where a secret leads', async () => {
    for (const table of ofStudents) expect(await app(table).pluck('student_id'), table).toEqual([]);
    const behind = async (hash: Buffer) =>
      (await app.raw<{ rows: { student_id: string }[] }>('select student_id from student_behind(?)', [hash])).rows;
    expect(await behind(hashToken(cards.ben.token))).toEqual([{ student_id: ben }]);
    expect(await behind(hashToken(`words ${cards.ben.code}`))).toEqual([{ student_id: ben }]);
    // Words typed where the square code belongs, and the other way round, lead nowhere.
    expect(await behind(hashToken(cards.ben.code))).toEqual([]);
    expect(await behind(hashToken(`words ${cards.ben.token}`))).toEqual([]);
    expect(await studentAtDesk(app, 'guessed')).toBeNull();
    expect(await turnOf(app, 'guessed', now)).toEqual([]);
  });

  it('a tablet’s token tells whose turn it may be, and nothing after its time', async () => {
    const token = await openTurn(fresh.db, actorOf(school.stranger), { studentIds: [ben], minutes: 30 }, now);
    expect(await turnOf(app, token, now)).toMatchObject([{ studentId: ben, firstName: 'Ben', initials: 'BE' }]);
    expect(await turnOf(app, token, new Date(now.getTime() + 30 * 60_000))).toEqual([]);
  });
});

describe('the rows of a desk', () => {
  it('cannot disagree: a step is of its work, work of its student, and one card is open at a time', async () => {
    const { id: cardId } = (await fresh.db('cards').where({ student_id: ada, ended_at: null }).first('id'))!;
    const said = (changes: object) =>
      fresh.db('work_states').insert({
        ...{ id: randomUUID(), student_id: ada, work_id: work.id, step_id: work.steps[0]!.id, state: 'done' as const },
        ...{ at: now, received_at: now, card_id: cardId },
        ...changes,
      });
    await expect(said({ step_id: bens.steps[0]!.id })).rejects.toThrow('foreign key');
    await expect(said({ work_id: bens.id, step_id: bens.steps[0]!.id })).rejects.toThrow('foreign key');
    await expect(said({ state: 'bored' })).rejects.toThrow('check constraint');
    await expect(said({ word: 'x'.repeat(201) })).rejects.toThrow('check constraint');
    const card = { id: randomUUID(), student_id: ada, made_by: school.manager, made_at: now };
    const second = fresh.db('cards').insert({ ...card, token_hash: Buffer.from('a'), code_hash: Buffer.from('b') });
    await expect(second).rejects.toThrow('cards_one_a_student');
    const turn = { id: randomUUID(), token_hash: Buffer.from('c'), opened_by: school.manager, opened_at: now };
    await expect(fresh.db('desk_turns').insert({ ...turn, ends_at: now })).rejects.toThrow('check constraint');
  });

  it('open no goal at another student’s desk', async () => {
    const { goal_id } = (await fresh.db('desk_goals').where({ student_id: ben }).first('goal_id'))!;
    const other = await addGoal(fresh.db, ben, '9');
    const row = { goal_id: other, student_id: ada, shows: 'log' as const, plain: '' };
    await expect(fresh.db('desk_goals').insert(row)).rejects.toThrow('foreign key');
    await expect(fresh.db('desk_goals').where({ goal_id }).update({ student_id: ada })).rejects.toThrow('foreign key');
  });
});
