import { z } from 'zod';
import { type GoalSession, sessionsOfGoal } from '../entries/read';
import { type Goal, goalsOf } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import type { StudentAccess } from '../students/access';

/** A student has a plan a year, for as long as they go to school. */
const MOST = 20;

/**
 * The goals of plans before that a goal continues, the oldest first, each with its sessions.
 *
 * @returns nothing for a goal that began in its own plan
 */
export async function earlierPlansOf(
  db: Database,
  studentId: StudentAccess<'see'>,
  goalId: string,
): Promise<{ goal: Goal; sessions: GoalSession[] }[]> {
  const ids = await rowsOf(
    db,
    z.object({ id: z.string() }),
    `with recursive chain as (
       select continues as id, 1 as n from goals where id = :goalId and student_id = :studentId and continues is not null
       union all
       select g.continues, c.n + 1 from chain c join goals g on g.id = c.id where g.continues is not null and c.n < ${MOST}
     ) select id from chain order by n desc`,
    { goalId, studentId },
  );
  if (ids.length === 0) return [];
  const goals = new Map((await goalsOf(db, [studentId])).map((goal) => [goal.id, goal]));
  return Promise.all(
    ids.flatMap(({ id }) => {
      const goal = goals.get(id);
      return goal ? [sessionsOfGoal(db, studentId, id).then((sessions) => ({ goal, sessions }))] : [];
    }),
  );
}
