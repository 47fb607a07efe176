import type { IsoDate } from '~/core/calendar/iso-date';
import { type Progress, progressOf } from '~/core/progress/progress';
import type { Database } from '../db/database';
import { sessionsByGoal } from '../observations/read';
import type { School } from '../school/school';
import type { Goal } from './goals';

/** What is said of each goal today, by its id; computed from the entries as they are stored now. */
export async function progressOfGoals(
  db: Database,
  goals: readonly Goal[],
  { school, today }: { school: School; today: IsoDate },
): Promise<Map<string, Progress>> {
  const studentIds = [...new Set(goals.map((goal) => goal.studentId))];
  const goalId = goals.length === 1 ? goals[0]?.id : undefined;
  const asksForVariety = goals.some(
    ({ criterion }) => criterion.distinctSettings > 1 || criterion.distinctObservers > 1,
  );
  const sessions = await sessionsByGoal(db, studentIds, { goalId, inDetail: goalId !== undefined || asksForVariety });
  return new Map(
    goals.map((goal) => [goal.id, progressOf(goal, sessions.get(goal.id) ?? [], { calendar: school.calendar, today })]),
  );
}
