import { defined } from '../../defined';
import { type Direction, signOf } from '../../goals/goal';
import { mean, standardDeviation } from '../../statistics/spread';
import { sumOver, tiesAmong } from '../../statistics/ties';
import { leastSquares } from '../trend/least-squares';
import { mannKendall } from '../trend/mann-kendall';
import { theilSen } from '../trend/theil-sen';
import { DAYS_PER_WEEK, type DayValue } from '../trend/trend-line';
import { certaintyOf, type LeastVariance, type WeightedPoint } from '../trend/weighted';
import { nonoverlapOfAllPairs, tau } from './nonoverlap';

const valuesOf = (points: readonly DayValue[]) => points.map(({ value }) => value);

/**
 * The 95% interval of NAP by Newcombe’s method 5: the shares that a test with the variance they themselves imply would not refuse.
 *
 * @returns the bounds, 0 … 1
 * @throws RangeError when a phase is empty
 * @see Newcombe (2006), Statistics in Medicine 25, part 2, method 5, from memory: |NAP − θ| = z √V(θ) with
 * V(θ) = θ (1 − θ) (1 + h (1 − θ) / (2 − θ) + h θ / (1 + θ)) / (m n), h = (m + n) / 2 − 1
 * @example napInterval([2, 3, 5], [4, 5, 6], 'increase') // around .833
 */
export function napInterval(a: readonly number[], b: readonly number[], direction: Direction) {
  const nap = nonoverlapOfAllPairs(a, b, direction);
  const h = (a.length + b.length) / 2 - 1;
  const isRefused = (share: number) => {
    const shape = 1 + (h * (1 - share)) / (2 - share) + (h * share) / (1 + share);
    const variance = (share * (1 - share) * shape) / (a.length * b.length);
    return (nap - share) ** 2 > Z_95 ** 2 * variance;
  };
  // From the bound of what is possible inwards: refused there, and not at NAP itself.
  const edge = (outer: number) => {
    let [far, near] = [outer, nap];
    for (let i = 0; i < 60; i++) {
      const middle = (far + near) / 2;
      if (isRefused(middle)) far = middle;
      else near = middle;
    }
    return near;
  };
  return { low: nap === 0 ? 0 : edge(0), high: nap === 1 ? 1 : edge(1) };
}

const Z_95 = 1.959963984540054;

/**
 * The log response ratio: ln of the second phase’s mean over the first’s, with the correction for its bias in short phases. Not oriented:
 * above 0 is more, whether more is better or not.
 *
 * @returns null where a mean is not above 0, or a phase has a single point
 * @see Pustejovsky (2018), Journal of School Psychology 68, from memory: each ln M is raised by s² / (2 n M²); SE² = Σ s² / (n M²)
 */
export function logResponseRatio(a: readonly number[], b: readonly number[]): { value: number; se: number } | null {
  const [first, second] = [a, b].map((values) => {
    const level = values.length === 0 ? 0 : mean(values);
    const sd = standardDeviation(values);
    return level > 0 && sd !== null ? { log: Math.log(level), variance: sd ** 2 / (values.length * level ** 2) } : null;
  });
  if (!first || !second) return null;
  return {
    value: second.log + second.variance / 2 - (first.log + first.variance / 2),
    se: Math.sqrt(first.variance + second.variance),
  };
}

/**
 * Baseline-corrected Tau: where the first phase has a trend of its own (Mann–Kendall, p < .05), its Theil–Sen line is taken off both
 * phases; then Kendall’s τ_b of phase and value. Oriented: above 0 is for the better.
 *
 * @returns −1 … 1; 0 where all values are the same
 * @throws RangeError when a phase is empty
 * @see Tarlow (2017), Behavior Modification 41(4), from memory
 */
export function baselineCorrectedTau(
  a: readonly DayValue[],
  b: readonly DayValue[],
  direction: Direction,
): { value: number; isCorrected: boolean } {
  const line = (mannKendall(a)?.p ?? 1) < 0.05 ? theilSen(a) : null;
  const rest = ({ day, value }: DayValue) => (line ? value - line.at(day) : value);
  const [before, after] = [a.map(rest), b.map(rest)];
  const all = [...before, ...after];
  const pairs = (all.length * (all.length - 1)) / 2;
  const tied = sumOver(tiesAmong(all), (t) => (t * (t - 1)) / 2);
  const between = a.length * b.length;
  // τ_b: pairs within a phase are ties of the phase.
  const scale = Math.sqrt(between * (pairs - tied));
  return { value: scale === 0 ? 0 : (tau(before, after, direction) * between) / scale, isCorrected: line !== null };
}

/** At least so many points a side make dual-criterion lines. */
const POINTS_FOR_DUAL_CRITERION = 5;
const QUARTER = 0.25;

/** Two lines of the first phase drawn on through the second, and how many of its points lie beyond both. */
export interface DualCriterion {
  /** Whether so many lie beyond both that chance brings it at most once in twenty. */
  pass: boolean;
  needed: number;
  /** What the published table asks for; null beyond its lengths. */
  published: number | null;
  beyond: number;
  /** The lines, in the second phase. */
  meanLine: number;
  lineAt: (day: number) => number;
}

