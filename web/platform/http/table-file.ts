import { tableOf } from '~/core/documents/table';
import { csvFile } from './csv';
import { xlsxFile } from './xlsx';

/** Which file an address asks for. */
export const tableFormat = (request: Request): 'CSV' | 'XLSX' =>
  new URL(request.url).pathname.endsWith('.xlsx') ? 'XLSX' : 'CSV';

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
  if (tableFormat(request) === 'CSV') return csvFile(name, fields, rows);
  return xlsxFile(name, [tableOf(sheet, fields, rows)]);
}
