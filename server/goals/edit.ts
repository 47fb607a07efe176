import { isDeepStrictEqual } from 'node:util';
import { type IsoDate, shortDate } from '~/core/calendar/iso-date';
import { supportStepsOn } from '~/core/goals/goal';
import { definitionFrom, type GoalInput } from '~/core/goals/goal-input';
import type { RetirementInput } from '~/core/goals/retirement-input';
import { meansTheSame } from '~/core/goals/same-meaning';
import type { MeasureDefinition } from '~/core/measures/measure';
import { type Database, isDuplicate } from '../platform/db/database';
import { Invalid, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';
import { planRow } from '../students/plan';
import { requireStudent } from '../students/students';
import {
  criterionColumns,
  type Goal,
  goalOf,
  goalsOf,
  goalsWorkedOn,
  hasEntries,
  keepGoalRevision,
  NOT_MET,
  recordedGoals,
} from './goals';

/** The label of the phase that begins where a goal is measured in another way. */
const ANEW = 'Measurement changed';

/**
 * Adds a goal to a student's plan, after the others. Sent twice, it is one goal.
 *
 * @throws NotFound for someone who may not edit this student’s goals; Invalid where something does not fit
 */
export async function addGoal(db: Database, actor: Actor, studentId: string, input: GoalInput): Promise<void> {
  await numbered(input, () =>
    db.transaction(async (trx) => {
      const access = (await requireStudent(trx, actor, studentId, 'editGoals')).id;
      const known = await trx('goals').where({ id: input.id }).first('student_id');
      if (known?.student_id === studentId) return;
      if (known) throw new NotFound('No such goal.');
      await checkChoices(trx, actor, studentId, input);
      const position = await nextPosition(trx, studentId);
      await trx('goals').insert({
        ...{ id: input.id, student_id: studentId, plan_id: await planFor(trx, access, actor.today), position },
        ...columnsOf(input),
      });
      await addMeasure(trx, input, 1, input.startsOn);
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
      const access = (await requireStudent(trx, actor, studentId, 'editGoals')).id;
      const before = await lockedGoal(trx, access, input.id);
      if (before.editedAt !== input.editedAt) {
        if (saysTheSame(input, inputOf(before))) return;
        throw new Invalid({ '': 'Someone changed this goal in the meantime. Open it again to see what it says now.' });
      }
      await checkChoices(trx, actor, studentId, input);
      await keepGoalRevision(trx, input.id, actor.personId, now);
      const version = await writeMeasure(trx, before, input);
      await trx('goals')
        .where({ id: input.id })
        .update({ ...columnsOf(input), measure_version: version, edited_at: now });
      const anewFrom = version > before.version ? (input.newVersionFrom ?? undefined) : undefined;
      await setParts(trx, input, phasesOf(input, anewFrom));
    }),
  );
}

async function nextPosition(db: Database, studentId: string): Promise<number> {
  const found = await db('goals').where({ student_id: studentId }).orderBy('position', 'desc').first('position');
  return (found?.position ?? 0) + 1;
}

/** What the form of a goal begins with. */
export function inputOf(goal: Goal): GoalInput {
  const { id, number, area, shortName, wording, measure, criterion, pointPer, baseline, targetOn, startsOn } = goal;
  const { plannedGap, phases, observerIds, locationIds, editedAt } = goal;
  const [baselineValue, baselineOn] = [baseline?.value ?? null, baseline?.on ?? null];
  return {
    ...{ id, number, area, shortName, wording, measure, criterion, pointPer, baselineValue, baselineOn, targetOn },
    ...{ startsOn, plannedGap, phases, observerIds, locationIds, editedAt, newVersionFrom: null },
  };
}

/** Whether a goal says what is asked for already: then it was sent twice. */
function saysTheSame(a: GoalInput, b: GoalInput): boolean {
  const said = ({ editedAt: _, newVersionFrom: __, phases: ___, ...rest }: GoalInput) => rest;
  return isDeepStrictEqual(said(a), said(b));
}

function columnsOf(input: GoalInput) {
  const { number, area, shortName, wording } = input;
  const { criterion, pointPer, baseline, target, targetOn, startsOn, plannedGap } = definitionFrom(input);
  return {
    number,
    area,
    short_name: shortName,
    wording,
    ...criterionColumns(criterion),
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

async function lockedGoal(db: Database, studentId: StudentAccess<'read'>, goalId: string): Promise<Goal> {
  await db('goals').where({ id: goalId, student_id: studentId }).forUpdate().first('id');
  return goalOf(db, studentId, goalId);
}

/**
 * Writes down how the goal is measured from now on. Where that means what it meant, or nothing was recorded yet, the present version
 * is only worded anew; else another one begins.
 *
 * @returns the version under which the goal is measured now
 * @throws Invalid where the day of a new version is missing
 */
async function writeMeasure(db: Database, before: Goal, input: GoalInput): Promise<number> {
  const { measure } = definitionFrom(input);
  const means = meansTheSame(before.measure, input.measure);
  if (means || !(await hasEntries(db, before.id, before.version))) {
    await db('goal_measures')
      .where({ goal_id: before.id, version: before.version })
      .update({ measure: JSON.stringify(measure) });
    return before.version;
  }
  if (input.newVersionFrom === null) {
    const newVersionFrom =
      'This changes what is recorded. Say from which day it holds: entries from before keep how they were measured.';
    throw new Invalid({ newVersionFrom });
  }
  await addMeasure(db, input, before.version + 1, input.newVersionFrom);
  return before.version + 1;
}

async function addMeasure(db: Database, input: GoalInput, version: number, from: IsoDate): Promise<void> {
  const { measure } = definitionFrom(input);
  await db('goal_measures').insert({
    ...{ goal_id: input.id, version, from_date: from },
    measure: JSON.stringify(measure satisfies MeasureDefinition),
  });
}

/** The plan that a goal is written for: the present one, or the nearest. */
async function planFor(db: Database, studentId: StudentAccess<'read'>, today: IsoDate): Promise<string | null> {
  return (await planRow(db, studentId, today))?.id ?? null;
}

function phasesOf(input: GoalInput, from: IsoDate | undefined) {
  const { phases } = definitionFrom(input);
  if (!from || phases.some(({ startsOn }) => startsOn === from)) return phases;
  return [...phases, { label: ANEW, startsOn: from, isBaseline: false, steps: supportStepsOn(phases, from) }];
}

async function checkChoices(
  db: Database,
  { schoolId }: Actor,
  studentId: string,
  { observerIds, locationIds }: GoalInput,
): Promise<void> {
  const isKnown = async (table: string, column: string, ids: string[], where: object) =>
    (await db(table).where(where).whereIn(column, ids).distinct(column)).length === new Set(ids).size;
  if (!(await isKnown('team_members', 'person_id', observerIds, { student_id: studentId }))) {
    throw new Invalid({ observerIds: 'Choose people from the support team.' });
  }
  if (!(await isKnown('locations', 'id', locationIds, { school_id: schoolId })))
    throw new Invalid({ locationIds: 'Choose locations from the list.' });
}

/** Phases, observers and places: what a goal has several of. */
async function setParts(db: Database, input: GoalInput, phases: Goal['phases']): Promise<void> {
  const goal_id = input.id;
  const parts = {
    goal_phases: phases.map(({ label, startsOn, isBaseline, steps = [] }) => ({
      goal_id,
      label,
      starts_on: startsOn,
      is_baseline: isBaseline,
      steps: JSON.stringify(steps),
    })),
    goal_observers: [...new Set(input.observerIds)].map((person_id) => ({ goal_id, person_id })),
    goal_locations: [...new Set(input.locationIds)].map((location_id) => ({ goal_id, location_id })),
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
 * @throws NotFound for someone who may not edit this student’s goals
 */
export async function arrangeGoals(
  db: Database,
  actor: Actor,
  studentId: string,
  goalIds: readonly string[],
): Promise<void> {
  await db.transaction(async (trx) => {
    await requireStudent(trx, actor, studentId, 'editGoals');
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
    const access = (await requireStudent(trx, actor, studentId, 'editGoals')).id;
    const before = await lockedGoal(trx, access, goalId);
    if (before.retired !== null) return;
    const others = goalsWorkedOn(await goalsOf(trx, [access])).filter(({ id }) => id !== goalId);
    if (how === 'replaced' && !others.some(({ id }) => id === replacedBy)) {
      throw new Invalid({ replacedBy: 'Choose the goal that takes its place.' });
    }
    if (how === 'met' && !(await recordedGoals(trx, [goalId])).get(goalId)) throw new Invalid({ how: NOT_MET });
    if (on > actor.today) throw new Invalid({ on: 'This lies in the future.' });
    if (on < before.startsOn) throw new Invalid({ on: `This goal began on ${shortDate(before.startsOn)}.` });
    await keepGoalRevision(trx, goalId, actor.personId, now);
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
    const access = (await requireStudent(trx, actor, studentId, 'editGoals')).id;
    const before = await lockedGoal(trx, access, goalId);
    if (before.retired === null) return;
    const current = goalsWorkedOn(await goalsOf(trx, [access]));
    if (current.some(({ number }) => number === before.number)) {
      throw new Invalid({
        goalId: `Another goal has the number ${before.number} now. Give that one another number first.`,
      });
    }
    await keepGoalRevision(trx, goalId, actor.personId, now);
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
