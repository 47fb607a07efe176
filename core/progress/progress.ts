import { dayNumber, type IsoDate } from '../calendar/iso-date';
import type { SchoolCalendar } from '../calendar/school-days';
import type { ObservedSession } from '../entries/observation';
import { type Direction, directionOf, type GoalDefinition, type Phase } from '../goals/goal';
import type { CriterionDefinition } from '../measures/criterion-definition';
import { amountSaid } from '../measures/cumulative-total/cumulative-total';
import { measureOf } from '../measures/measure';
import { type AimLine, aimLineOf } from './aim-line';
import { type Baseline, baselineOf, nowOf, progressToTarget } from './baseline';
import { type Decision, decisionOf } from './decision';
import { type Mastery, masteryOf, NO_MASTERY } from './mastery';
import { addedLately, type Pace, paceOf } from './pace';
import { phaseAt, type SeriesPoint, seriesOf } from './series';
import { type Bounds, type DrawnTrend, drawnTrend } from './trend/drawn-trend';
import { type LeastVariance, roundingVariance, shareVariance } from './trend/weighted';

export interface Judgement {
  baseline: Baseline | null;
  /** Of the present phase. */
  now: number | null;
  /** How many scores that is the median of: three, or as many as the phase has. */
  nowOf: number;
  /** It lies somewhere beyond its value: most of those went without a response. */
  isNowBeyond: boolean;
  /** (now − baseline) / (target − baseline); null while either is unknown. */
  progressToTarget: number | null;
  aimLine: AimLine | null;
  mastery: Mastery;
  decision: Decision;
  /** The points of the present phase since the aim line began: what is held against it, and what the trend is of. */
  present: SeriesPoint[];
  /** Of the present phase; null while it is too early, and for a cumulative total. */
  trend: DrawnTrend | null;
}

export interface Progress extends Judgement {
  points: SeriesPoint[];
  /** Of a cumulative total that is not yet reached. */
  pace: Pace | null;
  /** What the last school days added to a cumulative total, in words; null of anything else, and before its first entry. */
  lately: string | null;
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
  const measure = measureOf(goal.measure);
  const aim: Aim = {
    ...goal,
    target: { value: goal.target, on: goal.targetOn },
    targetSince: goal.targetSince ?? null,
    direction: directionOf(goal.criterion),
    unit: measure.axis.unit,
    change: measure.axis.change,
    isShare: measure.isShare,
    bounds: { low: points.some(({ value }) => value < 0) ? null : 0, high: measure.isShare ? 100 : measure.axis.max },
    accumulates: measure.accumulates,
  };
  const own = (of: 'location' | 'observer', asked: number) =>
    asked <= 1
      ? []
      : [...new Set(sessions.map((session) => session[of]).filter((one) => one !== null))].map((one) =>
          judged(
            seriesOf(
              goal,
              sessions.filter((session) => session[of] === one),
              when.calendar,
            ),
          ),
        );
  const { distinctLocations, distinctObservers } = goal.criterion;
  const { measure: definition } = goal;
  const isTotal = definition.kind === 'cumulativeTotal';
  const saidOf = (share: number) => (isTotal ? amountSaid((share * definition.total) / 100, definition.unit) : '');
  const added = isTotal ? addedLately(judged(points), when) : null;
  return {
    points,
    pace: isTotal ? paceOf(judged(points), aim.target, when, saidOf) : null,
    lately: added === null ? null : saidOf(added),
    ...judge(judged(points), aim, when, {
      locations: own('location', distinctLocations),
      observers: own('observer', distinctObservers),
    }),
  };
}

/** What was measured otherwise cannot be held against what is asked for now. */
const judged = (points: readonly SeriesPoint[]) => points.filter((point) => !point.isFormer);

