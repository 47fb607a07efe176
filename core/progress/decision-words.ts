// Apart from the rules themselves: the words are on every page, the rules are computed on the server.

export type DecisionIs = 'met' | 'onCourse' | 'aboveCourse' | 'belowCourse' | 'tooEarly' | 'noRecentData';

/** The word and the mark of each decision: never colour alone. */
export const decisionWords: Record<DecisionIs, { label: string; mark: string; needsAttention: boolean }> = {
  met: { label: 'Met', mark: '●', needsAttention: false },
  aboveCourse: { label: 'Ahead of the aim line', mark: '◆', needsAttention: false },
  onCourse: { label: 'No change called for', mark: '▲', needsAttention: false },
  belowCourse: { label: 'Behind the aim line', mark: '▽', needsAttention: true },
  tooEarly: { label: 'Too early to tell', mark: '…', needsAttention: false },
  noRecentData: { label: 'No recent data', mark: '○', needsAttention: true },
};
