import { defined } from '../defined';
/**
 * Two yes/no facts counted together:
 *
 * |        | yes | no |
 * |--------|-----|----|
 * | first  | a   | b  |
 * | second | c   | d  |
 */
export interface TwoByTwo {
  a: number;
  b: number;
  c: number;
  d: number;
}

/**
 * The odds ratio with half a count added to each cell, so that an empty cell gives a figure.
 *
 * @returns above 0; 1 when both rows are alike
 * @see Haldane (1956), Annals of Human Genetics 20; Anscombe (1956), Biometrika 43
 * @example oddsRatio({ a: 10, b: 5, c: 2, d: 8 }) // (10.5 · 8.5) / (5.5 · 2.5) = 6.4909…
 */
export function oddsRatio({ a, b, c, d }: TwoByTwo): number {
  return ((a + 0.5) * (d + 0.5)) / ((b + 0.5) * (c + 0.5));
}

/**
 * Yule's Q, the association in a table of two by two: (ad − bc) / (ad + bc), from the counts as they are.
 *
 * @returns −1 … 1; 0 when both rows are alike; null where a row or a column is empty, and nothing can be compared
 * @see Yule (1900), Philosophical Transactions A 194
 * @example yulesQ({ a: 10, b: 5, c: 2, d: 8 }) // 70 / 90 = 0.7777…
 */
export function yulesQ({ a, b, c, d }: TwoByTwo): number | null {
  const both = a * d + b * c;
  return both === 0 ? null : (a * d - b * c) / both;
}

/**
 * Fisher's exact test, two-sided: the chance, with both margins as they are, of a table no likelier than this one.
 *
 * @param table  whole counts, none negative
 * @returns 0 … 1; 1 for an empty table
 * @see Fisher (1935), The Design of Experiments, ch. 2; the two-sided rule of summing the tables that are no likelier
 * @example fisherExact({ a: 3, b: 1, c: 1, d: 3 }) // 34 / 70 = 0.4857…, the lady tasting tea
 */
export function fisherExact({ a, b, c, d }: TwoByTwo): number {
  const row = a + b;
  const column = a + c;
  const n = row + c + d;
  const least = Math.max(0, row + column - n);
  const most = Math.min(row, column);
  /** How much likelier k + 1 in the first cell is than k. */
  const step = (k: number) => ((row - k) * (column - k)) / ((k + 1) * (n - row - column + k + 1));
  // Weights against the likeliest table: none overflows, and what underflows counts for nothing.
  const mode = Math.min(most, Math.max(least, Math.floor(((row + 1) * (column + 1)) / (n + 2))));
  const weights = new Float64Array(most - least + 1);
  weights[mode - least] = 1;
  for (let k = mode; k < most; k++) weights[k + 1 - least] = defined(weights[k - least]) * step(k);
  for (let k = mode; k > least; k--) weights[k - 1 - least] = defined(weights[k - least]) / step(k - 1);
  // Equal tables may differ in the last digits.
  const limit = defined(weights[a - least]) * (1 + 1e-7);
  let all = 0;
  let noLikelier = 0;
  for (const weight of weights) {
    all += weight;
    if (weight <= limit) noLikelier += weight;
  }
  return noLikelier / all;
}
