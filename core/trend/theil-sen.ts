import { median } from '../statistics/median';

export interface TrendLine {
  /** Change of the value per week, in the value's unit. */
  slopePerWeek: number;
  /** The line's value on a day number. */
  at: (day: number) => number;
}

/** Fewer points than this have no trend. */
export const LEAST_POINTS_FOR_TREND = 3;

/**
 * The Theil–Sen line: the median of the slopes of all pairs of points, through the median of what each point leaves over.
 * Pairs on the same day have no slope and are left out.
 *
 * @param points  day numbers (whole days since any fixed day) and values, in any order
 * @returns the line, or null with fewer than 3 points or when all lie on one day
 * @see Theil (1950), Indagationes Mathematicae 12; Sen (1968), JASA 63
 * @example theilSen([{ day: 0, value: 1 }, { day: 7, value: 2 }, { day: 14, value: 9 }])?.slopePerWeek // 4
 */
export function theilSen(points: readonly { day: number; value: number }[]): TrendLine | null {
  const n = points.length;
  if (n < LEAST_POINTS_FOR_TREND) return null;
  const slopes = new Float64Array((n * (n - 1)) / 2);
  let pairs = 0;
  for (let i = 0; i < n; i++) {
    const a = points[i] as { day: number; value: number };
    for (let j = i + 1; j < n; j++) {
      const b = points[j] as { day: number; value: number };
      if (a.day !== b.day) slopes[pairs++] = (b.value - a.value) / (b.day - a.day);
    }
  }
  if (pairs === 0) return null;
  const slope = median(slopes.subarray(0, pairs));
  const intercept = median(points.map((point) => point.value - slope * point.day));
  return { slopePerWeek: slope * 7, at: (day) => intercept + slope * day };
}
