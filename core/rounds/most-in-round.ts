/** Goals that fit in a round. */
export const MOST_IN_ROUND = 40;
