import { create as contentDisposition } from 'content-disposition';
import Papa from 'papaparse';

/** How a cell begins that a spreadsheet would take for a formula, whatever comes after it. */
const FORMULA = /^[=+\-@\t\r\n]/;

/** Says that the text is UTF-8: without it many a spreadsheet program shows “Zoë” as “ZoÃ«” (common practice). */
const BYTE_ORDER_MARK = '\uFEFF';

/**
 * Rows as a file of comma-separated text. A cell that begins like a formula would be one to a spreadsheet: it is neutralised.
 *
 * @param name  of the file, without its ending
 */
export function csvFile(name: string, fields: readonly string[], rows: readonly (readonly unknown[])[]): Response {
  const text = Papa.unparse({ fields: [...fields], data: rows.map((row) => [...row]) }, { escapeFormulae: FORMULA });
  return new Response(`${BYTE_ORDER_MARK}${text}\r\n`, {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': contentDisposition(`${name}.csv`),
    },
  });
}
