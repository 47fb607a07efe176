import Papa from 'papaparse';

/** How a cell begins that a spreadsheet would take for a formula, whatever comes after it. */
const FORMULA = /^[=+\-@\t\r\n]/;

/** Says that the text is UTF-8: without it many a spreadsheet program shows “Zoë” as “ZoÃ«” (common practice). */
const BYTE_ORDER_MARK = '\uFEFF';

/** Rows as comma-separated text (RFC 4180). A cell that begins like a formula would be one to a spreadsheet: it is neutralised. */
export function commaSeparated(fields: readonly string[], rows: readonly (readonly unknown[])[]): string {
  const text = Papa.unparse({ fields: [...fields], data: rows.map((row) => [...row]) }, { escapeFormulae: FORMULA });
  return `${BYTE_ORDER_MARK}${text}\r\n`;
}
