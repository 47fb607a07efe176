import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import { isSchoolDay, schoolDaysSince } from '~/core/calendar/school-days';
import { instantAt, wallTime } from '~/core/calendar/zone';
import type { DecisionIs } from '~/core/progress/decision-words';
import type { RuleTrigger } from '~/core/rules/rule';
import { type Goal, goalsOf, goalsWorkedOn } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { standingOfGoals } from '../progress/progress';
import { type Firing, fire } from '../rules/apply';
import { type ReachingRule, rulesReaching } from '../rules/rules';
import type { School } from '../school/school';
import { readStudent } from '../students/access';

/** By then a school day's entries are in. */
const NIGHT = '18:00';
const AT_NIGHT: ReadonlySet<RuleTrigger> = new Set(['quiet', 'decision']);

/**
 * Once each evening: what nobody recorded fulfils rules too, and decisions that have changed since they were last looked at. A decision
 * that is looked at for the first time has not changed.
 */
export async function lookByNight(db: Database, school: School, now: Date): Promise<void> {
  const { on: today, time } = wallTime(now, school.timeZone);
  if (time < NIGHT || !isSchoolDay(today, school.calendar)) return;
  const looked = await db('rule_nights').where({ school_id: school.id }).first('looked_on');
  if (looked && looked.looked_on >= today) return;
  const students = (await db('students').where({ school_id: school.id, archived_at: null }).pluck('id')).map((id) =>
    readStudent.parse(id),
  );
  const rules = (await rulesReaching(db, school.id, students, today)).filter(({ rule }) =>
    AT_NIGHT.has(rule.when.trigger),
  );
  const reached = students.filter((id) => rules.some(({ reaches }) => reaches.has(id)));
  const goals = reached.length > 0 ? goalsWorkedOn(await goalsOf(db, reached)) : [];
  const standing = await standingOfGoals(db, goals, { school, today });
  const before = await decisionsBefore(db, goals);
  const firings: Firing[] = [];
  for (const goal of goals) {
    const { decision, lastOn } = standing.get(goal.id) ?? {};
    if (!decision) continue;
    for (const rule of rules) {
      if (!rule.reaches.has(goal.studentId)) continue;
      const key = fulfilledBy(
        rule,
        { goal, lastOn: lastOn ?? null, is: decision.is, was: before.get(goal.id) },
        { school, today },
      );
      if (key) firings.push({ rule, studentId: goal.studentId, key, entryId: null, goalId: goal.id });
    }
  }
  await db.transaction(async (trx) => {
    await fire(trx, firings, { today, calendar: school.calendar, now });
    const seen = goals.flatMap((goal) => {
      const is = standing.get(goal.id)?.decision.is;
      return is ? [{ goal_id: goal.id, is_now: is, seen_on: today }] : [];
    });
    if (seen.length > 0) await trx('goal_decisions').insert(seen).onConflict('goal_id').merge();
    await trx('rule_nights').insert({ school_id: school.id, looked_on: today }).onConflict('school_id').merge();
  });
}

interface Evening {
  school: School;
  today: IsoDate;
}

interface GoalThen {
  goal: Goal;
  lastOn: IsoDate | null;
  is: DecisionIs;
  was: string | undefined;
}

/** What makes it the same if it is looked at again; null where the goal does not fulfil the rule. */
function fulfilledBy(
  { rule: { when } }: ReachingRule,
  { goal, lastOn, is, was }: GoalThen,
  { school, today }: Evening,
): string | null {
  if (when.trigger === 'decision') {
    const isOne = (when.decisions as readonly DecisionIs[]).includes(is);
    return isOne && was !== undefined && was !== is ? `decision:${goal.id}:${is}:${today}` : null;
  }
  if (when.trigger !== 'quiet') return null;
  const since = lastOn ?? addDays(goal.startsOn, -1);
  const quiet = schoolDaysSince(since, today, school.calendar);
  return quiet >= when.days ? `quiet:${goal.id}:${since}` : null;
}

async function decisionsBefore(db: Database, goals: readonly Goal[]): Promise<Map<string, string>> {
  const rows = await db('goal_decisions')
    .whereIn(
      'goal_id',
      goals.map(({ id }) => id),
    )
    .select('goal_id', 'is_now');
  return new Map(rows.map(({ goal_id, is_now }) => [goal_id, is_now]));
}

/** When it is looked next, at the latest. */
export function nextNight({ timeZone }: School, now: Date): Date {
  const { on, time } = wallTime(now, timeZone);
  return instantAt({ on: time < NIGHT ? on : addDays(on, 1), time: NIGHT }, timeZone);
}
