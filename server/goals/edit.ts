import { isDeepStrictEqual } from 'node:util';
import { type IsoDate, shortDate } from '~/core/calendar/iso-date';
import { definitionFrom, type GoalInput } from '~/core/goals/goal-input';
import type { RetirementInput } from '~/core/goals/retirement-input';
import { meansTheSame } from '~/core/goals/same-meaning';
import type { MeasureDefinition } from '~/core/measures/measure';
import { type Database, isDuplicate } from '../db/database';
import { Invalid, NotFound } from '../failures';
import { hasEntries } from '../observations/read';
import { type Actor, studentFor } from '../students/students';
import { type Goal, goalOf, goalsOf, goalsWorkedOn } from './goals';

/** The label of the phase that begins where a goal is measured in another way. */
const ANEW = 'Measured anew';

/**
 * Adds a goal to a student's plan, after the others. Sent twice, it is one goal.
 *
 * @throws NotFound for who may not set up this student; Invalid where something does not fit
 */
export async function addGoal(db: Database, actor: Actor, studentId: string, input: GoalInput): Promise<void> {
  await numbered(input, () =>
    db.transaction(async (trx) => {
      await studentFor(trx, actor, studentId, 'setUp');
      const known = await trx('goals').where({ id: input.id }).first('student_id');
      if (known?.student_id === studentId) return;
      if (known) throw new NotFound('No such goal.');
      await checkChoices(trx, studentId, input);
      const position = await nextPosition(trx, studentId);
      await trx('goals').insert({ id: input.id, student_id: studentId, position, ...columnsOf(input) });
      await setParts(trx, input, definitionFrom(input).phases);
    }),
  );
}

/**
 * Changes a goal; what it said stays in its history. A change that would make what was recorded mean something else
 * begins a new version from a date: older entries keep theirs, and a phase line shows where it begins.
 *
 * @throws NotFound; Invalid where something does not fit, where someone else changed the goal since `editedAt`, and where
 * the day of a new version is missing
 */
export async function editGoal(
  db: Database,
  actor: Actor,
  studentId: string,
  input: GoalInput,
  now: Date,
): Promise<void> {
  await numbered(input, () =>
    db.transaction(async (trx) => {
      await studentFor(trx, actor, studentId, 'setUp');
      const before = await lockedGoal(trx, studentId, input.id);
      if (before.editedAt !== input.editedAt) {
        if (saysTheSame(input, inputOf(before))) return;
        throw new Invalid({ '': 'Someone changed this goal in the meantime. Open it again to see what it says now.' });
      }
      await checkChoices(trx, studentId, input);
      const version = await newVersion(trx, before, input);
      await keepHistory(trx, actor, before, now);
      await trx('goals')
        .where({ id: input.id })
        .update({ ...columnsOf(input), ...version, edited_at: now });
      await setParts(trx, input, phasesOf(input, version?.version_from));
    }),
  );
}

async function nextPosition(db: Database, studentId: string): Promise<number> {
  const found = await db('goals').where({ student_id: studentId }).max('position as last').first();
  return (found?.last ?? 0) + 1;
}

/** What the form of a goal begins with. */
export function inputOf(goal: Goal): GoalInput {
  const { id, number, area, shortName, wording, measure, criterion, pointPer, baseline, targetOn, startsOn } = goal;
  const { plannedGap, phases, observerIds, settingIds, editedAt } = goal;
  const [baselineValue, baselineOn] = [baseline?.value ?? null, baseline?.on ?? null];
  return {
    ...{ id, number, area, shortName, wording, measure, criterion, pointPer, baselineValue, baselineOn, targetOn },
    ...{ startsOn, plannedGap, phases, observerIds, settingIds, editedAt, newVersionFrom: null },
  };
}

/** Whether a goal says what is asked for already: then it was sent twice. */
function saysTheSame(a: GoalInput, b: GoalInput): boolean {
  const said = ({ editedAt: _, newVersionFrom: __, phases: ___, ...rest }: GoalInput) => rest;
  return isDeepStrictEqual(said(a), said(b));
}

function columnsOf(input: GoalInput) {
  const { number, area, shortName, wording } = input;
  const { measure, criterion, pointPer, baseline, target, targetOn, startsOn, plannedGap } = definitionFrom(input);
  return {
    number,
    area,
    short_name: shortName,
    wording,
    measure: JSON.stringify(measure),
    criterion: JSON.stringify(criterion),
    point_per: pointPer,
    baseline_value: baseline?.value ?? null,
    baseline_on: baseline?.on ?? null,
    target,
    target_on: targetOn,
    starts_on: startsOn,
    planned_gap: plannedGap,
  };
}

/** Says at the number's field when another goal has it. */
async function numbered(input: { number: string }, command: () => Promise<void>): Promise<void> {
  try {
    await command();
  } catch (error) {
    if (!isDuplicate(error, 'goals_number')) throw error;
    throw new Invalid({ number: `Another goal has the number ${input.number}. A retired goal keeps its own.` });
  }
}

async function lockedGoal(db: Database, studentId: string, goalId: string): Promise<Goal> {
  await db('goals').where({ id: goalId, student_id: studentId }).forUpdate().first('id');
  return goalOf(db, studentId, goalId);
}

/** The columns of a new version, when this change begins one. */
async function newVersion(db: Database, before: Goal, input: GoalInput) {
  if (meansTheSame(before.measure, input.measure)) return null;
  if (!(await hasEntries(db, before.id, before.version))) return null;
  if (input.newVersionFrom === null) {
    const newVersionFrom =
      'This changes what is recorded. Say from which day it holds: entries from before keep how they were measured.';
    throw new Invalid({ newVersionFrom });
  }
  await db('goal_versions').insert({
    goal_id: before.id,
    version: before.version,
    measure: JSON.stringify(before.measure satisfies MeasureDefinition),
  });
  return { version: before.version + 1, version_from: input.newVersionFrom };
}

