/**
 * Puts the k-th smallest value of a stretch at place k, the smaller ones before it and the larger ones after it.
 * The array is changed; nothing outside the stretch moves. Takes linear time, and compares numbers without a call.
 *
 * @param values  any unit, in any order, none of them NaN
 * @param k  the place wanted, counted from 0, within the stretch
 * @param left  first place of the stretch
 * @param right  last place of the stretch
 * @see Floyd & Rivest (1975), Communications of the ACM 18, algorithm 489 (SELECT)
 * @example const v = Float64Array.of(5, 1, 4); select(v, 1); v[1] // 4
 */
export function select(values: Float64Array, k: number, left = 0, right = values.length - 1): void {
  while (right > left) {
    if (right - left > 600) {
      const n = right - left + 1;
      const i = k - left + 1;
      const z = Math.log(n);
      const s = 0.5 * Math.exp((2 * z) / 3);
      const sd = 0.5 * Math.sqrt((z * s * (n - s)) / n) * (i < n / 2 ? -1 : 1);
      const sampleLeft = Math.max(left, Math.floor(k - (i * s) / n + sd));
      const sampleRight = Math.min(right, Math.floor(k + ((n - i) * s) / n + sd));
      select(values, k, sampleLeft, sampleRight);
    }
    const pivot = values[k] as number;
    let i = left;
    let j = right;
    swap(values, left, k);
    if ((values[right] as number) > pivot) swap(values, left, right);
    while (i < j) {
      swap(values, i, j);
      i++;
      j--;
      while ((values[i] as number) < pivot) i++;
      while ((values[j] as number) > pivot) j--;
    }
    if (values[left] === pivot) swap(values, left, j);
    else {
      j++;
      swap(values, j, right);
    }
    if (j <= k) left = j + 1;
    if (k <= j) right = j - 1;
  }
}

function swap(values: Float64Array, i: number, j: number): void {
  const kept = values[i] as number;
  values[i] = values[j] as number;
  values[j] = kept;
}

/**
 * The middle of values that may be put in another order; of an even number, the mean of the middle two.
 * Afterwards the smaller half lies before the middle and the larger half after it.
 *
 * @param values  at least one
 * @throws RangeError when there is no value
 */
export function medianInPlace(values: Float64Array): number {
  if (values.length === 0) throw new RangeError('The median needs at least one value.');
  const middle = values.length >> 1;
  select(values, middle);
  const upper = values[middle] as number;
  if (values.length % 2 === 1) return upper;
  // What lies before the middle is no larger than it; its largest is the other of the middle two.
  let lower = Number.NEGATIVE_INFINITY;
  for (let i = 0; i < middle; i++) lower = Math.max(lower, values[i] as number);
  // Half the sum could overflow where the sum of the halves cannot.
  return lower / 2 + upper / 2;
}
