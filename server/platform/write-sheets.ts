// Runs in a thread.
import { type WriteSheet, writeXlsx } from 'hucre/xlsx';

/**
 * The task behind `spreadsheet`.
 *
 * @param asked  sheets as `hucre` takes them, as JSON, with the cells of each as a list of pairs
 */
export function writeSheets(asked: string): Promise<Uint8Array> {
  const sheets: (WriteSheet & { cells: [string, never][] })[] = JSON.parse(asked);
  return writeXlsx({ sheets: sheets.map((sheet) => ({ ...sheet, cells: new Map(sheet.cells) })) });
}
