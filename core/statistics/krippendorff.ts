/** How two values that raters gave differ: whether at all, or how many ranks lie between them. */
type Metric = 'nominal' | 'ordinal';

/**
 * Krippendorff's alpha: how far several raters agree beyond what chance would bring, with any number of raters for each unit, and values left
 * out. 1 is agreement in all, 0 what chance brings.
 *
 * Source: K. Krippendorff, “Computing Krippendorff’s Alpha-Reliability” (2011), sections C and D, by the coincidence matrix; from memory.
 *
 * @param units  for each unit the values that its raters gave; units with fewer than two say nothing
 * @returns null where there are no two values of one unit, or all values are the same: then nothing could have differed
 * @example krippendorffAlpha([[1, 1], [2, 2], [1, 2]], 'nominal') // 4 / 9
 */
export function krippendorffAlpha(units: readonly (readonly number[])[], metric: Metric): number | null {
  const paired = units.filter((values) => values.length > 1);
  const values = [...new Set(paired.flat())].sort((a, b) => a - b);
  const at = new Map(values.map((value, place) => [value, place]));
  const coincidences = values.map(() => values.map(() => 0));
  for (const unit of paired) {
    for (const [i, one] of unit.entries()) {
      for (const [j, other] of unit.entries()) {
        if (i === j) continue;
        const row = coincidences[at.get(one) ?? 0];
        if (row) row[at.get(other) ?? 0] = (row[at.get(other) ?? 0] ?? 0) + 1 / (unit.length - 1);
      }
    }
  }
  const totals = coincidences.map((row) => row.reduce((sum, n) => sum + n, 0));
  const n = totals.reduce((sum, total) => sum + total, 0);
  if (values.length < 2) return null;
  let observed = 0;
  let expected = 0;
  for (const [c, row] of coincidences.entries()) {
    for (const [k, n_ck] of row.entries()) {
      const distance = metric === 'nominal' ? Number(c !== k) : ranksBetween(totals, c, k) ** 2;
      observed += n_ck * distance;
      expected += (totals[c] ?? 0) * (totals[k] ?? 0) * distance;
    }
  }
  return 1 - ((n - 1) * observed) / expected;
}

/** How many values lie from one to the other, half of those at both ends. */
function ranksBetween(totals: readonly number[], c: number, k: number): number {
  const [from, to] = c < k ? [c, k] : [k, c];
  const between = totals.slice(from, to + 1).reduce((sum, total) => sum + total, 0);
  return between - ((totals[from] ?? 0) + (totals[to] ?? 0)) / 2;
}
