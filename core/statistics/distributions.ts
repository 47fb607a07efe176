import { defined } from '../defined';

// Lanczos' series with g = 7 and nine terms: about fifteen digits.
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
];
const MOST_TERMS = 500;
const TINY = 1e-300;

/** The natural logarithm of the gamma function, for x of 0.5 or more. */
function logGamma(x: number): number {
  const t = x + 6.5;
  let sum = defined(LANCZOS[0]);
  for (let i = 1; i < LANCZOS.length; i++) sum += defined(LANCZOS[i]) / (x + i - 1);
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum);
}

/** A continued fraction b0 + a1/(b1 + a2/(b2 + …)) after Lentz, as amended by Thompson & Barnett (1986). */
function continuedFraction(b0: number, term: (i: number) => { a: number; b: number }): number {
  let value = b0 || TINY;
  let c = value;
  let d = 0;
  for (let i = 1; i <= MOST_TERMS; i++) {
    const { a, b } = term(i);
    d = 1 / (b + a * d || TINY);
    c = b + a / c || TINY;
    value *= c * d;
    if (Math.abs(c * d - 1) < 1e-16) break;
  }
  return value;
}

/** The regularised incomplete beta function; DLMF 8.17.22, turned over where it converges slowly. */
function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0;
  if (x >= 1) return 1;
  if (x > (a + 1) / (a + b + 2)) return 1 - incompleteBeta(1 - x, b, a);
  const front = Math.exp(
    logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x) - Math.log(a),
  );
  const fraction = continuedFraction(1, (i) => {
    const m = i >> 1;
    const up = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
    const down = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
    return { a: i % 2 === 0 ? up : down, b: 1 };
  });
  return front / fraction;
}

/**
 * The chance that a normal deviate lies at least so far from 0, to either side: erfc(|z| / √2).
 *
 * @param z  a standard normal deviate
 * @returns 0 … 1
 * @see Abramowitz & Stegun (1964), 7.1.6 and 7.1.14
 * @example normalTwoSided(1.959963984540054) // 0.05
 */
export function normalTwoSided(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const scale = (2 / Math.sqrt(Math.PI)) * Math.exp(-x * x);
  if (x > 2.5) return scale / 2 / continuedFraction(x, (i) => ({ a: i / 2, b: x }));
  let term = x;
  let sum = x;
  for (let i = 1; term > sum * 1e-17; i++) {
    term *= (2 * x * x) / (2 * i + 1);
    sum += term;
  }
  return 1 - scale * sum;
}

/**
 * The chance that Student's t lies at least so far from 0, to either side.
 *
 * @param freedom  degrees of freedom, at least 1
 * @returns 0 … 1
 * @see Abramowitz & Stegun (1964), 26.7.1 with 26.5
 * @example studentTwoSided(2.228138851964939, 10) // 0.05
 */
export function studentTwoSided(t: number, freedom: number): number {
  return incompleteBeta(freedom / (freedom + t * t), freedom / 2, 0.5);
}

/**
 * How far from 0 Student's t must lie for a two-sided chance: the multiplier of a confidence interval.
 *
 * @param chance  above 0 and below 1; .05 for a 95% interval
 * @param freedom  degrees of freedom, at least 1
 * @returns a positive number, found by halving to about fourteen digits
 * @throws RangeError when chance or freedom are out of range
 * @example studentDeviate(0.05, 3) // 3.182446…, as in every table of t
 */
export function studentDeviate(chance: number, freedom: number): number {
  if (!(chance > 0 && chance < 1) || !(freedom >= 1)) throw new RangeError('No such deviate of Student’s t.');
  let low = 0;
  let high = 1;
  while (studentTwoSided(high, freedom) > chance) high *= 2;
  while (high - low > 1e-14 * high) {
    const middle = (low + high) / 2;
    if (middle === low || middle === high) break;
    if (studentTwoSided(middle, freedom) > chance) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