/**
 * The conservative dual-criterion method: the mean and the least-squares line of the first phase, both moved by a quarter of its standard
 * deviation in the direction of the goal; the second phase differs where enough of its points lie beyond both.
 *
 * @returns null with fewer than five points a side
 * @see Fisher, Kelley & Lomas (2003), Journal of Applied Behavior Analysis 36(3); the number needed is the exact binomial’s at .05
 */
export function dualCriterion(
  a: readonly DayValue[],
  b: readonly DayValue[],
  direction: Direction,
): DualCriterion | null {
  if (Math.min(a.length, b.length) < POINTS_FOR_DUAL_CRITERION) return null;
  const line = leastSquares(a);
  const sd = standardDeviation(valuesOf(a));
  if (!line || sd === null) return null;
  const sign = signOf(direction);
  const moved = sign * QUARTER * sd;
  const meanLine = mean(valuesOf(a)) + moved;
  const lineAt = (day: number) => line.at(day) + moved;
  const beyond = b.filter(
    ({ day, value }) => sign * (value - meanLine) > 1e-9 && sign * (value - lineAt(day)) > 1e-9,
  ).length;
  const needed = neededByChance(b.length);
  return { pass: beyond >= needed, needed, published: publishedNeed(b.length), beyond, meanLine, lineAt };
}

/** From five points of the second phase to twenty-three. */
const PUBLISHED = [5, 6, 6, 7, 8, 8, 9, 9, 10, 11, 12, 12, 12, 13, 13, 14, 14, 15, 15];

/**
 * How many of n points the table printed with the method asks for. For some lengths it asks for one fewer than the exact binomial.
 *
 * @returns null for a length that the table does not have
 * @see Fisher, Kelley & Lomas (2003), the table for the conservative dual-criterion method; from memory
 * @example publishedNeed(10) // 8, where the exact binomial needs 9
 */
export function publishedNeed(n: number): number | null {
  return PUBLISHED[n - POINTS_FOR_DUAL_CRITERION] ?? null;
}

/**
 * The least number of n even chances that luck brings at most once in twenty.
 *
 * @example neededByChance(8) // 7: 9 of 256
 */
export function neededByChance(n: number): number {
  let tail = 0;
  let ways = 1;
  // From n down: the ways of k out of n, as a share of all.
  for (let k = n; k >= 0; k--) {
    tail += ways / 2 ** n;
    if (tail >= 0.05) return k + 1;
    ways = (ways * k) / (n - k + 1);
  }
  return n;
}

export interface Change {
  value: number;
  low: number;
  high: number;
}

/**
 * What changes at a phase line: the level on the second phase’s first day against where the first phase’s line would be, and the slope a
 * week. In the value’s unit, not oriented. Each phase has its own least-squares line; the interval joins both (their halves as the
 * sides of a right angle).
 *
 * @returns nulls with fewer than three points, or a single day, in a phase
 */
export function changeAtLine(
  a: readonly WeightedPoint[],
  b: readonly WeightedPoint[],
  least: LeastVariance,
): { levelChange: Change | null; slopeChange: Change | null } {
  const [first, second] = [fitOf(a, least), fitOf(b, least)];
  const day = b[0]?.day;
  if (!first || !second || day === undefined) return { levelChange: null, slopeChange: null };
  const between = (of: (fit: NonNullable<ReturnType<typeof fitOf>>) => { value: number; half: number }): Change => {
    const [before, after] = [of(first), of(second)];
    const value = after.value - before.value;
    const half = Math.hypot(before.half, after.half);
    return { value, low: value - half, high: value + half };
  };
  return { levelChange: between((fit) => fit.levelAt(day)), slopeChange: between((fit) => fit.slope) };
}

/** A phase’s line with the halves of its intervals; three points are enough for it. */
function fitOf(points: readonly WeightedPoint[], least: LeastVariance) {
  if (points.length < 3 || points.every(({ day }) => day === points[0]?.day)) return null;
  const weights = points.reduce((sum, { weight }) => sum + weight, 0);
  const share = (i: number) => defined(points[i]).weight / weights;
  const centre = points.reduce((sum, { day }, i) => sum + share(i) * day, 0);
  const level = points.reduce((sum, { value }, i) => sum + share(i) * value, 0);
  const xx = points.reduce((sum, { day, weight }) => sum + weight * (day - centre) ** 2, 0);
  const pull = (i: number) => {
    const { day, weight } = defined(points[i]);
    return (weight * (day - centre)) / xx;
  };
  const slope = points.reduce((sum, { value }, i) => sum + pull(i) * value, 0);
  const at = (day: number) => level + slope * (day - centre);
  const levels = points.map(({ day }) => at(day));
  const residuals = points.map(({ value }, i) => value - defined(levels[i]));
  const { half } = certaintyOf(points, levels, residuals, 2, least);
  return {
    slope: { value: DAYS_PER_WEEK * slope, half: DAYS_PER_WEEK * half(pull) },
    levelAt: (day: number) => ({ value: at(day), half: half((i) => share(i) + (day - centre) * pull(i)) }),
  };
}
