import { studentDeviate } from '../statistics/distributions';
import { canHaveTrend, DAYS_PER_WEEK, type DayValue, lineThrough, type TrendLine } from './trend-line';

export interface LeastSquaresLine extends TrendLine {
  /** The 95% interval of the slope per week, by Student's t with n − 2 degrees of freedom. */
  low: number;
  high: number;
  /** The share of the values' variance that the line accounts for, 0 … 1; null when they do not vary. */
  r2: number | null;
  /** The standard deviation of the values about the line, in their unit. */
  residualSd: number;
}

/**
 * Ordinary least squares of value on day.
 *
 * @param points  in any order
 * @returns the line, or null with fewer than 3 points or when all lie on one day
 * @see Draper & Smith (1998), Applied Regression Analysis, ch. 1; certified examples in the NIST Statistical Reference Datasets
 * @example leastSquares([{ day: 0, value: 1 }, { day: 7, value: 2 }, { day: 14, value: 9 }])?.slopePerWeek // 4
 */
export function leastSquares(points: readonly DayValue[]): LeastSquaresLine | null {
  if (!canHaveTrend(points)) return null;
  const n = points.length;
  let day = 0;
  let value = 0;
  for (const point of points) {
    day += point.day;
    value += point.value;
  }
  const centre = { day: day / n, value: value / n };
  let xx = 0;
  let xy = 0;
  let yy = 0;
  for (const point of points) {
    const dx = point.day - centre.day;
    const dy = point.value - centre.value;
    xx += dx * dx;
    xy += dx * dy;
    yy += dy * dy;
  }
  const slope = xy / xx;
  let residuals = 0;
  for (const point of points) residuals += (point.value - centre.value - slope * (point.day - centre.day)) ** 2;
  const residualSd = Math.sqrt(residuals / (n - 2));
  const half = (deviate95(n - 2) * residualSd) / Math.sqrt(xx);
  return {
    ...lineThrough(slope, centre),
    low: (slope - half) * DAYS_PER_WEEK,
    high: (slope + half) * DAYS_PER_WEEK,
    r2: yy === 0 ? null : Math.max(0, 1 - residuals / yy),
    residualSd,
  };
}

const deviates = new Map<number, number>();

/** The same few degrees of freedom are asked for over and over. */
function deviate95(freedom: number): number {
  const known = deviates.get(freedom) ?? studentDeviate(0.05, freedom);
  deviates.set(freedom, known);
  return known;
}
