import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { periodToReport, type ReportingPeriod, reportingPeriods } from '~/core/calendar/reporting-periods';
import { defined } from '~/core/defined';
import type { DraftWords } from '~/core/progress-report/input';
import { isEmptyText } from '~/core/words/rich-text';
import type { Database } from '../platform/db/database';
import { rowsOf, written } from '../platform/db/rows';
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
): Promise<Map<StudentAccess<'read'>, ReportStanding>> {
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

/** How far a draft is, for a list of many. */
export interface DraftInBrief {
  goals: number;
  /** Goals with own words, and whether the whole has some. */
  written: number;
  hasWhole: boolean;
  /** Goals of which nothing was observed in the period, by number and name. */
  unseen: string[];
}

const briefRow = z.object({
  studentId: z.string(),
  goalId: z.string(),
  name: z.string(),
  isSeen: z.boolean(),
  words: written<DraftWords | null>(),
});

/** How far the drafts of some students are, by student: of those with a period that is to be reported. */
export async function draftsInBrief(
  db: Database,
  standings: ReadonlyMap<StudentAccess<'read'>, ReportStanding>,
): Promise<Map<string, DraftInBrief>> {
  const open = [...standings].flatMap(([id, { period }]) => (period ? [{ id, period }] : []));
  const found = await rowsOf(
    db,
    briefRow,
    `select g.student_id as "studentId", g.id as "goalId", g.number || ' ' || g.short_name as name, d.words,
            exists (select from entries e where e.student_id = g.student_id and e.goal_id = g.id and e.kind = 'goal'
                      and not e.withdrawn and e.observed_on between p.first and p.last) as "isSeen"
       from unnest(cast(:students as uuid[]), cast(:periods as uuid[]), cast(:firsts as date[]), cast(:lasts as date[]))
              as p (student_id, period_id, first, last)
            join goals g on g.student_id = p.student_id and g.starts_on <= p.last and g.retired_on is null
            left join progress_report_drafts d on d.period_id = p.period_id
      order by g.student_id, g.position`,
    {
      ...{ students: open.map(({ id }) => id), periods: open.map(({ period }) => period.id) },
      ...{ firsts: open.map(({ period }) => period.first), lasts: open.map(({ period }) => period.last) },
    },
  );
  const briefs = new Map<string, DraftInBrief>();
  for (const { studentId, goalId, name, isSeen, words } of found) {
    const before = briefs.get(studentId) ?? { goals: 0, written: 0, hasWhole: false, unseen: [] };
    const own = words?.goals[goalId];
    briefs.set(studentId, {
      goals: before.goals + 1,
      written: before.written + (own && !isEmptyText(own) ? 1 : 0),
      hasWhole: words !== null && !isEmptyText(words.whole),
      unseen: isSeen ? before.unseen : [...before.unseen, name],
    });
  }
  return briefs;
}
