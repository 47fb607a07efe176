import { defined } from '../../defined';
import {
  exactCountPerIntervalAgreement,
  intervalByIntervalAgreement,
  meanCountPerIntervalAgreement,
  scoredIntervalAgreement,
  totalCountAgreement,
  unscoredIntervalAgreement,
} from './agreement';
import { cohensKappa } from './kappa';

/** A window in which two people watched for the same behavior; minutes from midnight. */
export interface Window {
  from: number;
  to: number;
  /** Minutes. */
  interval: number;
}

export interface OccurrenceAgreement {
  counts: { a: number; b: number };
  intervals: number;
  /** Counts of each observer in each interval. */
  perInterval: { a: number[]; b: number[] };
  total: number;
  meanPerInterval: number;
  exactPerInterval: number;
  occurrence: number;
  /** Null where neither ever saw it, or both always did. */
  scored: number | null;
  unscored: number | null;
  kappa: number | null;
}

/**
 * How far two observers agree on when a behavior occurred, over a window that both watched.
 *
 * @param a  the minutes (from midnight) at which one observer noted it; what lies outside of the window is passed over
 * @throws RangeError for a window without an interval
 * @see Cooper, Heron & Heward, Applied Behavior Analysis; the functions of agreement.ts, and Cohen (1960) for κ
 * @example occurrenceAgreement([602, 611], [603], { from: 600, to: 620, interval: 10 }).occurrence // 0.5
 */
export function occurrenceAgreement(a: readonly number[], b: readonly number[], window: Window): OccurrenceAgreement {
  const { from, to, interval } = window;
  if (!(interval > 0) || !(to > from))
    throw new RangeError('A window has a beginning, an end after it, and intervals.');
  // The last interval may be shorter.
  const intervals = Math.ceil((to - from) / interval);
  const countsOf = (minutes: readonly number[]) => {
    const counts = new Array<number>(intervals).fill(0);
    for (const minute of minutes) {
      if (minute < from || minute >= to) continue;
      const at = Math.floor((minute - from) / interval);
      counts[at] = defined(counts[at]) + 1;
    }
    return counts;
  };
  const [countsA, countsB] = [countsOf(a), countsOf(b)];
  const [sawA, sawB] = [countsA.map((n) => n > 0), countsB.map((n) => n > 0)];
  const sum = (counts: readonly number[]) => counts.reduce((total, n) => total + n, 0);
  return {
    counts: { a: sum(countsA), b: sum(countsB) },
    intervals,
    perInterval: { a: countsA, b: countsB },
    total: totalCountAgreement(sum(countsA), sum(countsB)),
    meanPerInterval: meanCountPerIntervalAgreement(countsA, countsB),
    exactPerInterval: exactCountPerIntervalAgreement(countsA, countsB),
    occurrence: intervalByIntervalAgreement(sawA, sawB),
    scored: scoredIntervalAgreement(sawA, sawB),
    unscored: unscoredIntervalAgreement(sawA, sawB),
    kappa: cohensKappa(sawA.map(String), sawB.map(String)).kappa,
  };
}