function phasesOf(input: GoalInput, from: IsoDate | undefined) {
  const { phases } = definitionFrom(input);
  if (!from || phases.some(({ startsOn }) => startsOn === from)) return phases;
  return [...phases, { label: ANEW, startsOn: from, isBaseline: false }];
}

async function keepHistory(db: Database, actor: Actor, before: Goal, now: Date): Promise<void> {
  const content = JSON.stringify(before);
  await db('goal_history').insert({ goal_id: before.id, content, changed_by: actor.personId, changed_at: now });
}

async function checkChoices(db: Database, studentId: string, { observerIds, settingIds }: GoalInput): Promise<void> {
  const isKnown = async (table: string, column: string, ids: string[], where: object) =>
    (await db(table).where(where).whereIn(column, ids).select(column)).length === new Set(ids).size;
  if (!(await isKnown('team_members', 'person_id', observerIds, { student_id: studentId }))) {
    throw new Invalid({ observerIds: 'Choose people from the support team.' });
  }
  if (!(await isKnown('settings', 'id', settingIds, {})))
    throw new Invalid({ settingIds: 'Choose places from the list.' });
}

/** Phases, observers and places: what a goal has several of. */
async function setParts(db: Database, input: GoalInput, phases: Goal['phases']): Promise<void> {
  const goal_id = input.id;
  const parts = {
    goal_phases: phases.map(({ label, startsOn, isBaseline }) => ({
      goal_id,
      label,
      starts_on: startsOn,
      is_baseline: isBaseline,
    })),
    goal_observers: [...new Set(input.observerIds)].map((person_id) => ({ goal_id, person_id })),
    goal_settings: [...new Set(input.settingIds)].map((setting_id) => ({ goal_id, setting_id })),
  };
  for (const [table, rows] of Object.entries(parts)) {
    await db(table).where({ goal_id }).delete();
    if (rows.length > 0) await db(table).insert(rows);
  }
}

/**
 * Puts the goals that are worked on in another order.
 *
 * @param goalIds  all of them, in their new order; others are passed over
 * @throws NotFound for who may not set up this student
 */
export async function arrangeGoals(
  db: Database,
  actor: Actor,
  studentId: string,
  goalIds: readonly string[],
): Promise<void> {
  await db.transaction(async (trx) => {
    await studentFor(trx, actor, studentId, 'setUp');
    await trx.raw(
      `update goals g set position = wanted.at
         from unnest(cast(? as uuid[])) with ordinality as wanted(id, at)
        where g.id = wanted.id and g.student_id = ? and g.retired_on is null`,
      [[...goalIds], studentId],
    );
  });
}

/**
 * Retires a goal: it leaves what is worked on, and all that was recorded stays. Sent twice, it is retired once.
 *
 * @throws NotFound; Invalid where it is not said which goal takes its place
 */
export async function retireGoal(
  db: Database,
  actor: Actor,
  studentId: string,
  { goalId, on, how, replacedBy, note }: RetirementInput,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    await studentFor(trx, actor, studentId, 'setUp');
    const before = await lockedGoal(trx, studentId, goalId);
    if (before.retired !== null) return;
    const others = goalsWorkedOn(await goalsOf(trx, [studentId])).filter(({ id }) => id !== goalId);
    if (how === 'replaced' && !others.some(({ id }) => id === replacedBy)) {
      throw new Invalid({ replacedBy: 'Choose the goal that takes its place.' });
    }
    if (on > actor.today) throw new Invalid({ on: 'This lies in the future.' });
    if (on < before.startsOn) throw new Invalid({ on: `This goal began on ${shortDate(before.startsOn)}.` });
    await keepHistory(trx, actor, before, now);
    await trx('goals')
      .where({ id: goalId })
      .update({
        retired_on: on,
        retired_how: how,
        replaced_by: how === 'replaced' ? replacedBy : null,
        retired_note: note,
        edited_at: now,
      });
  });
}

/**
 * Takes a retired goal up again, after the others.
 *
 * @throws NotFound; Invalid when another goal has its number by now
 */
export async function bringGoalBack(
  db: Database,
  actor: Actor,
  studentId: string,
  goalId: string,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    await studentFor(trx, actor, studentId, 'setUp');
    const before = await lockedGoal(trx, studentId, goalId);
    if (before.retired === null) return;
    const current = goalsWorkedOn(await goalsOf(trx, [studentId]));
    if (current.some(({ number }) => number === before.number)) {
      throw new Invalid({
        goalId: `Another goal has the number ${before.number} now. Give that one another number first.`,
      });
    }
    await keepHistory(trx, actor, before, now);
    await trx('goals')
      .where({ id: goalId })
      .update({
        retired_on: null,
        retired_how: null,
        replaced_by: null,
        retired_note: '',
        position: await nextPosition(trx, studentId),
        edited_at: now,
      });
  });
}

export interface EarlierGoal {
  /** The day on which it was changed into what came next. */
  until: Date;
  changedBy: string;
  goal: Goal;
}

/** What a goal said before each of its changes, the newest first. Ask `studentFor` first. */
export async function earlierGoals(db: Database, goalId: string): Promise<EarlierGoal[]> {
  const rows = await db('goal_history as h')
    .join('people as p', 'p.id', 'h.changed_by')
    .where({ goal_id: goalId })
    .orderBy('h.id', 'desc')
    .select<{ content: Goal; changed_at: Date; name: string }[]>('h.content', 'h.changed_at', 'p.name');
  return rows.map(({ content, changed_at, name }) => ({ until: changed_at, changedBy: name, goal: content }));
}
