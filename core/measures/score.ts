/**
 * Why an observation has no score. Kept apart from each other, and never counted as 0.
 * A goal that was simply not observed has no observation at all.
 */
export const noScoreReasons = ['absent', 'declined', 'noOpportunity'] as const;
export type NoScoreReason = (typeof noScoreReasons)[number];

export const noScoreWords: Record<NoScoreReason, { label: string; sentence: string }> = {
  absent: { label: 'Absent', sentence: 'Absent: nothing was scored.' },
  declined: { label: 'Declined the session', sentence: 'Declined the whole session: nothing was scored.' },
  noOpportunity: { label: 'No chance came up', sentence: 'No chance came up: nothing was scored.' },
};

/** What an observation, or a day of them, comes to: a value on the measure's axis, or why there is none. */
export type Score =
  | { value: number; successes: number; opportunities: number }
  | { value: null; reason: NoScoreReason };
