import { medianInPlace } from './select';

/**
 * The middle value; of an even number of values, the mean of the middle two. Found by selection, not by sorting.
 *
 * @param values  any unit, in any order, at least one; not changed
 * @throws RangeError when there is no value
 * @example median([3, 1, 2]) // 2
 * @example median([4, 1, 3, 2]) // 2.5
 */
export function median(values: ArrayLike<number>): number {
  return medianInPlace(new Float64Array(values));
}
