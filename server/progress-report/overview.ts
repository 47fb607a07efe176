import type { IsoDate } from '~/core/calendar/iso-date';
import { periodToReport, type ReportingPeriod, reportingPeriods } from '~/core/calendar/reporting-periods';
import { defined } from '~/core/defined';
import type { Database } from '../platform/db/database';
import type { School } from '../school/school';
import type { StudentAccess } from '../students/access';
import { plansOf } from '../students/plan';
import type { Student } from '../students/students';
import { type IssuedLine, issuedOfAll } from './issued';

/** Where a student stands with the report that is to be made now. */
export interface ReportStanding {
  /** Null while there is no period to report. */
  period: (ReportingPeriod & { id: string }) | null;
  /** What was issued for it and not replaced. */
  issued: IssuedLine | null;
}

/** The period of a student that is to be reported, and the report that stands for it. */
export async function reportStanding(
  db: Database,
  student: Pick<Student, 'id'>,
  when: { school: Pick<School, 'timeZone'>; today: IsoDate },
): Promise<ReportStanding> {
  return defined((await reportStandings(db, [student.id], when)).get(student.id));
}

/** The same of several students, by id, asked for at once. */
export async function reportStandings(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  { school, today }: { school: Pick<School, 'timeZone'>; today: IsoDate },
): Promise<Map<string, ReportStanding>> {
  const [plans, issued] = [await plansOf(db, studentIds, today), await issuedOfAll(db, studentIds, school)];
  return new Map(
    studentIds.map((id) => {
      const plan = plans.get(id);
      const standing = (issued.get(id) ?? []).filter(({ replacedBy }) => replacedBy === null);
      const periods = plan ? reportingPeriods(plan, plan.periods) : [];
      const done = periods.filter((one) => standing.some(({ period }) => period.id === one.id)).map(({ last }) => last);
      const period = periodToReport(periods, today, done);
      return [id, { period, issued: (period && standing.find((one) => one.period.id === period.id)) ?? null }];
    }),
  );
}
