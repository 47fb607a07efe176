import { dayNumber, type IsoDate } from '../calendar/iso-date';
import type { SchoolCalendar } from '../calendar/school-days';
import { defined } from '../defined';
import type { Direction } from '../goals/goal';
import { type CriterionDefinition, usualCriterion } from '../measures/criterion-definition';
import { type NamedPhase, type PhaseComparison, type PhaseFigures, phaseAnalysis } from '../progress/phases/phases';
import { type Aim, type Judgement, judge } from '../progress/progress';
import { type Gap, isLongGap, longGaps, type SeriesPoint } from '../progress/series';
import { type Arrival, arrivalOf } from '../progress/trend/arrival';
import { leastSquares } from '../progress/trend/least-squares';
import { type MannKendall, mannKendall } from '../progress/trend/mann-kendall';
import { splitMiddle } from '../progress/trend/split-middle';
import { type TheilSenLine, theilSen } from '../progress/trend/theil-sen';
import { type DayValue, LEAST_POINTS_FOR_TREND } from '../progress/trend/trend-line';
import { type TrendRule, trendRule } from '../progress/trend-rule';

export interface SeriesRow {
  date: IsoDate;
  value: number;
  phase: string | null;
}

export interface SeriesOptions {
  direction: Direction | null;
  target: number | null;
  targetDate: IsoDate | null;
  baseline: number | null;
  /** The day the baseline is dated on; the first row's, when null. */
  baselineDate: IsoDate | null;
  /** “k of the last n” points at the target; no criterion, when null. */
  criterion: { k: number; n: number } | null;
  /** The day on which it is asked; the last row's, when null. */
  today: IsoDate | null;
}

/** No option set: everything comes from the series itself. */
export const nothingSet: SeriesOptions = {
  direction: null,
  target: null,
  targetDate: null,
  baseline: null,
  baselineDate: null,
  criterion: null,
  today: null,
};

const WEEKDAYS: SchoolCalendar = { weekdays: [1, 2, 3, 4, 5], closures: [] };

/** What is said of a series of dates and values, all of it as the application says it of a goal. */
export interface SeriesAnalysis
  extends Pick<Judgement, 'baseline' | 'now' | 'wayTravelled' | 'course' | 'criterion' | 'decision'> {
  direction: Direction;
  points: { date: IsoDate; value: number; phase: string | null; afterGap: boolean }[];
  gaps: Gap[];
  trend: Trends;
  trendRule: TrendRule | null;
  arrival: Arrival | null;
  phases: (Omit<PhaseFigures, 'trend'> & { trend: Slopes | null })[];
  comparisons: PhaseComparison[];
}

/**
 * A whole series analysed. Consecutive rows of one phase make a phase; with more than one the first is the baseline. School
 * days are Monday to Friday.
 *
 * @param rows  at least one, in any order
 */
export function analyseSeries(rows: readonly SeriesRow[], options: SeriesOptions): SeriesAnalysis {
  const inOrder = rows.toSorted((a, b) => (a.date < b.date ? -1 : Number(a.date > b.date)));
  const { points, names } = pointsOf(inOrder);
  const direction = options.direction ?? directionFrom(options);
  const aim = aimOf(inOrder, options, direction);
  const today = options.today ?? defined(inOrder.at(-1)).date;
  const { baseline, now, wayTravelled, course, criterion, decision, sinceCourse } = judge(points, aim, {
    calendar: WEEKDAYS,
    today,
  });
  const hasPhases = inOrder.some((row) => row.phase !== null);
  const named = names.map((name, i) => ({ name, points: points.filter(({ phase }) => phase === i) }));
  const { phases, comparisons } = phaseAnalysis(named, direction);
  // More often than not the aim line has run since the last phase began.
  const last = named.at(-1) as NamedPhase;
  const isLast = last.points.length === sinceCourse.length && last.points[0] === sinceCourse[0];
  const drawn = isLast ? (phases.at(-1)?.trend ?? null) : theilSen(sinceCourse);
  return {
    direction,
    points: points.map(({ on, value, phase, afterGap }) => ({
      date: on,
      value,
      phase: hasPhases ? defined(names[phase]) : null,
      afterGap,
    })),
    gaps: longGaps(points, WEEKDAYS),
    baseline,
    now,
    wayTravelled,
    course,
    criterion,
    decision,
    trendRule: trendRule(sinceCourse, drawn, course, { direction, change: 'units' }),
    trend: trendsOf(points),
    arrival:
      drawn && options.target !== null ? arrivalOf(drawn, { target: options.target, direction, from: today }) : null,
    phases: phases.map((phase) => ({ ...phase, trend: phase.trend && slopesOf(phase.trend) })),
    comparisons,
  };
}

