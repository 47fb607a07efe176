import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { type GoalInput, goalInput } from '~/core/goals/goal-input';
import type { MeasureDefinition } from '~/core/measures/measure';
import { asPerson } from '~/tests/database/as-person';
import { emptied } from '~/tests/database/emptied';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addGoal,
  addStudent,
  now,
  type SmallSchool,
  schoolId,
  sessionOf,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { recordSession } from '../entries/record';
import { Invalid, NotFound } from '../platform/failures';
import { progressOfGoals } from '../progress/progress';
import { schoolOf } from '../school/school';
import { deleteGoal, takeBackGoals } from './delete';
import { addGoal as add, arrangeGoals, bringGoalBack, editGoal, inputOf, retireGoal } from './edit';
import { goalsInBank, putInGoalBank, takeFromGoalBank } from './goal-bank';
import { earlierGoals, goalOf, goalsOf, goalsWorkedOn } from './goals';

const fresh = freshDatabase();
let school: SmallSchool;
beforeEach(async () => {
  await emptied(fresh.db);
  school = await smallSchool(fresh.db);
});

const manager = () => actorOf(school.manager);
const current = () => goalOf(fresh.db, school.student, school.goal);
const edit = async (changes: Partial<GoalInput>, at = now) =>
  editGoal(fresh.db, manager(), school.student, goalInput.parse({ ...inputOf(await current()), ...changes }), at);
const fieldsOf = (promise: Promise<unknown>) =>
  promise.then(
    () => 'nothing was refused',
    (error) => (error instanceof Invalid ? Object.keys(error.fields) : error),
  );
const withoutGesture = async (): Promise<MeasureDefinition> => {
  const { measure } = await current();
  if (measure.kind !== 'trials') throw new Error('a goal of trials was expected');
  return { ...measure, levels: measure.levels.filter(({ key }) => key !== 'gesture'), mostSupport: 'independent' };
};
const record = (trials: string[], goalVersion?: number) => {
  const session = sessionOf(school, trials);
  const entries = session.entries.map((entry) => ({ ...entry, ...(goalVersion && { goalVersion }) }));
  return recordSession(fresh.db, manager(), school.student, { ...session, entries }, { wall, now });
};

describe('a goal', () => {
  it('is added once, at the end, with its wording kept to the letter', async () => {
    const wording = '  Ada will plant:\n– beans\n– peas 🌱 ‏עברית\n';
    const input = goalInput.parse({
      ...inputOf(await current()),
      id: randomUUID(),
      number: '2',
      wording,
      editedAt: null,
    });
    await add(fresh.db, manager(), school.student, input);
    await add(fresh.db, manager(), school.student, input);
    const goals = await goalsOf(fresh.db, [school.student]);
    expect(goals.map(({ number }) => number)).toEqual(['1', '2']);
    expect(goals[1]?.wording).toBe(wording);
    expect(await fieldsOf(add(fresh.db, manager(), school.student, { ...input, id: randomUUID() }))).toEqual([
      'number',
    ]);
    const ben = await addStudent(fresh.db, 'Ben', [[school.manager, 'caseManager']]);
    await expect(add(fresh.db, manager(), ben, input)).rejects.toThrow(NotFound);
  });

  it('is the case manager’s to change', async () => {
    const input = inputOf(await current());
    for (const person of [school.aide, school.stranger]) {
      await expect(editGoal(fresh.db, actorOf(person), school.student, input, now)).rejects.toThrow(NotFound);
      await expect(arrangeGoals(fresh.db, actorOf(person), school.student, [school.goal])).rejects.toThrow(NotFound);
    }
  });

  it('keeps what it said before a change', async () => {
    await edit({ wording: 'Plants along a string, alone.', number: '1a' });
    expect((await current()).number).toBe('1a');
    const earlier = await earlierGoals(fresh.db, school.goal);
    expect(earlier.map(({ goal, changedBy }) => [goal.wording, changedBy])).toEqual([
      ['Plants along a string.', 'manager'],
    ]);
    await expect(fresh.db('goal_revisions').delete()).rejects.toThrow();
  });

  it('knows since when its target is another, and of no other change', async () => {
    await edit({ shortName: 'Plants beans' });
    expect((await current()).targetSince).toBeNull();
    const { criterion } = inputOf(await current());
    await edit({ criterion: { ...criterion, value: criterion.value + 5 } });
    expect((await current()).targetSince).toBe(now.toISOString().slice(0, 10));
  });

  it('is not changed from under someone, and a change sent twice is one', async () => {
    const opened = inputOf(await current());
    await edit({ shortName: 'Plants beans' });
    const late = { ...opened, shortName: 'Plants peas' };
    expect(await fieldsOf(editGoal(fresh.db, manager(), school.student, late, now))).toEqual(['']);
    await editGoal(fresh.db, manager(), school.student, { ...opened, shortName: 'Plants beans' }, now);
    expect(await earlierGoals(fresh.db, school.goal)).toHaveLength(1);
  });

  it('names observers and places that there are', async () => {
    expect(await fieldsOf(edit({ observerIds: [school.stranger] }))).toEqual(['observerIds']);
    expect(await fieldsOf(edit({ locationIds: [randomUUID()] }))).toEqual(['locationIds']);
    await edit({ observerIds: [school.aide], locationIds: [school.kitchen] });
    expect(await current()).toMatchObject({ observerIds: [school.aide], locationIds: [school.kitchen] });
  });
});

