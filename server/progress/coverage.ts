import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { Database } from '../platform/db/database';
import { held, rowsOf } from '../platform/db/rows';
import type { StudentAccess } from '../students/access';

const weekCountRow = z.object({
  goalId: held(z.string()),
  observerId: z.string(),
  observerName: z.string(),
  /** The Monday of the week. */
  week: z.string(),
  n: z.number(),
});
export type WeekCount = z.infer<typeof weekCountRow>;

/** How many entries each observer made of each goal, week by week. */
export async function weekCounts(
  db: Database,
  studentIds: readonly StudentAccess<'see'>[],
  since: IsoDate,
): Promise<WeekCount[]> {
  return rowsOf(
    db,
    weekCountRow,
    `select o.goal_id as "goalId", o.observer_id as "observerId", p.name as "observerName",
            to_char(date_trunc('week', o.observed_on), 'YYYY-MM-DD') as week, cast(count(*) as int) as n
       from entries o join people p on p.id = o.observer_id
      where o.student_id = any(?) and o.kind = 'goal' and o.observed_on >= ? and not o.withdrawn and not o.self_recorded
      group by 1, 2, 3, 4`,
    [[...studentIds], since],
  );
}

/** The date of the newest entry of each goal that is worked on and has one. */
export async function newestDates(
  db: Database,
  studentIds: readonly StudentAccess<'see'>[],
): Promise<Map<string, IsoDate>> {
  const found = await rowsOf(
    db,
    z.object({ id: z.string(), lastOn: z.string().nullable() }),
    `select g.id, (select max(o.observed_on) from entries o
                    where o.student_id = g.student_id and o.goal_id = g.id and o.kind = 'goal' and not o.withdrawn) as "lastOn"
       from goals g where g.student_id = any(?) and g.retired_on is null`,
    [[...studentIds]],
  );
  return new Map(found.flatMap(({ id, lastOn }) => (lastOn === null ? [] : [[id, lastOn]])));
}
