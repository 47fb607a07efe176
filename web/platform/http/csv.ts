import Papa from 'papaparse';

/** How a cell begins that a spreadsheet would take for a formula, whatever comes after it. */
const FORMULA = /^[=+\-@\t\r\n]/;

/**
 * Rows as a file of comma-separated text. A cell that begins like a formula would be one to a spreadsheet: it is neutralised.
 *
 * @param name  of the file, without its ending
 */
export function csvFile(name: string, fields: string[], rows: unknown[][]): Response {
  const text = Papa.unparse({ fields, data: rows }, { escapeFormulae: FORMULA });
  return new Response(`${text}\r\n`, {
    headers: {
      'Content-Type': 'text/csv; charset=utf-8',
      'Content-Disposition': `attachment; filename="${name}.csv"`,
    },
  });
}
