import { z } from 'zod';
import type { LoggedAmount } from '~/core/progress/class-totals';
import type { Goal } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { held, rowsOf } from '../platform/db/rows';

const loggedRow = z.object({
  goalId: held(z.string()),
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
  goals: readonly Pick<Goal, 'id' | 'studentId' | 'selfCounts'>[],
): Promise<LoggedAmount[]> {
  return rowsOf(
    db,
    loggedRow,
    // Which versions count the same is asked once for each, not for each entry.
    `with alike as materialized (
       select goal.student_id, g.id as goal_id, made.version, goal.self_counts
         from unnest(cast(:studentIds as uuid[]), cast(:goalIds as uuid[]), cast(:selfCounts as boolean[])) as goal (student_id, id, self_counts)
         join goals g on g.id = goal.id
         join goal_measures present on present.goal_id = g.id and present.version = g.measure_version
         join goal_measures made on made.goal_id = g.id
              and made.measure -> 'unit' ->> 'one' = present.measure -> 'unit' ->> 'one')
     select o.goal_id as "goalId", one ->> 'category' as category,
            to_char(o.week, 'YYYY-MM-DD') as week, sum(cast(one ->> 'amount' as float)) as amount
       from alike
      cross join lateral (
        select e.goal_id, e.data, e.observed_on - cast(extract(isodow from e.observed_on) as int) + 1 as week from entries e
         where e.student_id = alike.student_id and e.goal_id = alike.goal_id and e.kind = 'goal' and not e.withdrawn
               and e.measure_version = alike.version and e.pairs_with is null and e.data is not null
               and (alike.self_counts or not e.self_recorded)) o
      cross join jsonb_array_elements(o.data -> 'amounts') as one
      group by o.goal_id, o.week, 2`,
    {
      ...{ studentIds: goals.map(({ studentId }) => studentId), goalIds: goals.map(({ id }) => id) },
      selfCounts: goals.map(({ selfCounts }) => selfCounts),
    },
  );
}