describe('a change that makes old data mean something else', () => {
  it('is a plain change while nothing is recorded, or where only names change', async () => {
    await edit({ measure: await withoutGesture() });
    expect((await current()).version).toBe(1);
    await record(['independent']);
    const { measure } = await current();
    await edit({ measure: { ...measure, opportunity: { one: 'bean', many: 'beans' } } as MeasureDefinition });
    expect((await current()).version).toBe(1);
  });

  it('leaves the support and its steps in place', async () => {
    await record(['gesture', 'gesture', 'spoken', 'spoken']);
    const steps = [{ key: 'step1', label: 'Card on the bench' }];
    await edit({ phases: [{ label: 'Job card', startsOn: '2026-10-01', isBaseline: false, steps }] });
    await edit({ measure: await withoutGesture(), newVersionFrom: today });
    const { phases } = await current();
    expect(phases.map(({ label, steps: own }) => [label, own])).toEqual([
      ['Job card', steps],
      ['Measurement changed', steps],
    ]);
  });

  it('begins a new version from a day; old entries keep theirs, also one that waited on a device', async () => {
    await record(['gesture', 'gesture', 'spoken', 'spoken']);
    expect(await fieldsOf(edit({ measure: await withoutGesture() }))).toEqual(['newVersionFrom']);
    await edit({ measure: await withoutGesture(), newVersionFrom: today });
    const goal = await current();
    expect(goal).toMatchObject({ version: 2, phases: [{ label: 'Measurement changed', startsOn: today }] });
    expect(await fieldsOf(record(['gesture'], 2))).toEqual([`goal.${school.goal}`]);
    const late = await record(['gesture', 'independent'], 1);
    expect(await fresh.db('entries').where({ id: late.ids[0] }).first('measure_version')).toEqual({
      measure_version: 1,
    });
    await expect(record(['independent'], 3)).rejects.toThrow(NotFound);
    // 4 chances with 2 successes, then 2 with 2: pooled by the old measure, 4 of 6.
    const progress = await progressOfGoals(fresh.db, [goal], { school: await schoolOf(fresh.db, schoolId), today });
    expect(progress.get(goal.id)?.points).toMatchObject([{ isFormer: true, amount: 4, weight: 6 }]);
  });
});

describe('the goals of a plan', () => {
  it('stand in the order they are put in', async () => {
    const second = await addGoal(fresh.db, school.student, '2');
    const order = async () => (await goalsOf(fresh.db, [school.student])).map(({ id }) => id);
    await arrangeGoals(fresh.db, manager(), school.student, [second, school.goal, randomUUID()]);
    expect(await order()).toEqual([second, school.goal]);
  });

  it('are retired and brought back with all that was recorded', async () => {
    await record(['independent']);
    const second = await addGoal(fresh.db, school.student, '2');
    const retire = (changes: object) =>
      retireGoal(
        fresh.db,
        manager(),
        school.student,
        { goalId: school.goal, on: today, how: 'replaced', replacedBy: second, note: 'Moved on.', ...changes },
        now,
      );
    expect(await fieldsOf(retire({ replacedBy: school.goal }))).toEqual(['replacedBy']);
    expect(await fieldsOf(retire({ on: '2026-12-01' }))).toEqual(['on']);
    expect(await fieldsOf(retire({ on: '2026-09-01' }))).toEqual(['on']);
    await retire({});
    const goals = await goalsOf(fresh.db, [school.student]);
    expect(goalsWorkedOn(goals).map(({ id }) => id)).toEqual([second]);
    expect((await current()).retired).toEqual({ on: today, how: 'replaced', replacedBy: second, note: 'Moved on.' });
    expect(await fresh.db('entries').where({ goal_id: school.goal })).toHaveLength(1);

    const namesake = await addGoal(fresh.db, school.student, '1');
    const back = () => bringGoalBack(fresh.db, manager(), school.student, school.goal, now);
    expect(await fieldsOf(back())).toEqual(['goalId']);
    await fresh.db('goals').where({ id: namesake }).update({ number: '3' });
    await back();
    expect((await current()).retired).toBeNull();
  });
});

