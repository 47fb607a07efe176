import { dayNumber, type IsoDate } from '../calendar/iso-date';
import type { SchoolCalendar } from '../calendar/school-days';
import type { ObservedSession } from '../entries/observation';
import { type Direction, directionOf, type GoalDefinition } from '../goals/goal';
import type { CriterionDefinition } from '../measures/criterion-definition';
import { measureOf } from '../measures/measure';
import { type AimLine, aimLineOf } from './aim-line';
import { type Baseline, baselineOf, nowOf, progressToTarget } from './baseline';
import { type CriterionState, criterionState } from './criterion';
import { type Decision, decisionOf } from './decision';
import { type SeriesPoint, seriesOf } from './series';

export interface Judgement {
  baseline: Baseline | null;
  now: number | null;
  /** (now − baseline) / (target − baseline); null while either is unknown. */
  wayTravelled: number | null;
  course: AimLine | null;
  criterion: CriterionState;
  decision: Decision;
  /** The points that are held against the aim line, and of which a trend can be asked. */
  sinceCourse: SeriesPoint[];
}

export interface Progress extends Judgement {
  points: SeriesPoint[];
}

interface Today {
  calendar: SchoolCalendar;
  today: IsoDate;
}

/**
 * Everything that is said of one goal on one day.
 *
 * @param sessions  the goal's observations that count (none withdrawn), in order of date and time
 */
export function progressOf(goal: GoalDefinition, sessions: readonly ObservedSession[], when: Today): Progress {
  const points = seriesOf(goal, sessions, when.calendar);
  const { accumulates, axis } = measureOf(goal.measure);
  const aim = {
    ...goal,
    target: { value: goal.target, on: goal.targetOn },
    direction: directionOf(goal.criterion),
    unit: axis.unit,
    accumulates,
  };
  // What was measured otherwise cannot be held against what is asked for now.
  const asNow = points.filter((point) => !point.isFormer);
  return { points, ...judge(asNow, aim, when) };
}

/** What a series is held against, where each of it is known. */
export interface Aim {
  baseline: { value: number; on: IsoDate } | null;
  target: { value: number; on: IsoDate } | null;
  criterion: CriterionDefinition | null;
  direction: Direction;
  /** The first day on which observations were expected. */
  startsOn: IsoDate;
  plannedGap: number | null;
  /** What stands after a figure: “%”. */
  unit: string;
  accumulates: boolean;
}

const NO_CRITERION: CriterionState = { metOn: null, lapses: [], passing: 0, needed: 0 };

/**
 * What is said of a series on one day: where it began, where it is, how it stands against its aim line and its criterion.
 *
 * @param points  in order of date
 */
export function judge(points: readonly SeriesPoint[], aim: Aim, { calendar, today }: Today): Judgement {
  const baseline = baselineOf(aim, points);
  const now = nowOf(points, aim);
  const course = baseline && aim.target && aimLineOf(baseline, aim.target);
  const courseDay = baseline ? dayNumber(baseline.on) : Number.NEGATIVE_INFINITY;
  const sinceCourse = points.filter((point) => !point.isBaseline && point.day >= courseDay);
  const criterion = aim.criterion ? criterionState(sinceCourse, aim.criterion) : NO_CRITERION;
  return {
    baseline,
    now,
    wayTravelled:
      baseline && aim.target && now !== null ? progressToTarget(baseline.value, now, aim.target.value) : null,
    course,
    criterion,
    decision: decisionOf({ ...aim, baseline, criterion, points, sinceCourse, course, calendar, today }),
    sinceCourse,
  };
}
