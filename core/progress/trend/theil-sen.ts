import { median } from '../../statistics/median';
import { sumOver, tiesAmong } from '../../statistics/ties';
import { pairCount, slopesAtRanks } from './pair-slopes';
import {
  type Columns,
  canHaveTrend,
  columnsOf,
  DAYS_PER_WEEK,
  type DayValue,
  lineThrough,
  type TrendLine,
} from './trend-line';

export interface TheilSenLine extends TrendLine {
  /** Sen's interval of the slope per week. */
  low: number;
  high: number;
  /** The confidence of the interval: .95, and less where so few points cannot give it. */
  confidence: number;
  /** The lines with the slopes that bound the interval, each through the middle of the points as the trend itself. */
  lowLine: TrendLine;
  highLine: TrendLine;
}

const Z_95 = 1.959963984540054;

/**
 * The Theil–Sen line: the median of the slopes of all pairs of points, through the median of what each point leaves over,
 * with Sen's interval for the slope from the ranks of those slopes. Pairs on the same day have no slope and are left out.
 *
 * With few points no pair of ranks reaches 95%: the interval is then that of the flattest and the steepest pair, and its true
 * confidence is given. Of the n! orders of distinct values without a trend, one has all pairs going up; where t points share a day, t! have:
 * 1 − 2 ∏ t! / n!.
 *
 * @param points  in any order
 * @returns the line, or null with fewer than 3 points or when all lie on one day
 * @see Theil (1950), Indagationes Mathematicae 12; Sen (1968), JASA 63, with the variance corrected for ties
 * @example theilSen([{ day: 0, value: 1 }, { day: 7, value: 2 }, { day: 14, value: 9 }])?.slopePerWeek // 4
 */
export function theilSen(points: readonly DayValue[]): TheilSenLine | null {
  if (!canHaveTrend(points)) return null;
  const columns = columnsOf(points.toSorted((a, b) => a.day - b.day));
  const dayTies = tiesAmong(columns.days);
  const pairs = pairCount(points.length, dayTies);
  const widest = widestConfidence(points.length, dayTies);
  const ranks = widest < 0.95 ? { low: 0, high: pairs - 1 } : senRanks(columns, pairs, dayTies);
  // Four ranks in, four slopes out.
  const [low, below, above, high] = slopesAtRanks(columns, pairs, [
    ranks.low,
    (pairs - 1) >> 1,
    pairs >> 1,
    ranks.high,
  ]) as [number, number, number, number];
  const lineOf = (some: number) =>
    lineThrough(some, { day: 0, value: median(points.map((point) => point.value - some * point.day)) });
  return {
    ...lineOf((below + above) / 2),
    low: low * DAYS_PER_WEEK,
    high: high * DAYS_PER_WEEK,
    confidence: Math.min(0.95, widest),
    lowLine: lineOf(low),
    highLine: lineOf(high),
  };
}

/** Between which ranks of the slopes Sen's interval lies. */
function senRanks({ values }: Columns, pairs: number, dayTies: readonly number[]) {
  const tied = (t: number) => t * (t - 1) * (2 * t + 5);
  const ties = sumOver(dayTies, tied) + sumOver(tiesAmong(values), tied);
  const half = (Z_95 * Math.sqrt(Math.max(0, tied(values.length) - ties) / 18)) / 2;
  return {
    low: Math.min((pairs - 1) >> 1, Math.max(0, Math.round(pairs / 2 - half) - 1)),
    high: Math.max(pairs >> 1, Math.min(pairs - 1, Math.round(pairs / 2 + half))),
  };
}

/** The confidence of the interval from the flattest pair to the steepest. */
function widestConfidence(n: number, dayTies: readonly number[]): number {
  return 1 - 2 * Math.exp(sumOver(dayTies, logFactorial) - logFactorial(n));
}

function logFactorial(n: number): number {
  let sum = 0;
  for (let i = 2; i <= n; i++) sum += Math.log(i);
  return sum;
}
