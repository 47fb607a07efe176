// Apart from the rules themselves: the words are on every page, the rules are computed on the server.

export type VerdictIs = 'met' | 'onCourse' | 'aboveCourse' | 'belowCourse' | 'tooEarly' | 'noRecentData';

/** The word and the mark of each verdict: never colour alone. */
export const verdictWords: Record<VerdictIs, { label: string; mark: string; needsAttention: boolean }> = {
  met: { label: 'Met', mark: '●', needsAttention: false },
  aboveCourse: { label: 'Above course', mark: '◆', needsAttention: false },
  onCourse: { label: 'On course', mark: '▲', needsAttention: false },
  belowCourse: { label: 'Below course', mark: '▽', needsAttention: true },
  tooEarly: { label: 'Too early to tell', mark: '…', needsAttention: false },
  noRecentData: { label: 'No recent data', mark: '○', needsAttention: true },
};
