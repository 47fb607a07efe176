import { defined } from '../../defined';
import { studentDeviate } from '../../statistics/distributions';
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
  const { centre, xx, xy, yy } = squaresAboutCentre(points);
  const slope = xy / xx;
  // What is left over the line is a difference: where little is, it would lose its digits, and is summed itself.
  const difference = yy - slope * xy;
  const residuals = difference > yy / 1000 ? difference : residualSquares(points, centre, slope);
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

// Plain loops over the points: least squares is asked of thousands at a time.

/** Sums of squares and products about the centre, in one round: counted from the first point, so that they stay small. */
function squaresAboutCentre(points: readonly DayValue[]) {
  const first = defined(points[0]);
  const n = points.length;
  let sx = 0;
  let sy = 0;
  let sxx = 0;
  let sxy = 0;
  let syy = 0;
  for (let i = 1; i < n; i++) {
    const point = defined(points[i]);
    const x = point.day - first.day;
    const y = point.value - first.value;
    sx += x;
    sy += y;
    sxx += x * x;
    sxy += x * y;
    syy += y * y;
  }
  return {
    centre: { day: first.day + sx / n, value: first.value + sy / n },
    xx: sxx - (sx * sx) / n,
    xy: sxy - (sx * sy) / n,
    yy: syy - (sy * sy) / n,
  };
}

/** What is left over the line, squared and summed. */
function residualSquares(points: readonly DayValue[], centre: DayValue, slope: number): number {
  let sum = 0;
  for (let i = 0; i < points.length; i++) {
    const point = defined(points[i]);
    const rest = point.value - centre.value - slope * (point.day - centre.day);
    sum += rest * rest;
  }
  return sum;
}

const deviates = new Map<number, number>();

/** The same few degrees of freedom are asked for over and over. */
function deviate95(freedom: number): number {
  const known = deviates.get(freedom) ?? studentDeviate(0.05, freedom);
  deviates.set(freedom, known);
  return known;
}
