import type { IsoDate } from '~/core/calendar/iso-date';
import { type GoalAtFirst, goalAtFirst } from '~/core/documents/first-page';
import { withoutNamesOnIt } from '~/core/documents/progress-report-document';
import { comparableWith } from '~/core/goals/same-meaning';
import { type GoalReport, goalReport } from '~/core/progress-report/content';
import type { ReaderKind } from '~/core/sharing/reader-kind';
import type { Shows } from '~/core/sharing/visibility-rule';
import { withoutNames } from '~/core/students/names/other-children';
import { noWords, type RichText } from '~/core/words/rich-text';
import { sessionsOfGoal } from '../entries/read';
import { type Goal, measureAt } from '../goals/goals';
import type { Database } from '../platform/db/database';
import type { School } from '../school/school';
import { rosterFinder } from '../sharing/other-children';
import type { StudentAccess } from '../students/access';

/**
 * What a report says of some goals of one student at the end of a stretch of days, in their order.
 *
 * @param words  own words, by the goal’s id
 */
export async function goalReportsOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  goals: readonly Goal[],
  stretch: { from: IsoDate | null; to: IsoDate },
  words: Readonly<Record<string, RichText>>,
  { school, today }: { school: School; today: IsoDate },
): Promise<GoalReport[]> {
  const reports: GoalReport[] = [];
  for (const goal of goals) {
    const isAsNow = comparableWith(goal.measure);
    const all = (await sessionsOfGoal(db, studentId, goal.id)).map((session) => {
      const measure = measureAt(goal, session.version);
      return { ...session, former: goal.formerMeasures[session.version], measure, isAsNow: isAsNow(measure) };
    });
    const counting = all
      .filter(({ pairsWith, isSelfRecorded }) => pairsWith === null && (goal.selfCounts || !isSelfRecorded))
      // A student at their own desk is no observer.
      .map((session) => ({ ...session, observer: session.isSelfRecorded ? null : session.observer }));
    const when = { calendar: school.calendar, today, all };
    reports.push(goalReport(goal, counting, stretch, words[goal.id] ?? noWords, when));
  }
  return reports;
}

/** How a student stands in some goals on a day: what a report of all that was observed until then would say. */
export const standingsOf = (
  db: Database,
  studentId: StudentAccess<'read'>,
  goals: readonly Goal[],
  { school, today, from = null }: { school: School; today: IsoDate; from?: IsoDate | null },
): Promise<GoalReport[]> => goalReportsOf(db, studentId, goals, { from, to: today }, {}, { school, today });

/**
 * The goals that a report begins with, as its reader may see them: to readers from outside, other children are “a classmate” in what was
 * typed.
 */
export async function goalsAtFirst(
  db: Database,
  studentId: StudentAccess<'read'>,
  goals: readonly Goal[],
  { kind, shows }: { kind: ReaderKind; shows: Shows },
  when: { school: School; today: IsoDate },
): Promise<GoalAtFirst[]> {
  const atFirst = (await standingsOf(db, studentId, goals, when)).map((goal) => goalAtFirst(goal, shows));
  if (kind === 'team') return atFirst;
  const find = await rosterFinder(db, studentId);
  const hide = (text: string) => withoutNames(text, find, studentId);
  return atFirst.map((goal) => ({
    ...goal,
    ...{ title: hide(goal.title), wording: hide(goal.wording) },
    graph: goal.graph && withoutNamesOnIt(goal.graph, hide),
  }));
}
