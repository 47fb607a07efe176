import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import { goalInput } from '~/core/goals/goal-input';
import { measureOf } from '~/core/measures/measure';
import { nowOf } from '~/core/progress/baseline';
import type { NextPlanInput } from '~/core/progress/next-plan';
import { readable } from '~/core/words/readable';
import { addGoal, inputOf } from '../goals/edit';
import { type Goal, goalsOf, goalsWorkedOn, keepGoalRevision, NOT_MET, recordedGoals } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { Invalid } from '../platform/failures';
import { writeChange } from '../school/changes';
import type { Actor, School } from '../school/school';
import { planOf, planRow } from '../students/plan';
import { requireStudent, type Student } from '../students/students';
import { progressOfGoals } from './progress';

/** A goal with where the student is now: what the next plan's baseline is proposed from. */
export interface GoalNow {
  goal: Goal;
  /** The median of the last three points, and the day of the last one; null while there is none, and of what adds up. */
  now: { value: number; on: IsoDate } | null;
  isMet: boolean;
}

/** The goals that are worked on, each with where the student is now. */
export async function goalsForNextPlan(
  db: Database,
  student: Student<'editGoals'>,
  when: { school: School; today: IsoDate },
): Promise<GoalNow[]> {
  const goals = goalsWorkedOn(await goalsOf(db, [student.id]));
  const progress = await progressOfGoals(db, goals, when);
  return goals.map((goal): GoalNow => {
    const { points, mastery } = defined(progress.get(goal.id));
    const { accumulates } = measureOf(goal.measure);
    const value = accumulates ? null : nowOf(points);
    const last = points.at(-1);
    return { goal, now: value === null || !last ? null : { value, on: last.on }, isMet: mastery.metOn !== null };
  });
}

/**
 * Begins a student's next plan. Goals that go on are continued by goals of their own, with the same measure and a target date of the new
 * plan; the old ones, their entries, graphs and reports stay as they are. What is prepared for a goal (rounds, the student's own
 * entries) goes on with it. Sent twice, it is begun once.
 *
 * @throws NotFound for someone who may not edit this student's goals; Invalid where something does not fit
 */
export async function beginNextPlan(
  db: Database,
  actor: Actor,
  studentId: string,
  input: NextPlanInput,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const { id: access } = await requireStudent(trx, actor, studentId, 'editGoals');
    await trx('students').where({ id: studentId }).forUpdate().first('id');
    if (await trx('plans').where({ id: input.id, student_id: studentId }).first('id')) return;
    if (input.startsOn > actor.today) {
      throw new Invalid({ startsOn: 'A plan is begun on its first day, or later: until then the present one holds.' });
    }
    const present = await planRow(trx, access, actor.today);
    if (present && input.startsOn <= present.starts_on) {
      throw new Invalid({ startsOn: 'The plan that there is begins on this day, or later.' });
    }
    const before = await planOf(trx, access, actor.today);
    if (present && present.ends_on >= input.startsOn) await endPlan(trx, present.id, addDays(input.startsOn, -1), now);
    await trx('plans').insert({
      id: input.id,
      student_id: studentId,
      starts_on: input.startsOn,
      ends_on: input.endsOn,
    });
    for (const { label, endsOn } of input.periods) {
      await trx('reporting_periods').insert({ plan_id: input.id, label, ends_on: endsOn });
    }
    const worked = goalsWorkedOn(await goalsOf(trx, [access]));
    for (const [at, next] of input.goals.entries()) {
      const goal = worked.find(({ id }) => id === next.id);
      if (!goal) throw new Invalid({ '': 'The goals have changed in the meantime. Open this page again.' });
      await carryGoal(trx, actor, { studentId, goal, next, at, plan: input }, now);
    }
    const after = await planOf(trx, access, actor.today);
    const said = (plan: typeof after) => plan && { startsOn: plan.startsOn, endsOn: plan.endsOn };
    const goesOn = input.goals.filter(({ becomes }) => becomes === 'goesOn').length;
    const change = { before: said(before), after: { ...said(after), 'goals that go on': goesOn } };
    await writeChange(trx, actor.personId, { what: 'plan', studentId, ...change }, now);
  });
}

/** A plan ends sooner: a period that would go beyond it ends with it, those after it are kept out of sight. */
async function endPlan(db: Database, planId: string, last: IsoDate, now: Date): Promise<void> {
  const [first, ...later] = await db('reporting_periods')
    .where({ plan_id: planId, removed_at: null })
    .where('ends_on', '>', last)
    .orderBy('ends_on')
    .select('id');
  const endsThere = await db('reporting_periods')
    .where({ plan_id: planId, removed_at: null, ends_on: last })
    .first('id');
  const hidden = (endsThere && first ? [first, ...later] : later).map(({ id }) => id);
  await db('reporting_periods').whereIn('id', hidden).update({ removed_at: now });
  if (first && !endsThere) await db('reporting_periods').where({ id: first.id }).update({ ends_on: last });
  await db('plans').where({ id: planId }).update({ ends_on: last });
}

interface Carried {
  studentId: string;
  goal: Goal;
  next: NextPlanInput['goals'][number];
  at: number;
  plan: NextPlanInput;
}

async function carryGoal(
  db: Database,
  actor: Actor,
  { studentId, goal, next, at, plan }: Carried,
  now: Date,
): Promise<void> {
  const last = addDays(plan.startsOn, -1);
  if (next.becomes === 'met' && !(await recordedGoals(db, [goal.id])).get(goal.id))
    throw new Invalid({ [`goals[${at}].becomes`]: NOT_MET });
  await keepGoalRevision(db, goal.id, actor.personId, now);
  await db('goals')
    .where({ id: goal.id })
    .update({
      // One that was to begin only then ends on the day on which it would have begun.
      retired_on: [last, goal.startsOn].sort().at(-1),
      retired_how: next.becomes === 'goesOn' ? 'replaced' : next.becomes,
      retired_note: '',
      edited_at: now,
    });
  if (next.becomes !== 'goesOn') return;
  const field = (name: string) => `goals[${at}].${name}`;
  const parsed = readable(goalInput).safeParse({
    ...inputOf(goal),
    ...{ id: next.nextId, editedAt: null, wording: next.wording, phases: [] },
    ...{ startsOn: plan.startsOn, targetOn: plan.endsOn, baselineValue: next.baselineValue },
    baselineOn: next.baselineValue === null ? null : next.baselineOn,
    criterion: { ...goal.criterion, value: next.target },
  });
  if (!parsed.success) {
    const names: Record<string, string> = {
      criterion: 'target',
      baselineValue: 'baselineValue',
      baselineOn: 'baselineOn',
    };
    throw new Invalid(
      Object.fromEntries(
        parsed.error.issues.map(({ path, message }) => [field(names[String(path[0])] ?? 'wording'), message]),
      ),
    );
  }
  await addGoal(db, actor, studentId, parsed.data);
  const { position } = defined(await db('goals').where({ id: goal.id }).first('position'));
  await db('goals').where({ id: next.nextId }).update({ continues: goal.id, plan_id: plan.id, position });
  await db('goals').where({ id: goal.id }).update({ replaced_by: next.nextId });
  await db('round_goals').where({ goal_id: goal.id }).update({ goal_id: next.nextId });
  await db('desk_goals').where({ goal_id: goal.id }).update({ goal_id: next.nextId });
}
