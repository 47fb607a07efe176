/** Points that a sign takes in a column that is as wide as what stands in it, and the widest such column. */
const SIGN = 5.7;
const WIDEST = 130;
const INSETS = 10;
const BOLD_SIGN = 6.2;
const WIDEST_NAME = 180;

interface Columns {
  columns: readonly string[];
  widths: readonly ('auto' | 'wide')[];
  rows: readonly (readonly string[])[];
}

/**
 * The widths of a table’s columns in points; null for those that share what is left. Measured by their signs: to set thousands of rows
 * twice, only to see how wide they are, takes as long as all else.
 */
export function columnWidths({ columns, widths, rows }: Columns): (number | null)[] {
  return widths.map((width, at) => {
    if (width === 'wide') return null;
    let signs = longest(columns[at] ?? '');
    for (const cells of rows) signs = Math.max(signs, longest(cells[at] ?? ''));
    return Math.min(WIDEST, Math.ceil(signs * SIGN) + INSETS);
  });
}

/** How wide a column is in points that holds bold names, so that none is broken. */
export const nameWidth = (names: readonly string[]): number =>
  Math.min(WIDEST_NAME, Math.ceil(Math.max(0, ...names.map(longest)) * BOLD_SIGN) + INSETS);

const longest = (text: string) => Math.max(...text.split('\n').map((line) => line.length));
