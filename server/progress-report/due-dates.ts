import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';

const dueRow = z.object({
  id: z.string(),
  kind: z.enum(['period', 'plan']),
  on: z.string(),
  /** What the period is called; empty for a plan. */
  label: z.string(),
  studentId: z.string(),
  shortName: z.string(),
  initials: z.string(),
  isIssued: z.boolean(),
});
export type DueDate = z.infer<typeof dueRow>;

/**
 * What falls due for somebody: ends of reporting periods and of plans, of the students whose reports they share, from a day on. Ask as
 * that person: of others nothing is seen.
 */
export const dueDatesOf = (db: Database, personId: string, from: IsoDate, today: IsoDate): Promise<DueDate[]> =>
  rowsOf(
    db,
    dueRow,
    `with theirs as (
       select distinct s.id, s.short_name, s.initials from team_members m join students s on s.id = m.student_id
        where m.person_id = :personId and (m.role = 'caseManager' or 'share' = any(m.rights)) and s.archived_at is null
              and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today)
     select r.id, 'period' as kind, r.ends_on as "on", r.label, t.id as "studentId", t.short_name as "shortName", t.initials,
            exists (select from issued_reports i where i.student_id = t.id and i.period_id = r.id) as "isIssued"
       from theirs t join plans p on p.student_id = t.id join reporting_periods r on r.plan_id = p.id
      where r.removed_at is null and r.ends_on >= :from
     union all
     select p.id, 'plan', p.ends_on, '', t.id, t.short_name, t.initials, false
       from theirs t join plans p on p.student_id = t.id where p.ends_on >= :from
      order by 3, 6`,
    { personId, from, today },
  );
