/**
 * How many values each group of equal values holds; single values are left out.
 *
 * @example tiesAmong([3, 1, 3, 2, 1, 3]) // [3, 2], in no particular order
 */
export function tiesAmong(values: readonly number[]): number[] {
  const counts = new Map<number, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts.values()].filter((n) => n > 1);
}

/** Σ of a formula over groups of ties. */
export function sumOver(ties: readonly number[], formula: (t: number) => number): number {
  return ties.reduce((sum, t) => sum + formula(t), 0);
}
