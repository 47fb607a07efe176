import { z } from 'zod';
import type { LoggedAmount } from '~/core/progress/class-totals';
import type { Goal } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';

const loggedRow = z.object({
  goalId: z.string(),
  category: z.string().nullable(),
  week: z.string(),
  amount: z.number(),
});

/**
 * What the logs of some goals about how much altogether took in, by week and category: added up by the database, so that a class of
 * thirty is a few hundred rows. Second observers' entries are not counted again, nor what was counted in another unit.
 */
export async function loggedAmounts(
  db: Database,
  goals: readonly Pick<Goal, 'id' | 'studentId'>[],
): Promise<LoggedAmount[]> {
  return rowsOf(
    db,
    loggedRow,
    `select o.goal_id as "goalId", one ->> 'category' as category,
            to_char(date_trunc('week', o.observed_on), 'YYYY-MM-DD') as week, sum(cast(one ->> 'amount' as float)) as amount
       from unnest(cast(:studentIds as uuid[]), cast(:goalIds as uuid[])) as goal (student_id, id)
       join goals g on g.id = goal.id
       join goal_measures present on present.goal_id = g.id and present.version = g.measure_version
       join entries o on o.student_id = goal.student_id and o.goal_id = goal.id and o.kind = 'goal' and not o.withdrawn
            and o.pairs_with is null and o.data is not null
       join goal_measures made on made.goal_id = o.goal_id and made.version = o.measure_version
            and made.measure -> 'unit' ->> 'one' = present.measure -> 'unit' ->> 'one'
      cross join jsonb_array_elements(o.data -> 'amounts') as one
      group by 1, 2, 3`,
    { studentIds: goals.map(({ studentId }) => studentId), goalIds: goals.map(({ id }) => id) },
  );
}
