import { tableOf } from '~/core/documents/table';
import { csvFile } from './csv';
import { xlsxFile } from './xlsx';

/** Whether an address asks for a spreadsheet. */
export const asksForSpreadsheet = (request: Request): boolean => new URL(request.url).pathname.endsWith('.xlsx');

/**
 * Rows as the file that is asked for: comma-separated text, or a spreadsheet with real dates, times and numbers.
 *
 * @param name  of the file, without its ending
 */
export async function tableFile(
  request: Request,
  { name, sheet }: { name: string; sheet: string },
  fields: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
): Promise<Response> {
  if (!asksForSpreadsheet(request)) return csvFile(name, fields, rows);
  return xlsxFile(name, [tableOf(sheet, fields, rows)]);
}
