import { dayNumber, type IsoDate } from '../calendar/iso-date';
import type { SchoolCalendar } from '../calendar/school-days';
import { defined } from '../defined';
import type { Direction } from '../goals/goal';
import type { Comparison, CriterionDefinition } from '../measures/criterion-definition';
import type { Decision } from '../progress/decision';
import { type PhaseComparison, type PhaseFigures, phaseAnalysis } from '../progress/phases/phases';
import { type Aim, type Judgement, judge, leastVarianceOf } from '../progress/progress';
import { type Gap, isLongGap, longGaps, type SeriesPoint } from '../progress/series';
import { type Arrival, arrivalOf } from '../progress/trend/arrival';
import { type DrawnTrend, tooEarlyForTrend } from '../progress/trend/drawn-trend';
import { leastSquares } from '../progress/trend/least-squares';
import { type MannKendall, mannKendall } from '../progress/trend/mann-kendall';
import { splitMiddle } from '../progress/trend/split-middle';
import { type TheilSenLine, theilSen } from '../progress/trend/theil-sen';
import { type DayValue, LEAST_POINTS_FOR_TREND } from '../progress/trend/trend-line';

export interface SeriesRow {
  date: IsoDate;
  value: number;
  phase: string | null;
  /** Opportunities behind the value, which then is a percentage of them; null where it is no share. */
  of: number | null;
  place: string | null;
  observer: string | null;
  /** Whether the row belongs to a baseline; the first of several phases is one, where nothing is said. */
  isBaseline?: boolean | null;
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
  /** Whether the target is the least or the most; from the direction, when null. */
  comparison: Comparison | null;
  /** Points with fewer opportunities count neither for nor against the criterion. */
  minimum: number;
  distinctPlaces: number;
  distinctObservers: number;
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
  comparison: null,
  minimum: 1,
  distinctPlaces: 1,
  distinctObservers: 1,
  today: null,
};

const WEEKDAYS: SchoolCalendar = { weekdays: [1, 2, 3, 4, 5], closures: [] };

/** The shape of what is given out; it changes when a name or its meaning does. */
const FORMAT = 2;

/** What is said of a series of dates and values, all of it as the application says it of a goal. */
export interface SeriesAnalysis
  extends Pick<Judgement, 'baseline' | 'now' | 'progressToTarget' | 'aimLine' | 'mastery'> {
  format: typeof FORMAT;
  direction: Direction;
  points: {
    date: IsoDate;
    value: number;
    of: number | null;
    phase: string | null;
    afterGap: boolean;
    isPartial: boolean;
  }[];
  gaps: Gap[];
  trend: Trends & { drawn: Drawn | null };
  decision: Pick<Decision, 'is' | 'reason' | 'trend'>;
  arrival: Arrival | null;
  phases: (Omit<PhaseFigures, 'trend'> & { trend: Slopes | null })[];
  comparisons: PhaseComparison[];
}

/** The trend of the present phase, as it is drawn. */
interface Drawn {
  method: 'weightedLeastSquares';
  slopePerWeek: number;
  low: number;
  high: number;
  levelLast: number;
  levelLow: number;
  levelHigh: number;
}

/**
 * A whole series analysed. Consecutive rows of one phase make a phase; with more than one the first is the baseline, and so is a later
 * one of the same name: a withdrawal. School days are Monday to Friday.
 *
 * @param rows  at least one, in any order
 */
