export interface Interval {
  low: number;
  high: number;
}

/** The standard normal deviate that leaves 2.5% in each tail. */
const Z_95 = 1.959963984540054;

/**
 * Wilson's score interval for a proportion, without continuity correction.
 *
 * @param successes  a count, 0 … n
 * @param n  the number of chances, at least 1
 * @param z  the normal deviate of the confidence wanted; 95% unless said otherwise
 * @returns the bounds as proportions, 0 … 1
 * @throws RangeError when n is below 1 or successes lie outside 0 … n
 * @see Wilson (1927), JASA 22; worked in Newcombe (1998), Statistics in Medicine 17
 * @example wilsonInterval(81, 263) // { low: 0.2553, high: 0.3662 }
 */
export function wilsonInterval(successes: number, n: number, z: number = Z_95): Interval {
  if (!(n >= 1) || successes < 0 || successes > n) {
    throw new RangeError('A share needs at least one chance, and no more successes than chances.');
  }
  const p = successes / n;
  const z2 = z * z;
  const centre = p + z2 / (2 * n);
  const spread = z * Math.sqrt((p * (1 - p) + z2 / (4 * n)) / n);
  const scale = 1 + z2 / n;
  return {
    low: successes === 0 ? 0 : Math.max(0, (centre - spread) / scale),
    high: successes === n ? 1 : Math.min(1, (centre + spread) / scale),
  };
}