/** What a series is held against, where each of it is known. */
export interface Aim {
  baseline: { value: number; on: IsoDate } | null;
  target: { value: number; on: IsoDate } | null;
  /** Since when the target is what it is, where it was another before. */
  targetSince: IsoDate | null;
  criterion: CriterionDefinition | null;
  direction: Direction;
  phases: readonly Phase[];
  pointPer: 'day' | 'session';
  /** The first day on which observations were expected. */
  startsOn: IsoDate;
  plannedGap: number | null;
  /** What stands after a figure, “%”; and what a change is counted in, “points”. */
  unit: string;
  change: string;
  /** The values are percentages of their weights. */
  isShare: boolean;
  bounds: Bounds;
  accumulates: boolean;
}

/**
 * What is said of a series on one day: where it began, where it is, how it stands against its aim line and its criterion. Trend, “now”
 * and decision are of the present phase only.
 *
 * @param points  in order of date
 * @param own  the points of each place and observer apart, where the criterion asks for several
 */
export function judge(
  points: readonly SeriesPoint[],
  aim: Aim,
  { calendar, today }: Today,
  own?: { locations: SeriesPoint[][]; observers: SeriesPoint[][] },
): Judgement {
  const baseline = baselineOf(aim, points);
  const aimLine = aimLineFrom(points, aim, baseline);
  const from = aimLine?.from.on ?? baseline?.on;
  const begins = from ? dayNumber(from) : Number.NEGATIVE_INFINITY;
  const isTaught = (point: { isBaseline: boolean; day: number }) => !point.isBaseline && point.day >= begins;
  const index = phaseAt(aim.phases, today);
  const inPhase = points.filter(({ phase }) => phase === index);
  // What a point weighs is above 0 but where nothing was said of it.
  const weighed = inPhase.map((point) => ({ ...point, weight: point.weight > 0 ? point.weight : 1 }));
  const present = weighed.filter(isTaught);
  const least = leastVarianceOf(aim.isShare, present);
  const trend = aim.accumulates ? null : drawnTrend(present, least, aim.bounds);
  const taught = points.filter(isTaught);
  const ownTaught = own && {
    locations: own.locations.map((some) => some.filter(isTaught)),
    observers: own.observers.map((some) => some.filter(isTaught)),
  };
  const mastery = aim.criterion ? masteryOf(taught, aim.criterion, aim.isShare, ownTaught) : NO_MASTERY;
  const now = nowOf(inPhase, aim);
  const last = inPhase.slice(aim.accumulates ? -1 : -3);
  return {
    baseline,
    now,
    nowOf: last.length,
    isNowBeyond: 2 * last.filter(({ isBeyond }) => isBeyond).length > last.length,
    progressToTarget:
      baseline && aim.target && now !== null ? progressToTarget(baseline.value, now, aim.target.value) : null,
    aimLine,
    mastery,
    decision: decisionOf({
      ...aim,
      ...{ baseline, mastery, points, present, aimLine, trend, least, calendar, today },
      phase: aim.phases.length > 1 || aim.phases[index]?.isBaseline ? (aim.phases[index] ?? null) : null,
    }),
    present,
    trend,
  };
}

/** What single points vary by at least: by their opportunities where they are shares, else by their rounding. */
export const leastVarianceOf = (isShare: boolean, points: readonly { value: number }[]): LeastVariance =>
  isShare ? shareVariance : roundingVariance(points.map(({ value }) => value));

/** Points that begin the aim line of a new target. */
const POINTS_BEFORE_NEW_TARGET = 3;

/** From the baseline to the target; a new target begins an aim line of its own, at the median of the last three points before it. */
function aimLineFrom(points: readonly SeriesPoint[], aim: Aim, baseline: Baseline | null): AimLine | null {
  if (!baseline || !aim.target) return null;
  const { targetSince } = aim;
  const before = targetSince === null ? [] : points.filter(({ on }) => on < targetSince && on > baseline.on);
  const value = nowOf(before, aim);
  return targetSince !== null && before.length >= POINTS_BEFORE_NEW_TARGET && value !== null
    ? aimLineOf({ on: targetSince, value }, aim.target)
    : aimLineOf(baseline, aim.target);
}
