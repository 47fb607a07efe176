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
  const sorted = Float64Array.from(values).sort();
  const middle = sorted.length >> 1;
  const upper = sorted[middle] as number;
  return sorted.length % 2 === 1 ? upper : ((sorted[middle - 1] as number) + upper) / 2;
}
