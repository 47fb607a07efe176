import type { WriteSheet } from 'hucre/xlsx';
import type { IsoDate } from '~/core/calendar/iso-date';
import { sheetNames, spreadsheetDay, spreadsheetTime, type Table, type TableCell } from '~/core/documents/table';
import { inThread } from './threads';

/** Ten thousand entries take a second. They go there as JSON, which is copied far faster than as many small values. */
const written = inThread<string, Uint8Array>('writeSheets', { seconds: 60, isReading: false });

type CellThere = NonNullable<WriteSheet['cells']> extends Map<string, infer One> ? One : never;

/** What the package is asked to write; the cells that are more than their values by row and column, `1,0` for the first below its heading. */
type SheetAsked = Omit<WriteSheet, 'cells'> & { cells: [string, CellThere][] };

const heading = { font: { name: 'Calibri', size: 11, bold: true } };
const aDay = { numFmt: 'yyyy-mm-dd' };
const aTime = { numFmt: 'hh:mm' };

/** What no XML can hold (W3C XML 1.0, 2.2) and the package leaves in. */
const NOT_IN_XML = /[\uFFFE\uFFFF]/g;
/** A spreadsheet program refuses a file with a longer text in one of its cells (from memory; common practice). */
const LONGEST_TEXT = 32_767;
const CUT = ' … (cut here, since a cell holds no more: CSV has all of it)';

/** A text as a cell can hold it. */
function textThere(text: string): string {
  const there = text.replace(NOT_IN_XML, '');
  return there.length > LONGEST_TEXT ? `${there.slice(0, LONGEST_TEXT - CUT.length)}${CUT}` : there;
}

/** The days of one file as their numbers: there are few, and each is looked up thousands of times. */
function daysOnce(): (on: IsoDate) => number {
  const known = new Map<IsoDate, number>();
  return (on) => {
    const day = known.get(on) ?? spreadsheetDay(on);
    known.set(on, day);
    return day;
  };
}

/** A cell that is more than its value; null for one that is not. */
function moreThanItsValue(cell: TableCell, dayOf: (on: IsoDate) => number): CellThere | null {
  if (cell === null || typeof cell === 'number') return null;
  // A text that begins so may read like an error of the spreadsheet, and is a text all the same.
  if (typeof cell === 'string') return cell.startsWith('#') ? { richText: [{ text: cell }] } : null;
  return 'on' in cell ? { value: dayOf(cell.on), style: aDay } : { value: spreadsheetTime(cell.time), style: aTime };
}

/** What is wide enough to be read without dragging, in characters. */
const widthOf = (field: string) => ({ width: { note: 40, answers: 40, sentence: 60, of: 24, parts: 30 }[field] ?? 13 });

function sheetOf(name: string, { fields, rows }: Table): SheetAsked {
  const cells = fields.map((value, column): [string, CellThere] => [`0,${column}`, { value, style: heading }]);
  const dayOf = daysOnce();
  const plain = rows.map((row, at) =>
    row.map((given, column) => {
      const cell = typeof given === 'string' ? textThere(given) : given;
      const more = moreThanItsValue(cell, dayOf);
      if (more !== null) cells.push([`${at + 1},${column}`, more]);
      return more !== null || cell === '' || typeof cell === 'object' ? null : cell;
    }),
  );
  return { name, columns: fields.map(widthOf), rows: [[...fields], ...plain], cells, freezePane: { rows: 1 } };
}

/**
 * Tables as a spreadsheet, a sheet each, whose headings stay in sight. Numbers, dates and times are what they are there, to be computed
 * with; a text is a text, whatever it begins with.
 *
 * @returns XLSX (ECMA-376)
 */
export function spreadsheet(tables: readonly Table[]): Promise<Uint8Array> {
  const names = sheetNames(tables.map((table) => table.name));
  return written(JSON.stringify(tables.map((table, at) => sheetOf(names[at] ?? table.name, table))));
}
