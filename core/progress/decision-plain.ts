import type { DecisionIs } from './decision-words';

/** What a decision means, for readers who do not work with graphs. None says more than the decision does. */
export const decisionPlain: Record<DecisionIs, string> = {
  metHolding: 'The goal’s criterion has been reached, and later observations hold it.',
  metNotHolding: 'The goal’s criterion was reached once; the latest observations fall short of it again.',
  metNotChecked: 'The goal’s criterion has been reached. It has not been observed again since.',
  above: 'The latest observations are better than what is needed by now to reach the target in time.',
  noChange: 'The latest observations are about where they need to be by now to reach the target in time.',
  below:
    'The latest observations fall short of what is needed by now to reach the target in time. That calls for a look at what to change.',
  tooEarly: 'There are too few observations to tell yet.',
  noRecentData: 'There is no recent observation to tell by.',
};
