import type { IsoDate } from '~/core/calendar/iso-date';
import { periodToReport, type ReportingPeriod } from '~/core/calendar/reporting-periods';
import type { Database } from '../db/database';
import type { School } from '../school/school';
import type { Student } from '../students/students';
import { periodsOf } from './draft';
import { type IssuedLine, issuedOf } from './issued';

/** Where a student stands with the report that is to be made now. */
export interface ReportStanding {
  /** Null while there is no period to report. */
  period: (ReportingPeriod & { id: string }) | null;
  /** What was issued for it and not replaced. */
  issued: IssuedLine | null;
}

/** The period of a student that is to be reported, and the report that stands for it. Ask `studentFor` first. */
export async function reportStanding(
  db: Database,
  student: Pick<Student, 'id'>,
  { school, today }: { school: Pick<School, 'timeZone'>; today: IsoDate },
): Promise<ReportStanding> {
  const [periods, all] = await Promise.all([periodsOf(db, student.id, today), issuedOf(db, student.id, school)]);
  const standing = all.filter(({ replacedBy }) => replacedBy === null);
  const period = periodToReport(
    periods,
    today,
    periods.filter(({ id }) => standing.some((issued) => issued.period.id === id)).map(({ last }) => last),
  );
  return { period, issued: (period && standing.find((issued) => issued.period.id === period.id)) ?? null };
}
