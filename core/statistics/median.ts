import { defined } from '../defined';
/**
 * The middle value; of an even number of values, the mean of the middle two.
 *
 * @param values  any unit, in any order, at least one; not changed
 * @throws RangeError when there is no value
 * @example median([3, 1, 2]) // 2
 * @example median([4, 1, 3, 2]) // 2.5
 */
export function median(values: ArrayLike<number>): number {
  if (values.length === 0) throw new RangeError('The median needs at least one value.');
  const sorted = new Float64Array(values).sort();
  const [lower, upper] = [defined(sorted[(values.length - 1) >> 1]), defined(sorted[values.length >> 1])];
  // Half the sum could overflow where the sum of the halves cannot.
  return lower / 2 + upper / 2;
}
