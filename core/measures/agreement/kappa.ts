export interface Kappa {
  /** Agreement beyond chance, up to 1; null where both observers only ever used one and the same category. */
  kappa: number | null;
  /** The share on which both say the same. */
  observed: number;
  /** The share on which they would by chance, with the categories as often used by each. */
  expected: number;
  n: number;
}

/**
 * Cohen's κ: how far two observers agree beyond what chance would give them.
 *
 * @param a  one observer's categories, in order
 * @param b  the other's, of the same things
 * @throws RangeError when the lengths differ or there is nothing to compare
 * @see Cohen (1960), Educational and Psychological Measurement 20
 * @example 20 times both yes, 5 and 10 times one of them, 15 times both no: observed .70, expected .50 // κ .40
 */
export function cohensKappa(a: readonly string[], b: readonly string[]): Kappa {
  if (a.length !== b.length) throw new RangeError('Both observers must have looked at the same number of things.');
  if (a.length === 0) throw new RangeError('Two observers need at least one thing that both have looked at.');
  const n = a.length;
  const ofA = countsOf(a);
  const ofB = countsOf(b);
  const same = a.filter((category, i) => category === b[i]).length;
  let together = 0;
  for (const [category, count] of ofA) together += count * (ofB.get(category) ?? 0);
  const beyondChance = n * n - together;
  return {
    // Counted out in whole numbers, so that a share such as 2/5 comes out as one.
    kappa: beyondChance === 0 ? null : (n * same - together) / beyondChance,
    observed: same / n,
    expected: together / (n * n),
    n,
  };
}

function countsOf(categories: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const category of categories) counts.set(category, (counts.get(category) ?? 0) + 1);
  return counts;
}
