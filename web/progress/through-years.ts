import type { IsoDate } from '~/core/calendar/iso-date';
import { noteWithDataWords } from '~/core/measures/words-in-data';
import type { PointEntry } from '~/core/progress/graph/goal-graph';
import { graphThroughYears } from '~/core/progress/graph/through-years';
import type { Progress } from '~/core/progress/progress';
import type { GoalSession } from '~/server/entries/read';
import type { Goal } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { earlierPlansOf } from '~/server/progress/earlier-plans';
import { progressFrom } from '~/server/progress/progress';
import type { School } from '~/server/school/school';
import type { StudentAccess } from '~/server/students/access';

/** What a point says of an entry behind it. */
export const pointEntry = ({ id, observerName, locationName, note, outcome }: GoalSession, discreet: boolean) => ({
  ...{ id, observer: observerName, location: locationName },
  note: discreet ? null : noteWithDataWords(note, outcome.data),
});

interface YearsAsked {
  studentId: StudentAccess<'see'>;
  pointEntries: PointEntry[];
  discreet: boolean;
  school: School;
  today: IsoDate;
}

/** The graph with the goals of plans before that this one continues; null where it continues none. */
export async function throughYears(
  goal: Goal,
  progress: Progress,
  { studentId, pointEntries, discreet, school, today }: YearsAsked,
) {
  const earlier = await earlierPlansOf(database(), studentId, goal.id);
  if (earlier.length === 0) return null;
  const computed = earlier.map((one) => ({
    goal: one.goal,
    points: progressFrom(one.goal, one.sessions, { school, today }).points,
  }));
  const entries = [
    ...earlier.flatMap(({ sessions }) => sessions.map((one) => pointEntry(one, discreet))),
    ...pointEntries,
  ];
  return graphThroughYears(goal, progress, computed, { entries, today });
}
