import { createRequire } from 'node:module';
import { sheetNames, spreadsheetDay, spreadsheetTime, type Table, type TableCell } from '~/core/documents/table';
import { beside } from './beside';

const require = createRequire(import.meta.url);

/** Ten thousand entries take seconds. */
const written = beside<object[], Uint8Array>(
  `(() => {
    const { default: write } = require(given);
    return (sheets) => write(sheets).toBuffer();
  })()`,
  () => require.resolve('write-excel-file/node'),
);

/** What it is of follows from its value. */
const number = (value: number, format?: string) => ({ value, ...(format && { format }) });

function cellOf(cell: TableCell) {
  if (cell === null || cell === '') return null;
  if (typeof cell === 'number') return number(cell);
  if (typeof cell === 'string') return { value: cell };
  return 'on' in cell ? number(spreadsheetDay(cell.on), 'yyyy-mm-dd') : number(spreadsheetTime(cell.time), 'hh:mm');
}

/** What is wide enough to be read without dragging, in characters. */
const widthOf = (field: string) => ({ width: { note: 40, answers: 40, sentence: 60, of: 24, parts: 30 }[field] ?? 13 });

/**
 * Tables as a spreadsheet, a sheet each, whose headings stay in sight. Numbers, dates and times are what they are there, to be computed
 * with; a text is a text, whatever it begins with.
 *
 * @returns XLSX (ECMA-376)
 */
export function spreadsheet(tables: readonly Table[]): Promise<Uint8Array> {
  const names = sheetNames(tables.map((table) => table.name));
  const sheets = tables.map(({ fields, rows }, at) => ({
    data: [fields.map((value) => ({ value, fontWeight: 'bold' as const })), ...rows.map((row) => row.map(cellOf))],
    sheet: names[at],
    stickyRowsCount: 1,
    columns: fields.map(widthOf),
  }));
  return written(sheets);
}