export function analyseSeries(rows: readonly SeriesRow[], options: SeriesOptions): SeriesAnalysis {
  const inOrder = rows.toSorted((a, b) => (a.date < b.date ? -1 : Number(a.date > b.date)));
  const { points, names } = pointsOf(inOrder);
  const direction = options.direction ?? directionFrom(options);
  const aim = aimOf(inOrder, points, names, options, direction);
  const today = options.today ?? defined(inOrder.at(-1)).date;
  const own = (of: 'settings' | 'observers') =>
    [...new Set(points.flatMap((point) => point[of]))].map((one) => points.filter((point) => point[of].includes(one)));
  const judgement = judge(
    points,
    aim,
    { calendar: WEEKDAYS, today },
    { locations: own('settings'), observers: own('observers') },
  );
  const { baseline, now, progressToTarget, aimLine, mastery, trend, present } = judgement;
  const { is, reason, trend: trendWords } = judgement.decision;
  const hasPhases = inOrder.some((row) => row.phase !== null);
  const named = names.map((name, i) => ({ name, points: points.filter(({ phase }) => phase === i) }));
  const { phases, comparisons } = phaseAnalysis(named, direction, leastVarianceOf(aim.isShare, points), aim.isShare);
  const all = trendsOf(points);
  return {
    format: FORMAT,
    direction,
    points: points.map(({ on, value, weight, phase, afterGap }, i) => ({
      date: on,
      value,
      of: defined(inOrder[i]).of,
      phase: hasPhases ? defined(names[phase]) : null,
      afterGap,
      isPartial: weight < options.minimum,
    })),
    gaps: longGaps(points, WEEKDAYS),
    ...{ baseline, now, progressToTarget, aimLine, mastery },
    decision: { is, reason, trend: trendWords },
    trend: { ...all, drawn: trend && drawnOf(trend), reason: all.reason ?? (trend ? null : tooEarlyForTrend(present)) },
    arrival:
      trend && options.target !== null ? arrivalOf(trend, { target: options.target, direction, from: today }) : null,
    phases: phases.map((phase) => ({ ...phase, trend: phase.trend && slopesOf(phase.trend) })),
    comparisons,
  };
}

const drawnOf = ({ slopePerWeek, low, high, levelLast, levelLow, levelHigh }: DrawnTrend): Drawn => ({
  method: 'weightedLeastSquares',
  ...{ slopePerWeek, low, high, levelLast, levelLow, levelHigh },
});

const directionFrom = ({ baseline, target, comparison }: SeriesOptions): Direction =>
  comparison === 'atMost' || (comparison === null && baseline !== null && target !== null && target < baseline)
    ? 'decrease'
    : 'increase';

function aimOf(
  rows: readonly SeriesRow[],
  points: readonly SeriesPoint[],
  names: readonly string[],
  options: SeriesOptions,
  direction: Direction,
): Aim {
  const first = defined(rows[0]).date;
  const { target, targetDate, baseline, baselineDate, criterion } = options;
  const isShare = rows.every(({ of }) => of !== null);
  return {
    baseline: baseline === null ? null : { value: baseline, on: baselineDate ?? first },
    target: target === null || targetDate === null ? null : { value: target, on: targetDate },
    targetSince: null,
    criterion: target === null || criterion === null ? null : criterionFrom(criterion, target, direction, options),
    direction,
    phases: names.map((label, i) => ({
      label,
      startsOn: defined(points.find(({ phase }) => phase === i)).on,
      isBaseline: defined(points.find(({ phase }) => phase === i)).isBaseline,
    })),
    ...{ pointPer: 'day', startsOn: first, plannedGap: null, unit: isShare ? '%' : '' },
    change: isShare ? 'points' : 'units',
    isShare,
    bounds: isShare ? { low: 0, high: 100 } : { low: null, high: null },
    accumulates: false,
  };
}

function criterionFrom(
  rule: { k: number; n: number },
  target: number,
  direction: Direction,
  { comparison, minimum, distinctPlaces, distinctObservers }: SeriesOptions,
): CriterionDefinition {
  return {
    comparison: comparison ?? (direction === 'increase' ? 'atLeast' : 'atMost'),
    value: target,
    rule: { kind: 'ofLast', ...rule },
    minimumOpportunities: minimum,
    distinctLocations: distinctPlaces,
    distinctObservers,
  };
}

/** Rows as points, and the names of the phases that their runs make. */
function pointsOf(rows: readonly SeriesRow[]): { points: SeriesPoint[]; names: string[] } {
  const names: string[] = [];
  const phaseOf = rows.map(({ phase }, i) => {
    if (i === 0 || phase !== defined(rows[i - 1]).phase) names.push(phase ?? 'all');
    return names.length - 1;
  });
  const points = rows.map(({ date, value, of, place, observer, isBaseline }, i): SeriesPoint => {
    const before = rows[i - 1];
    const phase = defined(phaseOf[i]);
    return {
      on: date,
      day: dayNumber(date),
      value,
      amount: of === null ? value : (value * of) / 100,
      weight: of ?? 1,
      phase,
      isBaseline: isBaseline ?? (names.length > 1 && names[phase] === names[0]),
      isBeyond: false,
      isFormer: false,
      afterGap: before !== undefined && isLongGap(before.date, date, WEEKDAYS),
      observations: [],
      settings: place === null ? [] : [place],
      observers: observer === null ? [] : [observer],
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
