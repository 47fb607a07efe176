import { median } from '../../statistics/median';
import { canHaveTrend, type DayValue, lineThrough, type TrendLine } from './trend-line';

/**
 * The split-middle line, as it is drawn by hand: the series is halved in order of date (of an odd number the middle point
 * is left out), the median day and the median value of each half are joined, and the line is moved, keeping its slope,
 * until as many points lie above it as below.
 *
 * @param points  in any order
 * @returns the line, or null with fewer than 3 points, when all lie on one day, or when both halves have the same median day
 * @see White (1974), The “split middle”: a “quickie” method of trend estimation; White & Haring (1980), Exceptional Teaching
 * @example splitMiddle([1, 3, 2, 6, 5, 9].map((value, i) => ({ day: 7 * i, value })))?.slopePerWeek // 4/3: from 2 in week 1 to 6 in week 4
 */
export function splitMiddle(points: readonly DayValue[]): TrendLine | null {
  if (!canHaveTrend(points)) return null;
  // Points of one day by their value: where the halves meet within a day, the order of the rows must not matter.
  const inOrder = points.toSorted((a, b) => a.day - b.day || a.value - b.value);
  const half = Math.floor(inOrder.length / 2);
  const first = middleOf(inOrder.slice(0, half));
  const second = middleOf(inOrder.slice(-half));
  if (first.day === second.day) return null;
  const slope = (second.value - first.value) / (second.day - first.day);
  const value = median(points.map((point) => point.value - slope * point.day));
  return lineThrough(slope, { day: 0, value });
}

function middleOf(points: readonly DayValue[]): DayValue {
  return { day: median(points.map((point) => point.day)), value: median(points.map((point) => point.value)) };
}
