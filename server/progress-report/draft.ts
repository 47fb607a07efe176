import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { type ReportingPeriod, reportingPeriods } from '~/core/calendar/reporting-periods';
import { withoutDays } from '~/core/calendar/school-days';
import { behaviorBrief } from '~/core/progress-report/behavior-brief';
import type { ProgressReport } from '~/core/progress-report/content';
import type { DraftInput, DraftWords } from '~/core/progress-report/input';
import { noWords } from '~/core/words/rich-text';
import { behaviorOf } from '../behavior/behavior';
import { type Goal, goalsOf, goalsWorkedOn } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Conflict, NotFound } from '../platform/failures';
import type { Actor, School } from '../school/school';
import type { StudentAccess } from '../students/access';
import { planOf } from '../students/plan';
import { caseManagerOf, requireStudent, type Student } from '../students/students';
import { goalReportsOf } from './goal-reports';

/** The reporting periods of a student’s plan, in order; none while the plan has no dates. */
export async function periodsOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  today: IsoDate,
): Promise<(ReportingPeriod & { id: string })[]> {
  const plan = await planOf(db, studentId, today);
  return plan ? reportingPeriods(plan, plan.periods) : [];
}

/** Which entries a report was made from: their ids with the version that stood. */
export type MadeFrom = Record<string, number>;

export interface Draft {
  periodId: string;
  report: ProgressReport;
  words: DraftWords;
  /** 0 while nobody has written anything. */
  version: number;
  changedByName: string | null;
  madeFrom: MadeFrom;
}

const noDraft: DraftWords = { whole: noWords, goals: {} };

/**
 * The progress report of a period as it would be issued now: computed from the entries, with the words that were written.
 *
 * @param period  by its last day
 * @param written  words in place of those that are kept
 * @throws NotFound for a period that the plan does not have
 */
export async function draftOf(
  db: Database,
  student: Student<'see'>,
  period: IsoDate,
  { school, today, written }: { school: School; today: IsoDate; written?: DraftWords },
): Promise<Draft> {
  const periods = await periodsOf(db, student.id, today);
  const at = periods.findIndex(({ last }) => last === period);
  const [current, before] = [periods[at], periods[at - 1]];
  if (!current || !student.plan) throw new NotFound('The plan has no such reporting period.');
  const stretch = { from: current.first, to: current.last };
  const [goals, row] = await Promise.all([
    goalsOf(db, [student.id]).then((all) => all.filter((goal) => isReported(goal, stretch))),
    db('progress_report_drafts as d')
      .leftJoin('people as p', 'p.id', 'd.changed_by')
      .where({ 'd.period_id': current.id })
      .first('d.words', 'd.version', 'p.short_name'),
  ]);
  const words: DraftWords = written ?? row?.words ?? noDraft;
  const reports = await goalReportsOf(db, student.id, goals, stretch, words.goals, { school, today });
  const behavior = await behaviorOf(db, student.id, { discreet: false });
  const earlier = before ? { from: before.first, to: before.last } : null;
  return {
    periodId: current.id,
    words,
    version: row?.version ?? 0,
    changedByName: row?.short_name ?? null,
    madeFrom: await versionsUntil(db, student.id, stretch.to),
    report: {
      student: {
        name: `${student.firstName} ${student.lastName}`,
        shortName: student.shortName,
        grade: student.grade,
        groups: student.groups,
      },
      schoolName: school.name,
      caseManager: await caseManagerOf(db, student.id),
      plan: { startsOn: student.plan.startsOn, endsOn: student.plan.endsOn },
      period: { label: current.label, ...stretch },
      goals: reports,
      behavior: behaviorBrief(behavior.incidents, stretch, earlier, {
        today,
        calendar: withoutDays(school.calendar, behavior.absences),
        since: behavior.since,
      }),
      words: words.whole,
    },
  };
}

/** Goals that were worked on within the period: those that began before its end and were not retired before it began. */
const isReported = (goal: Goal, { from, to }: { from: IsoDate; to: IsoDate }) =>
  goal.startsOn <= to && (goal.retired === null ? goalsWorkedOn([goal]).length > 0 : goal.retired.on >= from);

/** The entries of a student up to a day, each with the version that stands. */
async function versionsUntil(db: Database, studentId: string, until: IsoDate): Promise<MadeFrom> {
  const found = await rowsOf(
    db,
    z.tuple([z.string(), z.number()]),
    `select id, version from entries
        where student_id = :studentId and kind <> 'count' and observed_on <= :until and not withdrawn`,
    { studentId, until },
  );
  return Object.fromEntries(found);
}

/**
 * Keeps the words of a draft.
 *
 * @returns its new version
 * @throws NotFound; Conflict with the words that stand and their version, when somebody else has written since `version`
 */
export async function saveDraft(
  db: Database,
  actor: Actor,
  studentId: string,
  { period, version, words }: DraftInput,
  now: Date,
): Promise<number> {
  return db.transaction(async (trx) => {
    const access = (await requireStudent(trx, actor, studentId, 'share')).id;
    const wanted = (await periodsOf(trx, access, actor.today)).find(({ last }) => last === period);
    if (!wanted) throw new NotFound('The plan has no such reporting period.');
    // Whoever writes the first words and whoever writes them at the same moment wait for each other.
    await trx('students').where({ id: studentId }).forUpdate().first('id');
    const where = { student_id: studentId, period_id: wanted.id };
    const before = await trx('progress_report_drafts').where(where).first();
    const content = { words: JSON.stringify(words), changed_by: actor.personId, changed_at: now };
    if ((before?.version ?? 0) !== version) {
      const isRepeat = before?.version === version + 1 && before.changed_by === actor.personId;
      if (isRepeat && JSON.stringify(sorted(before.words)) === JSON.stringify(sorted(words))) return before.version;
      throw new Conflict({ words: before?.words ?? noDraft, version: before?.version ?? 0 });
    }
    const next = { ...content, version: version + 1 };
    await trx('progress_report_drafts')
      .insert({ ...where, ...next })
      .onConflict('period_id')
      .merge(next);
    return version + 1;
  });
}

/** With the keys of its objects in order: the database keeps them in its own. */
function sorted(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(sorted);
  if (value === null || typeof value !== 'object') return value;
  const entries = Object.entries(value).sort(([a], [b]) => a.localeCompare(b));
  return Object.fromEntries(entries.map(([key, inside]) => [key, sorted(inside)]));
}
