import { defined } from '../../defined';
import { counted } from '../../words/counting';
import { DAYS_PER_WEEK, lineThrough, type TrendLine } from './trend-line';
import { certaintyOf, type LeastVariance, type WeightedPoint } from './weighted';

/** What a figure can be at all: 0 to 100 for a share; null where there is no bound. */
export interface Bounds {
  low: number | null;
  high: number | null;
}

/** The trend that is drawn and said, of the present phase. */
export interface DrawnTrend extends TrendLine {
  /** The 95% interval of the slope per week: never of no width. */
  low: number;
  high: number;
  /** The lines of those two slopes, through the points’ centre. */
  lowLine: TrendLine;
  highLine: TrendLine;
  /** Where the line is at the last point, and its 95% interval, cut to what is possible. */
  levelLast: number;
  levelLow: number;
  levelHigh: number;
  /** The same on any day. */
  levelAt: (day: number) => { level: number; low: number; high: number };
  /** How much neighbouring points are alike, and how many unrelated ones they are worth. */
  correlation: number;
  effectivePoints: number;
}

/** Before so many points over so many weeks it is too early for a trend. */
export const POINTS_FOR_TREND = 8;
export const WEEKS_FOR_TREND = 3;

/**
 * Why a phase has no trend yet; null when it has one.
 *
 * @param points  in order of date
 */
export function tooEarlyForTrend(points: readonly { day: number }[]): string | null {
  const days = points.length === 0 ? 0 : defined(points.at(-1)).day - defined(points[0]).day;
  if (points.length >= POINTS_FOR_TREND && days >= WEEKS_FOR_TREND * DAYS_PER_WEEK) return null;
  const weeks = Math.floor(days / DAYS_PER_WEEK);
  return `${counted(points.length, 'score', 'scores')} over ${counted(weeks, 'week', 'weeks')} so far; a trend needs ${POINTS_FOR_TREND} over ${WEEKS_FOR_TREND} weeks.`;
}

/**
 * The trend of a phase: weighted least squares of value on day, its interval widened for days that are alike.
 *
 * @param points  of one phase, in order of date
 * @param least  what one unit of weight varies by at least
 * @param bounds  what a level can be at all
 * @returns null while it is too early
 * @see Draper & Smith (1998), Applied Regression Analysis, ch. 9 (weights); the interval is checked by `npm run simulate`
 */
export function drawnTrend(
  points: readonly WeightedPoint[],
  least: LeastVariance,
  bounds: Bounds = { low: null, high: null },
): DrawnTrend | null {
  if (tooEarlyForTrend(points) !== null) return null;
  let weights = 0;
  let days = 0;
  let values = 0;
  for (const { day, value, weight } of points) {
    weights += weight;
    days += weight * day;
    values += weight * value;
  }
  const centre = { day: days / weights, value: values / weights };
  let xx = 0;
  let xy = 0;
  for (const { day, value, weight } of points) {
    xx += weight * (day - centre.day) ** 2;
    xy += weight * (day - centre.day) * (value - centre.value);
  }
  const slope = xy / xx;
  const line = lineThrough(slope, centre);
  const levels = points.map(({ day }) => line.at(day));
  const residuals = points.map(({ value }, i) => value - defined(levels[i]));
  const { half, correlation, effectivePoints } = certaintyOf(points, levels, residuals, 2, least);
  const pull = (i: number) => {
    const { weight, day } = defined(points[i]);
    return (weight * (day - centre.day)) / xx;
  };
  const slopeHalf = half(pull);
  const cut = (value: number) => Math.min(bounds.high ?? value, Math.max(bounds.low ?? value, value));
  const levelAt = (day: number) => {
    const room = half((i) => defined(points[i]).weight / weights + (day - centre.day) * pull(i));
    return { level: cut(line.at(day)), low: cut(line.at(day) - room), high: cut(line.at(day) + room) };
  };
  const last = levelAt(defined(points.at(-1)).day);
  const lowLine = lineThrough(slope - slopeHalf, centre);
  const highLine = lineThrough(slope + slopeHalf, centre);
  return {
    ...line,
    ...{ low: lowLine.slopePerWeek, high: highLine.slopePerWeek, lowLine, highLine },
    ...{ levelLast: last.level, levelLow: last.low, levelHigh: last.high, levelAt },
    ...{ correlation, effectivePoints },
  };
}

/**
 * How far points lie from a line on the average, with the 95% interval: above 0 is above the line.
 *
 * @param points  at least two, in order of date
 * @param lineAt  the line on a day
 */
export function meanDistance(
  points: readonly WeightedPoint[],
  lineAt: (day: number) => number,
  least: LeastVariance,
): { mean: number; low: number; high: number } {
  const lines = points.map(({ day }) => lineAt(day));
  const distances = points.map(({ value }, i) => value - defined(lines[i]));
  const weights = points.reduce((sum, { weight }) => sum + weight, 0);
  const mean = points.reduce((sum, { weight }, i) => sum + (weight * defined(distances[i])) / weights, 0);
  const { half } = certaintyOf(
    points,
    lines.map((line) => line + mean),
    distances.map((distance) => distance - mean),
    1,
    least,
  );
  const room = half((i) => defined(points[i]).weight / weights);
  return { mean, low: mean - room, high: mean + room };
}
