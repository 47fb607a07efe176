/** No more than this is believed of a short series: what is estimated above it is mostly luck. */
const MOST = 0.6;
/** By how many points' worth a short series is drawn towards no correlation. */
const SHRINKING = 4;

/**
 * How much neighbours of a series are alike: the lag-one correlation of what is left over a fit, corrected for its bias in short
 * series (residuals of a fitted mean or line look less alike than they are), drawn a little towards 0 and kept from 0 to .6. Below 0
 * it is taken for 0: an interval is never narrowed by it.
 *
 * @param residuals  in order of time, each multiplied by the root of its weight
 * @param fitted  how many figures were fitted: 1 for a mean, 2 for a line
 * @see the bias: Marriott & Pope (1954) and Kendall (1954), Biometrika 41, for a mean −(1 + 3ρ) / n, for a line about −(2 + 4ρ) / n (from
 * memory); bound and shrinking are our own, chosen by `npm run simulate`
 */
export function lagOneCorrelation(residuals: readonly number[], fitted: 1 | 2): number {
  const n = residuals.length;
  const inverse = fitted + 2;
  if (n <= inverse) return 0;
  let squares = 0;
  let products = 0;
  let before = 0;
  for (const one of residuals) {
    squares += one * one;
    products += one * before;
    before = one;
  }
  if (squares === 0) return 0;
  const corrected = ((products / squares) * n + fitted) / (n - inverse);
  return Math.min(MOST, Math.max(0, corrected * (1 - SHRINKING / n)));
}
