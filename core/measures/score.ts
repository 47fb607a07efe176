/**
 * Why an observation has no score, as the observer says it. Kept apart from each other, and never counted as 0.
 * A goal that was simply not observed has no observation at all.
 */
export const noScoreReasons = ['absent', 'refused', 'noOpportunity'] as const;
export type NoScoreReason = (typeof noScoreReasons)[number];

/** Why data was recorded and still gives no score: cues without any response; nothing that could be told yes from no. */
export type UnscoredReason = NoScoreReason | 'noResponse' | 'nothingScored';

export const noScoreWords: Record<NoScoreReason, { label: string; sentence: string }> = {
  absent: { label: 'Absent', sentence: 'Absent. No score for this day.' },
  refused: { label: 'Refused the session', sentence: 'Refused the session. No score.' },
  noOpportunity: { label: 'No opportunity', sentence: 'The skill did not come up. No score.' },
};

/** A value on the measure's axis, and what it comes from. */
export interface Scored {
  value: number;
  /** What was counted or added up: successes, calls, seconds, correct words … */
  amount: number;
  /** What it is held against, and how much the point weighs: opportunities, minutes watched, seconds read … */
  weight: number;
  /** The true value lies somewhere beyond this one: no response came within the limit. */
  isBeyond?: boolean;
}

/** What an observation, or a day of them, comes to: a value, or why there is none. */
export type Score = Scored | { value: null; reason: UnscoredReason };

/** One line of what lies behind a score, for tables: a level, an item, a step, a figure. */
export interface BreakdownLine {
  key: string;
  label: string;
  /** How many, how much; null where nothing was recorded of it. */
  value: number | null;
  /** The same with its unit or its share, in words. */
  said: string;
}

/** The whole number that a criterion's value comes to: rounded up where it is the least, down where it is the most. */
export function wholeFor(value: number, comparison: 'atLeast' | 'atMost'): number {
  // 70% of 10 may come out a hair above 7.
  return comparison === 'atLeast' ? Math.ceil(value - 1e-9) : Math.floor(value + 1e-9);
}

/**
 * A percentage of so many as a whole number of them: ⌈value · n⌉ for a goal that goes up, since 75% of four questions is
 * 3 of 4 (common practice); ⌊value · n⌋ for one that goes down.
 *
 * @param value  0 … 100
 * @param n  opportunities, at least 1
 * @example asCount(80, 6, 'atLeast') // 5
 * @example asCount(70, 10, 'atLeast') // 7, and not 8 for want of exact binary fractions
 * @example asCount(20, 6, 'atMost') // 1
 */
export function asCount(value: number, n: number, comparison: 'atLeast' | 'atMost'): number {
  return Math.min(n, Math.max(0, wholeFor((value * n) / 100, comparison)));
}