describe('a goal of which nothing was recorded', () => {
  const typed = (goalId: string, typedName: string, who = manager()) =>
    asPerson(fresh.db, who.personId, (trx) => deleteGoal(trx, who, school.student, { goalId, typedName }, now));

  it('is deleted where its name is typed, and leaves that in the change log', async () => {
    const second = await addGoal(fresh.db, school.student, '2', { short_name: 'Waters beds' });
    expect(await fieldsOf(typed(second, 'Beds'))).toEqual(['typedName']);
    await expect(typed(second, 'Waters beds', actorOf(school.aide))).rejects.toThrow(NotFound);
    await typed(second, ' waters BEDS ');
    expect((await goalsOf(fresh.db, [school.student])).map(({ id }) => id)).toEqual([school.goal]);
    const [change] = await fresh.db('changes').where({ what: 'goal' });
    expect(change).toMatchObject({ student_id: school.student, before: { goal: 'Waters beds' }, after: null });
    await expect(typed(second, 'Waters beds')).rejects.toThrow(NotFound);
  });

  it('stays once something was recorded, withdrawn or without a score, or another goal names it; and is not met without a score', async () => {
    const goal = await current();
    const met = { goalId: goal.id, on: today, how: 'met', replacedBy: null, note: '' } as const;
    expect(await fieldsOf(retireGoal(fresh.db, manager(), school.student, met, now))).toEqual(['how']);
    const before = await addGoal(fresh.db, school.student, '2');
    await fresh.db('goals').where({ id: goal.id }).update({ continues: before });
    const { short_name } = await fresh
      .db('goals')
      .where({ id: before })
      .first()
      .then((row) => row!);
    expect(await fieldsOf(typed(before, short_name))).toEqual(['typedName']);
    const session = sessionOf(school, []);
    const entries = session.entries.map((entry) => ({ ...entry, outcome: { data: null, reason: 'absent' as const } }));
    await recordSession(fresh.db, manager(), school.student, { ...session, entries }, { wall, now });
    expect(await fieldsOf(typed(goal.id, goal.shortName))).toEqual(['typedName']);
    expect(await fieldsOf(retireGoal(fresh.db, manager(), school.student, met, now))).toEqual(['how']);
    expect(
      await fieldsOf(
        asPerson(fresh.db, school.manager, (trx) => takeBackGoals(trx, manager(), [before, goal.id], now)),
      ),
    ).toEqual(['typedName']);
    expect(await fresh.db('goals')).toHaveLength(2);
    expect(await fresh.db('goal_measures')).toHaveLength(2);
    await record(['independent']);
    await retireGoal(fresh.db, manager(), school.student, met, now);
    expect((await current()).retired).toMatchObject({ how: 'met' });
  });
});

describe('the goal bank', () => {
  it('holds a school’s own goals above those that come with the product', async () => {
    const before = await goalsInBank(fresh.db, manager());
    expect(new Set(before.map(({ goal }) => goal.measure.kind)).size).toBe(11);
    const { area, wording, measure, criterion } = await current();
    const own = { id: randomUUID(), goal: { name: 'Plants', area, wording, measure, criterion } };
    await putInGoalBank(fresh.db, manager(), school.student, own, now);
    await putInGoalBank(fresh.db, manager(), school.student, own, now);
    await expect(putInGoalBank(fresh.db, actorOf(school.aide), school.student, own, now)).rejects.toThrow(NotFound);
    expect((await goalsInBank(fresh.db, manager())).map(({ id }) => id)).toEqual([
      own.id,
      ...before.map(({ id }) => id),
    ]);
    await expect(takeFromGoalBank(fresh.db, actorOf(school.aide), own.id, now)).rejects.toThrow(NotFound);
    await takeFromGoalBank(fresh.db, manager(), own.id, now);
    expect(await goalsInBank(fresh.db, manager())).toHaveLength(before.length);
  });
});
