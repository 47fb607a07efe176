import { type Cell, lengthCell, partsOf } from './cells';
import type { OneCell } from './one-cell';
import { unsupportedOutcomes, unsupportedWords } from './support-levels';

export interface Column {
  key: string;
  label: string;
  /** What a cell may hold, as an example. */
  example: string;
}

/** The texts of a row's cells by column; what is not in it is empty. */
export type Cells = Record<string, string>;

/** Reads a column with a function, and notes what is wrong with it. */
export type Take = <T>(key: string, read: (text: string) => Cell<T>) => T | undefined;

/** A table of sessions, a row each, as it stands on paper. */
export interface MeasureTable<D> {
  columns: (definition: D) => Column[];
  /** The data of a row whose cells are read one by one with `take`; what cannot be read is noted by it. */
  read: (definition: D, cells: Cells, take: Take) => unknown;
  /**
   * A whole session in one cell, as people keep it in tables of their own, as the cells of this table; left out where it is what stands in
   * the first column. What the cell does not tell is said in `note`.
   */
  one?: (definition: D, text: string, about: OneCell) => Cell<Cells>;
  /** The column in which a part of the data stands that the measure refuses; the first where nothing is said. */
  columnOf?: (definition: D, path: readonly PropertyKey[]) => string;
}

/** What is no success at any level, as choices. */
export const otherOutcomes = unsupportedOutcomes.map((key) => ({ key, label: unsupportedWords[key].label }));

/** Short ways of writing right and wrong in a cell; common practice on paper. Where help has levels, “right” must say which. */
export function marks(levels: readonly { key: string }[], wrong: string): Record<string, string> {
  const [only, ...others] = levels;
  const ways: Record<string, string> = { '-': wrong, '−': wrong, '0': wrong };
  if (only && others.length === 0) for (const sign of ['+', '1', 'x', '✓']) ways[sign] = only.key;
  return ways;
}

export const markExample = ([first, ...others]: readonly { label: string }[]) =>
  others.length === 0 ? '+ or −' : (first?.label ?? '');

/** Several things in one cell, each read by the same function; the first that cannot be read speaks for all. */
export const several =
  <T>(read: (part: string) => Cell<T>) =>
  (text: string): Cell<T[]> => {
    const parts = partsOf(text).map(read);
    const bad = parts.find((cell) => !cell.ok);
    return bad && !bad.ok ? bad : { ok: true, value: parts.flatMap((cell) => (cell.ok ? [cell.value] : [])) };
  };

/** Several lengths of time in one cell. */
export const lengths = several(lengthCell);

/** The cells that are filled, each with its thing. */
export function filled<T extends { key: string }, R>(
  things: readonly T[],
  cells: Cells,
  read: (thing: T) => R | undefined,
): R[] {
  return things.flatMap((thing) => (cells[thing.key] ? (read(thing) ?? []) : []));
}