const directionFrom = ({ baseline, target }: SeriesOptions): Direction =>
  baseline !== null && target !== null && target < baseline ? 'decrease' : 'increase';

function aimOf(rows: readonly SeriesRow[], options: SeriesOptions, direction: Direction): Aim {
  const first = defined(rows[0]).date;
  const { target, targetDate, baseline, baselineDate, criterion } = options;
  return {
    baseline: baseline === null ? null : { value: baseline, on: baselineDate ?? first },
    target: target === null || targetDate === null ? null : { value: target, on: targetDate },
    criterion: target === null || criterion === null ? null : criterionFrom(criterion, target, direction),
    direction,
    startsOn: first,
    plannedGap: null,
    unit: '',
    accumulates: false,
  };
}

function criterionFrom(rule: { k: number; n: number }, target: number, direction: Direction): CriterionDefinition {
  return {
    ...usualCriterion(direction === 'increase' ? 'atLeast' : 'atMost', target),
    rule: { kind: 'ofLast', ...rule },
  };
}

/** Rows as points, and the names of the phases that their runs make. */
function pointsOf(rows: readonly SeriesRow[]): { points: SeriesPoint[]; names: string[] } {
  const names: string[] = [];
  const phaseOf = rows.map(({ phase }, i) => {
    if (i === 0 || phase !== defined(rows[i - 1]).phase) names.push(phase ?? 'all');
    return names.length - 1;
  });
  const points = rows.map(({ date, value }, i): SeriesPoint => {
    const before = rows[i - 1];
    return {
      on: date,
      day: dayNumber(date),
      value,
      amount: value,
      weight: 1,
      phase: defined(phaseOf[i]),
      isBaseline: names.length > 1 && phaseOf[i] === 0,
      isFormer: false,
      afterGap: before !== undefined && isLongGap(before.date, date, WEEKDAYS),
      observations: [],
      settings: [],
      observers: [],
    };
  });
  return { points, names };
}

type Slopes = Pick<TheilSenLine, 'slopePerWeek' | 'low' | 'high' | 'confidence'>;

export interface Trends {
  theilSen: Slopes | null;
  leastSquares: { slopePerWeek: number; low: number; high: number; r2: number | null; residualSd: number } | null;
  splitMiddle: { slopePerWeek: number } | null;
  mannKendall: MannKendall | null;
  /** Why there is none, where there is none. */
  reason: string | null;
}

/** Every trend of a series, or why it has none. */
export function trendsOf(points: readonly DayValue[]): Trends {
  const robust = theilSen(points);
  const squares = leastSquares(points);
  const drawn = splitMiddle(points);
  return {
    theilSen: robust && slopesOf(robust),
    leastSquares: squares && {
      slopePerWeek: squares.slopePerWeek,
      low: squares.low,
      high: squares.high,
      r2: squares.r2,
      residualSd: squares.residualSd,
    },
    splitMiddle: drawn && { slopePerWeek: drawn.slopePerWeek },
    mannKendall: mannKendall(points),
    reason: robust ? null : `A trend needs ${LEAST_POINTS_FOR_TREND} points, and not all on one day.`,
  };
}

const slopesOf = ({ slopePerWeek, low, high, confidence }: TheilSenLine): Slopes => ({
  slopePerWeek,
  low,
  high,
  confidence,
});
