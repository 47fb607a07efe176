/** Rows of a goal's entries that its page shows before one asks for all. */
export const FIRST_ROWS = 25;
