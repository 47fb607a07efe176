import { defined } from '../../defined';
import { normalTwoSided } from '../../statistics/distributions';
import { sumOver, tiesAmong } from '../../statistics/ties';
import { chanceOfS, countsInOrder } from './exact-kendall';
import { type Columns, columnsOf, type DayValue } from './trend-line';

export interface MannKendall {
  /** Pairs that go up less pairs that go down. */
  s: number;
  /** Kendall's τ-b, −1 … 1; null in a constant series, where it is not defined. */
  tau: number | null;
  /** Two-sided chance of an S at least so far from 0 if there were no trend. */
  p: number;
  /** Whether p was counted out or comes from the normal approximation. */
  isExact: boolean;
}

/** Up to so many points the chance is counted out, with ties too. */
const MOST_POINTS_COUNTED_OUT = 10;

/**
 * The Mann–Kendall test for a trend. With at most ten points the chance is exact, ties or not; else it comes from the
 * normal approximation with the variance corrected for ties (in the days too) and a continuity correction of 1.
 *
 * @param points  in any order
 * @returns null with fewer than 2 points, or when all lie on one day
 * @see Mann (1945), Econometrica 13; Kendall (1970), Rank Correlation Methods, ch. 3–5
 * @example mannKendall([1, 2, 3, 4].map((value, day) => ({ day, value }))) // s 6, tau 1, p 2/24
 */
export function mannKendall(points: readonly DayValue[]): MannKendall | null {
  const n = points.length;
  const { days, values } = columnsOf(points);
  const dayTies = tiesAmong(days);
  if (n < 2 || dayTies[0] === n) return null;
  const valueTies = tiesAmong(values);
  const s = kendallS(points);
  const all = (n * (n - 1)) / 2;
  const tied = (t: number) => (t * (t - 1)) / 2;
  const unequal = (all - sumOver(dayTies, tied)) * (all - sumOver(valueTies, tied));
  const isExact = n <= MOST_POINTS_COUNTED_OUT;
  const hasTies = dayTies.length > 0 || valueTies.length > 0;
  const counted = () => (hasTies ? chanceOfS(s, countsInOrder(days), countsInOrder(values)) : exactChance(s, n));
  return {
    s,
    tau: unequal === 0 ? null : s / Math.sqrt(unequal),
    p: isExact ? counted() : approximateChance(s, n, dayTies, valueTies),
    isExact,
  };
}

/**
 * Kendall's S: how many more of all pairs in order of date go up than down. Equal values and equal days count for nothing.
 *
 * @param points  in any order
 * @example kendallS([3, 1, 2].map((value, day) => ({ day, value }))) // −1: one pair up, two down
 */
export function kendallS(points: readonly DayValue[]): number {
  const columns = columnsOf(points.toSorted((a, b) => a.day - b.day));
  let s = 0;
  for (let i = 0; i < points.length; i++) s += risesFrom(i, columns);
  return s;
}

/** Later values above one point's less those below it. */
function risesFrom(i: number, { days, values }: Columns): number {
  const value = defined(values[i]);
  let j = i + 1;
  while (j < days.length && days[j] === days[i]) j++;
  let s = 0;
  for (; j < values.length; j++) {
    const other = defined(values[j]);
    if (other > value) s++;
    else if (other < value) s--;
  }
  return s;
}

/** Of all n! orders, the share with an S at least so far from 0. An order with i inversions has S = n(n − 1)/2 − 2i. */
function exactChance(s: number, n: number): number {
  let orders = [1];
  for (let size = 2; size <= n; size++) {
    const next = Array<number>((size * (size - 1)) / 2 + 1).fill(0);
    for (const [inversions, count] of orders.entries()) {
      for (let more = 0; more < size; more++) next[inversions + more] = defined(next[inversions + more]) + count;
    }
    orders = next;
  }
  const most = (n * (n - 1)) / 2;
  let all = 0;
  let asFar = 0;
  for (const [inversions, count] of orders.entries()) {
    all += count;
    if (Math.abs(most - 2 * inversions) >= Math.abs(s)) asFar += count;
  }
  return asFar / all;
}

/**
 * The variance of S over all orders of the values.
 *
 * @param dayTies  how many points share a day, for each such day; `valueTies` the same of values
 * @see Kendall (1970), Rank Correlation Methods, ch. 5: with its full correction for ties in both
 */
export function varianceOfS(n: number, dayTies: readonly number[], valueTies: readonly number[]): number {
  const v = (t: number) => t * (t - 1) * (2 * t + 5);
  const pairs = (t: number) => t * (t - 1);
  const triples = (t: number) => t * (t - 1) * (t - 2);
  const both = (formula: (t: number) => number) => sumOver(dayTies, formula) * sumOver(valueTies, formula);
  return (
    (v(n) - sumOver(dayTies, v) - sumOver(valueTies, v)) / 18 +
    both(pairs) / (2 * n * (n - 1)) +
    (n > 2 ? both(triples) / (9 * n * (n - 1) * (n - 2)) : 0)
  );
}

function approximateChance(s: number, n: number, dayTies: readonly number[], valueTies: readonly number[]): number {
  const variance = varianceOfS(n, dayTies, valueTies);
  if (s === 0 || variance <= 0) return 1;
  return Math.min(1, normalTwoSided((Math.abs(s) - 1) / Math.sqrt(variance)));
}
