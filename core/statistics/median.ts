import quickselect from 'quickselect';

/**
 * The middle value; of an even number of values, the mean of the middle two. Found by selection, not by sorting.
 *
 * @param values  any unit, in any order, at least one; not changed
 * @throws RangeError when there is no value
 * @example median([3, 1, 2]) // 2
 * @example median([4, 1, 3, 2]) // 2.5
 */
export function median(values: ArrayLike<number>): number {
  if (values.length === 0) throw new RangeError('The median needs at least one value.');
  const partly = Float64Array.from(values);
  const middle = partly.length >> 1;
  quickselect(partly as unknown as number[], middle);
  const upper = partly[middle] as number;
  if (partly.length % 2 === 1) return upper;
  // What lies before the middle is no larger than it; its largest is the other of the middle two.
  let lower = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < middle; i++) lower = Math.max(lower, partly[i] as number);
  return (lower + upper) / 2;
}
