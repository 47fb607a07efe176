// Apart from the rules themselves: the words are on every page, the rules are computed on the server.

/** What the decision rules say; `below` and `above` are behind and ahead of the aim line, for goals that go down too. */
export type DecisionIs =
  | 'metHolding'
  | 'metNotHolding'
  | 'metNotChecked'
  | 'noRecentData'
  | 'tooEarly'
  | 'below'
  | 'above'
  | 'noChange';

/** The word and the mark of each decision: never colour alone. */
export const decisionWords: Record<DecisionIs, { label: string; mark: string; needsAttention: boolean }> = {
  metHolding: { label: 'Met, holding', mark: '●', needsAttention: false },
  metNotHolding: { label: 'Met, not holding', mark: '◐', needsAttention: true },
  metNotChecked: { label: 'Met, not checked since', mark: '◌', needsAttention: true },
  above: { label: 'Ahead of the aim line', mark: '◆', needsAttention: false },
  noChange: { label: 'No change called for', mark: '▲', needsAttention: false },
  below: { label: 'Behind the aim line', mark: '▽', needsAttention: true },
  tooEarly: { label: 'Too early to tell', mark: '…', needsAttention: false },
  noRecentData: { label: 'No recent data', mark: '○', needsAttention: true },
};
