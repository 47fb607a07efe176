/**
 * How many values each group of equal values holds; single values are left out.
 *
 * @example tiesAmong([3, 1, 3, 2, 1, 3]) // [2, 3]: two ones, three threes
 */
export function tiesAmong(values: ArrayLike<number>): number[] {
  const sorted = new Float64Array(values).sort();
  const ties: number[] = [];
  let from = 0;
  for (let i = 1; i <= sorted.length; i++) {
    if (i < sorted.length && sorted[i] === sorted[from]) continue;
    if (i - from > 1) ties.push(i - from);
    from = i;
  }
  return ties;
}

/** Σ of a formula over groups of ties. */
export function sumOver(ties: readonly number[], formula: (t: number) => number): number {
  return ties.reduce((sum, t) => sum + formula(t), 0);
}
