import { dayNumber, type IsoDate } from '../calendar/iso-date';
import type { SchoolCalendar } from '../calendar/school-days';
import { directionOf, type GoalDefinition } from '../goals/goal';
import type { ObservedSession } from '../observations/observation';
import { type Baseline, baselineOf, nowOf, wayTravelled } from './baseline';
import { type Course, courseOf } from './course';
import { type CriterionState, criterionState } from './criterion';
import { type SeriesPoint, seriesOf } from './series';
import { type Verdict, verdictOf } from './verdict';

export interface Progress {
  points: SeriesPoint[];
  baseline: Baseline | null;
  now: number | null;
  /** (now − baseline) / (target − baseline); null while either is unknown. */
  wayTravelled: number | null;
  course: Course | null;
  criterion: CriterionState;
  verdict: Verdict;
  /** The points that are held against the course, and of which a trend can be asked. */
  sinceCourse: SeriesPoint[];
}

/**
 * Everything that is said of one goal on one day.
 *
 * @param sessions  the goal's observations that count (none withdrawn), in order of date and time
 */
export function progressOf(
  goal: GoalDefinition,
  sessions: readonly ObservedSession[],
  { calendar, today }: { calendar: SchoolCalendar; today: IsoDate },
): Progress {
  const points = seriesOf(goal, sessions, calendar);
  const baseline = baselineOf(goal, points);
  const now = nowOf(points);
  const course = baseline && courseOf(baseline, { on: goal.targetOn, value: goal.target });
  const courseDay = baseline ? dayNumber(baseline.on) : Number.NEGATIVE_INFINITY;
  const sinceCourse = points.filter((point) => !point.isBaseline && point.day >= courseDay);
  const criterion = criterionState(sinceCourse, goal.criterion);
  return {
    points,
    baseline,
    now,
    wayTravelled: baseline && now !== null ? wayTravelled(baseline.value, now, goal.target) : null,
    course,
    criterion,
    verdict: verdictOf({
      criterion,
      points,
      sinceCourse,
      course,
      direction: directionOf(goal.criterion),
      startsOn: goal.startsOn,
      plannedGap: goal.plannedGap,
      calendar,
      today,
    }),
    sinceCourse,
  };
}
