import { defined } from '../../defined';
import { normalTwoSided } from '../../statistics/distributions';
import { sumOver, tiesAmong } from '../../statistics/ties';
import { chanceOfS, countsInOrder } from './exact-kendall';
import { columnsOf, type DayValue } from './trend-line';

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
  const { days, values } = columnsOf(points.toSorted((a, b) => a.day - b.day));
  const inOrder = new Float64Array(values).sort();
  const earlier = new RankCounts(inOrder);
  let s = 0;
  for (let from = 0; from < days.length; ) {
    let to = from;
    while (to < days.length && days[to] === days[from]) to++;
    // Those of one day are compared with all earlier ones, not with each other.
    for (let i = from; i < to; i++) s += earlier.below(defined(values[i])) - earlier.above(defined(values[i]));
    for (let i = from; i < to; i++) earlier.add(defined(values[i]));
    from = to;
  }
  return s;
}

/**
 * How many of the values added so far lie below and above another, in the logarithm of their number: sums over binary stretches of
 * ranks.
 *
 * @see Fenwick (1994), Software: Practice and Experience 24(3)
 */
class RankCounts {
  readonly #inOrder: Float64Array;
  readonly #sums: Int32Array;
  #n = 0;

  /** @param inOrder  all values that will be added, from the lowest to the highest */
  constructor(inOrder: Float64Array) {
    this.#inOrder = inOrder;
    this.#sums = new Int32Array(inOrder.length + 1);
  }

  /** Of all values, how many are less than one, or not more. */
  #rank(value: number, withEqual: boolean): number {
    let [low, high] = [0, this.#inOrder.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      const other = defined(this.#inOrder[middle]);
      if (other < value || (withEqual && other === value)) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  #addedUpTo(rank: number): number {
    let sum = 0;
    for (let i = rank; i > 0; i -= i & -i) sum += defined(this.#sums[i]);
    return sum;
  }

  add(value: number): void {
    this.#n++;
    for (let i = this.#rank(value, false) + 1; i < this.#sums.length; i += i & -i)
      this.#sums[i] = defined(this.#sums[i]) + 1;
  }

  below(value: number): number {
    return this.#addedUpTo(this.#rank(value, false));
  }

  above(value: number): number {
    return this.#n - this.#addedUpTo(this.#rank(value, true));
  }
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
