/**
 * What becomes of a row:
 * - `new`: comes in
 * - `changed`: changes what is there
 * - `gone`: what was there and is in the file no longer
 * - `there`: is there already, and stays as it is
 * - `wrong`: needs another look, and stays out
 */
export const fates = ['wrong', 'new', 'changed', 'gone', 'there'] as const;
export type Fate = (typeof fates)[number];

/** One row of a file as it is shown before anything is saved. */
export interface PreviewRow {
  /** The number that the file's program shows beside it; null for what is in it no longer. */
  row: number | null;
  fate: Fate;
  /** Whom or what it is about. */
  about: string;
  /** What will be said of it. */
  says: string;
  /** What needs another look, each with the column that it is about. */
  messages: string[];
}

/** What a file comes to: its rows, and what is to be written for those that come in. */
export interface Planned<Command> {
  rows: PreviewRow[];
  commands: Command[];
  /** What else comes of it, in words. */
  notes?: string[];
}

/** How many rows have each fate. */
export function fateCounts(rows: readonly Pick<PreviewRow, 'fate'>[]): Record<Fate, number> {
  const counts: Record<Fate, number> = { wrong: 0, new: 0, changed: 0, gone: 0, there: 0 };
  for (const { fate } of rows) counts[fate]++;
  return counts;
}
