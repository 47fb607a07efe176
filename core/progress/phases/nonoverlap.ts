import { defined } from '../../defined';
import { type Direction, signOf } from '../../goals/goal';
import { kendallS } from '../trend/mann-kendall';

/** How the pairs of one point of phase A and one of phase B stand. */
interface Pairs {
  improved: number;
  tied: number;
  worse: number;
}

function pairsOf(a: readonly number[], b: readonly number[], direction: Direction): Pairs {
  if (a.length === 0 || b.length === 0) throw new RangeError('Two phases are compared by their points; one has none.');
  const [before, after] = [new Float64Array(a).sort(), new Float64Array(b).sort()];
  // Both in order: for each point before, how many after lie below it and how many not above.
  let [below, notAbove, higher, tied] = [0, 0, 0, 0];
  for (const value of before) {
    while (below < after.length && defined(after[below]) < value) below++;
    while (notAbove < after.length && defined(after[notAbove]) <= value) notAbove++;
    higher += after.length - notAbove;
    tied += notAbove - below;
  }
  const lower = before.length * after.length - higher - tied;
  const [improved, worse] = signOf(direction) > 0 ? [higher, lower] : [lower, higher];
  return { improved, tied, worse };
}

/**
 * Nonoverlap of all pairs (NAP): the share of (A, B) point pairs in which B improves on A; a tie counts half.
 *
 * @param a  phase A values, any unit, at least one
 * @param b  phase B values, the same unit, at least one
 * @param direction  'increase' when higher is better
 * @returns 0 … 1; 0.5 is what chance gives
 * @throws RangeError when a phase is empty
 * @see Parker & Vannest (2009), Behavior Therapy 40(4)
 * @example nonoverlapOfAllPairs([2, 3, 5], [4, 5, 6], 'increase') // 0.8333…: 7 pairs improve, 1 ties, of 9
 */
export function nonoverlapOfAllPairs(a: readonly number[], b: readonly number[], direction: Direction): number {
  const { improved, tied, worse } = pairsOf(a, b, direction);
  return (improved + tied / 2) / (improved + tied + worse);
}

/**
 * Percentage of nonoverlapping data (PND), as a share: how many points of B lie beyond the best point of A.
 * A point that equals it does not count.
 *
 * @returns 0 … 1
 * @throws RangeError when a phase is empty
 * @see Scruggs, Mastropieri & Casto (1987), Remedial and Special Education 8(2)
 * @example percentageOfNonoverlappingData([2, 3, 5], [4, 5, 6], 'increase') // 1/3: only 6 lies above 5
 */
export function percentageOfNonoverlappingData(
  a: readonly number[],
  b: readonly number[],
  direction: Direction,
): number {
  if (a.length === 0 || b.length === 0) throw new RangeError('Two phases are compared by their points; one has none.');
  const sign = signOf(direction);
  let best = Number.NEGATIVE_INFINITY;
  for (const value of a) best = Math.max(best, sign * value);
  return b.filter((value) => sign * value > best).length / b.length;
}

/**
 * Tau of A against B: improving pairs less worsening ones, per pair; 2 · NAP − 1.
 *
 * @returns −1 … 1; 0 is what chance gives
 * @throws RangeError when a phase is empty
 * @see Parker, Vannest, Davis & Sauber (2011), Behavior Therapy 42(2)
 * @example tau([2, 3, 5], [4, 5, 6], 'increase') // 2/3: 7 improve, 1 worsens, of 9
 */
export function tau(a: readonly number[], b: readonly number[], direction: Direction): number {
  const { improved, tied, worse } = pairsOf(a, b, direction);
  return (improved - worse) / (improved + tied + worse);
}

/**
 * Tau-U: Tau with the trend that phase A already had taken off, (S_AB − S_A) / (n_A · n_B).
 * With a long phase A that already improves it can leave −1 … 1; it is given as the formula gives it.
 *
 * @param a  phase A values in order of date
 * @throws RangeError when a phase is empty
 * @see Parker, Vannest, Davis & Sauber (2011), Behavior Therapy 42(2)
 * @example tauU([2, 3, 5], [4, 5, 6], 'increase') // 1/3: S_AB is 6, S_A is 3, over 9 pairs
 */
export function tauU(a: readonly number[], b: readonly number[], direction: Direction): number {
  const { improved, worse } = pairsOf(a, b, direction);
  const sOfA = signOf(direction) * kendallS(a.map((value, day) => ({ day, value })));
  return (improved - worse - sOfA) / (a.length * b.length);
}
