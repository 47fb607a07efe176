import { defined } from '../../defined';
import { studentDeviate } from '../../statistics/distributions';
import { lagOneCorrelation } from '../../statistics/lag-one';
import type { DayValue } from './trend-line';

/** A point with how much it weighs: opportunities, minutes watched; above 0. */
export interface WeightedPoint extends DayValue {
  weight: number;
}

/**
 * The least that a single point of a level can vary by, whatever the points look like: one opportunity's worth.
 *
 * @param level  what is fitted there
 * @param weight  of the point
 * @returns the variance of one unit of weight: that of the point is this by its weight
 */
export type LeastVariance = (level: number, weight: number) => number;

/**
 * Of a percentage of opportunities: the binomial variance at a share drawn towards a half by one try each way, so that 6 of 6 is not
 * taken for certain.
 */
export const shareVariance: LeastVariance = (level, weight) => {
  const share = Math.min(100, Math.max(0, level)) / 100;
  const smoothed = (share * weight + 1) / (weight + 2);
  return 1e4 * smoothed * (1 - smoothed);
};

/**
 * Of figures that are no shares: they are known to their last digit only, so that each varies by its rounding (a twelfth of the step’s
 * square, Sheppard 1898, from memory).
 *
 * @param values  as they were recorded; up to two decimals count
 */
export function roundingVariance(values: readonly number[]): LeastVariance {
  const isStep = (step: number) => values.every((value) => Math.abs(value / step - Math.round(value / step)) < 1e-6);
  const step = [1, 0.1].find(isStep) ?? 0.01;
  return (_, weight) => (step * step * weight) / 12;
}

/** What is known of a fit besides its figures. */
export interface Certainty {
  /** How much neighbours are alike, 0 … .6. */
  correlation: number;
  /** How many unrelated points the points are worth. */
  effectivePoints: number;
  /**
   * Half the 95% interval of a weighted sum of the values.
   *
   * @param share  what each point's value is multiplied by
   */
  half: (share: (i: number) => number) => number;
}

/** At least so many degrees of freedom: a series of ten is not taken for three points. */
const LEAST_FREEDOM = 5;
/** Where chance alone accounts for how the points scatter, its variance is known and not estimated. */
const FREEDOM_OF_CHANCE = 20;

/**
 * How sure a fitted mean or line is: the variance is what the points scatter by, and no point's below the least that chance gives it;
 * the interval is widened by the effective number of points, with Student’s t of as many degrees of freedom.
 *
 * @param levels  what is fitted for each point, on the scale of the values themselves
 * @param residuals  what is left over each
 * @param fitted  1 for a mean, 2 for a line
 * @param known  how alike neighbours are, where that is known and need not be estimated
 * @see effective number of points n (1 − ρ) / (1 + ρ): Bayley & Hammersley (1946), from memory; coverage in docs/measures.md
 */
export function certaintyOf(
  points: readonly { weight: number }[],
  levels: readonly number[],
  residuals: readonly number[],
  fitted: 1 | 2,
  least: LeastVariance,
  known?: number,
): Certainty {
  const n = points.length;
  const scaled = residuals.map((rest, i) => rest * Math.sqrt(weightAt(points, i)));
  const scatter = scaled.reduce((sum, rest) => sum + rest * rest, 0) / Math.max(1, n - fitted);
  const chance = levels.map((level, i) => least(level, weightAt(points, i)));
  const isChance = scatter <= chance.reduce((sum, one) => sum + one, 0) / n;
  const correlation = known ?? lagOneCorrelation(scaled, fitted);
  const effectivePoints = Math.min(n, Math.max(fitted + LEAST_FREEDOM, (n * (1 - correlation)) / (1 + correlation)));
  const freedom = Math.max(1, effectivePoints - fitted);
  const deviate = deviate95(isChance ? Math.max(freedom, FREEDOM_OF_CHANCE) : freedom);
  const half = (share: (i: number) => number) => {
    const variance = chance.reduce(
      (sum, one, i) => sum + (share(i) ** 2 * Math.max(scatter, one)) / weightAt(points, i),
      0,
    );
    return deviate * Math.sqrt((variance * n) / effectivePoints);
  };
  return { correlation, effectivePoints, half };
}

const weightAt = (points: readonly { weight: number }[], i: number) => defined(points[i]).weight;

const deviates = new Map<number, number>();

/** To a tenth of a degree of freedom: the same few are asked for over and over. */
function deviate95(freedom: number): number {
  const tenth = Math.round(10 * freedom) / 10;
  const known = deviates.get(tenth) ?? studentDeviate(0.05, tenth);
  deviates.set(tenth, known);
  return known;
}
