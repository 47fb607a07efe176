import { sum } from '../../statistics/spread';
/** At or above this, two observers usually count as agreeing (common practice); for κ, `USUAL_KAPPA`. */
export const USUAL_AGREEMENT = 0.8;
export const USUAL_KAPPA = 0.6;
/** In each phase so much of the sessions is usually watched by two (common practice). */
export const USUAL_SHARE_OF_SESSIONS = 0.2;

/** Smaller over larger. Two observers who both saw nothing agree. */
function ratio(a: number, b: number): number {
  if (!(a >= 0) || !(b >= 0)) throw new RangeError('Counts and lengths are not below nothing.');
  return a === b ? 1 : Math.min(a, b) / Math.max(a, b);
}

function sameLength(a: readonly unknown[], b: readonly unknown[]): void {
  if (a.length !== b.length) throw new RangeError('Both observers must have looked at the same number of things.');
  if (a.length === 0) throw new RangeError('Two observers need at least one thing that both have looked at.');
}

/** The mean of a figure over pairs. */
function meanOver<T>(a: readonly T[], b: readonly T[], of: (a: T, b: T) => number): number {
  sameLength(a, b);
  return sum(a.map((value, i) => of(value, b[i] as T))) / a.length;
}

/**
 * Total count agreement: the smaller count over the larger.
 *
 * @returns 0 … 1
 * @throws RangeError when a count is below 0
 * @see Cooper, Heron & Heward, Applied Behavior Analysis, “Improving and assessing the quality of behavioral measurement”
 * @example totalCountAgreement(8, 10) // 0.8
 */
export function totalCountAgreement(a: number, b: number): number {
  return ratio(a, b);
}

/**
 * Mean count-per-interval agreement: smaller over larger in each interval, averaged.
 *
 * @param a  one observer's count in each interval
 * @throws RangeError when the lengths differ, there is no interval, or a count is below 0
 * @see Cooper, Heron & Heward, Applied Behavior Analysis
 * @example meanCountPerIntervalAgreement([2, 3], [2, 4]) // (1 + 3/4) / 2 = 0.875
 */
export function meanCountPerIntervalAgreement(a: readonly number[], b: readonly number[]): number {
  return meanOver(a, b, ratio);
}

/**
 * Exact count-per-interval agreement: the share of intervals with the very same count.
 *
 * @throws RangeError when the lengths differ or there is no interval
 * @see Cooper, Heron & Heward, Applied Behavior Analysis
 * @example exactCountPerIntervalAgreement([2, 3], [2, 4]) // 0.5
 */
export function exactCountPerIntervalAgreement(a: readonly number[], b: readonly number[]): number {
  return meanOver(a, b, (x, y) => (x === y ? 1 : 0));
}

/**
 * Trial-by-trial agreement: the share of trials on which both say the same.
 *
 * @throws RangeError when the lengths differ or there is no trial
 * @see Cooper, Heron & Heward, Applied Behavior Analysis
 * @example trialByTrialAgreement(['right', 'wrong'], ['right', 'right']) // 0.5
 */
export function trialByTrialAgreement<T>(a: readonly T[], b: readonly T[]): number {
  return meanOver(a, b, (x, y) => (x === y ? 1 : 0));
}

/**
 * Interval-by-interval agreement: the share of intervals on which both say yes or both say no.
 *
 * @throws RangeError when the lengths differ or there is no interval
 * @see Cooper, Heron & Heward, Applied Behavior Analysis
 * @example intervalByIntervalAgreement([true, true, false, false], [true, false, false, false]) // 0.75
 */
export function intervalByIntervalAgreement(a: readonly boolean[], b: readonly boolean[]): number {
  return trialByTrialAgreement(a, b);
}

/** Agreement over the intervals that at least one observer scored as `is`; null where neither did. */
function agreementWhereScored(a: readonly boolean[], b: readonly boolean[], is: boolean): number | null {
  sameLength(a, b);
  let both = 0;
  let either = 0;
  a.forEach((value, i) => {
    if (value === is || b[i] === is) either++;
    if (value === is && b[i] === is) both++;
  });
  return either === 0 ? null : both / either;
}

/**
 * Scored-interval agreement: of the intervals in which at least one observer saw it, the share in which both did. For what is
 * seldom.
 *
 * @returns null where neither ever saw it
 * @throws RangeError when the lengths differ or there is no interval
 * @see Hawkins & Dotson (1975); Cooper, Heron & Heward, Applied Behavior Analysis
 * @example scoredIntervalAgreement([true, true, false, false], [true, false, false, false]) // 0.5
 */
export function scoredIntervalAgreement(a: readonly boolean[], b: readonly boolean[]): number | null {
  return agreementWhereScored(a, b, true);
}

/**
 * Unscored-interval agreement: of the intervals in which at least one observer did not see it, the share in which neither
 * did. For what is frequent.
 *
 * @returns null where both always saw it
 * @throws RangeError when the lengths differ or there is no interval
 * @see Hawkins & Dotson (1975); Cooper, Heron & Heward, Applied Behavior Analysis
 * @example unscoredIntervalAgreement([true, true, false, false], [true, false, false, false]) // 2/3
 */
export function unscoredIntervalAgreement(a: readonly boolean[], b: readonly boolean[]): number | null {
  return agreementWhereScored(a, b, false);
}

/**
 * Total duration agreement: the shorter total over the longer.
 *
 * @param a  one observer's lengths, any unit
 * @throws RangeError when a length is below 0
 * @see Cooper, Heron & Heward, Applied Behavior Analysis
 * @example totalDurationAgreement([30, 60], [30, 70]) // 0.9
 */
export function totalDurationAgreement(a: readonly number[], b: readonly number[]): number {
  return ratio(sum(a), sum(b));
}

/**
 * Mean duration-per-occurrence agreement: shorter over longer for each occurrence, averaged.
 *
 * @throws RangeError when the lengths differ, there is no occurrence, or a length is below 0
 * @see Cooper, Heron & Heward, Applied Behavior Analysis
 * @example meanDurationPerOccurrenceAgreement([30, 60], [30, 80]) // 0.875
 */
export function meanDurationPerOccurrenceAgreement(a: readonly number[], b: readonly number[]): number {
  return meanOver(a, b, ratio);
}
