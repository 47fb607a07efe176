import { createRequire } from 'node:module';
import Papa from 'papaparse';
import type { IsoDate } from '~/core/calendar/iso-date';
import {
  type FileTable,
  MADE_A_DATE,
  MOST_FILE_BYTES,
  MOST_ROWS,
  tableOf,
  tooLargeWords,
  Unreadable,
} from '~/core/imports/file-table';
import { isOneRoster, type OneRoster, readOneRoster } from '~/core/imports/one-roster';
import { beside } from '../platform/beside';
import { unzipped } from './unzip';

const require = createRequire(import.meta.url);

/** What stands in a file: tables, or a roster of the open standard. */
export type FileContent = { is: 'tables'; tables: FileTable[] } | { is: 'oneRoster'; roster: OneRoster };

/** The sheets of a spreadsheet as texts. One of many rows takes seconds. */
const sheetsOf = beside<{ bytes: Uint8Array; most: number }, { name: string; rows: string[][]; all: number }[] | null>(
  `(() => {
    const { default: read } = require(given.reader);
    const asText = (cell) => {
      if (cell === null || cell === undefined) return '';
      if (typeof cell === 'boolean') return cell ? 'yes' : 'no';
      // What is computed in binary shows no more figures than anybody typed.
      if (typeof cell === 'number') return String(Number(cell.toPrecision(12)));
      if (!(cell instanceof Date)) return String(cell);
      const [day, time] = [cell.toISOString().slice(0, 10), new Date(cell.getTime() + 30000).toISOString().slice(11, 16)];
      if (day < '1900-01-02') return time;
      return given.mark + (time === '00:00' ? day : day + ' ' + time);
    };
    return async ({ bytes, most }) => {
      let sheets;
      // Whatever the reader stumbles over, it is the file that cannot be read.
      try { sheets = await read(Buffer.from(bytes)); } catch { return null; }
      return sheets.map(({ sheet, data }) => ({ name: sheet, all: data.length, rows: data.slice(0, most).map((row) => row.map(asText)) }));
    };
  })()`,
  () => ({ reader: require.resolve('read-excel-file/node'), mark: MADE_A_DATE }),
);

/**
 * What stands in a file that somebody hands over: CSV (in UTF-8, UTF-16 or the Western code page; parted by commas, semicolons or tabs),
 * XLSX, or an archive of OneRoster 1.2.
 *
 * @param today  classes and enrollments that are over are not read
 * @throws Unreadable with what is wrong with it, in words
 */
export async function readFileContent(name: string, bytes: Buffer, today: IsoDate): Promise<FileContent> {
  if (bytes.length === 0) throw new Unreadable('The file is empty.');
  if (bytes.length > MOST_FILE_BYTES) throw new Unreadable(tooLargeWords);
  if (bytes.subarray(0, 4).equals(Buffer.from([0xd0, 0xcf, 0x11, 0xe0]))) {
    throw new Unreadable(
      'This is an older spreadsheet, or one with a password. Save it as .xlsx without a password, or as CSV.',
    );
  }
  if (bytes.subarray(0, 2).toString('latin1') === 'PK') return fromArchive(name, bytes, today);
  if (bytes.subarray(0, 4).toString('latin1') === '%PDF') {
    throw new Unreadable('This is a PDF. What is needed is the table it was made from, as CSV or XLSX.');
  }
  return { is: 'tables', tables: tables([{ name, rows: linesOf(textOf(bytes)) }]) };
}

async function fromArchive(name: string, bytes: Buffer, today: IsoDate): Promise<FileContent> {
  const names = new Set<string>();
  const files = await unzipped(bytes, (file) => {
    names.add(file);
    return file.endsWith('.csv');
  });
  if (names.has('workbook.xml')) {
    const sheets = await sheetsOf({ bytes, most: MOST_ROWS + 50 }).catch((error) => {
      // What is small and takes more memory than there is, no spreadsheet program made.
      if ((error as { code?: unknown }).code === 'ERR_WORKER_OUT_OF_MEMORY') return null;
      throw error;
    });
    if (sheets === null) {
      throw new Unreadable('This spreadsheet cannot be read. Open it, save it as .xlsx once more, or save it as CSV.');
    }
    for (const { name: sheet, all } of sheets) {
      // What was cut off is not passed over in silence.
      if (all > MOST_ROWS + 50)
        throw new Unreadable(
          `“${sheet}” has ${all.toLocaleString('en-US')} rows: at most ${MOST_ROWS.toLocaleString('en-US')} are carried in at once.`,
        );
    }
    return { is: 'tables', tables: tables(sheets) };
  }
  if (!isOneRoster([...files.keys()])) {
    throw new Unreadable(`“${name}” is an archive without a table in it. CSV, XLSX, or OneRoster 1.2 as CSV in a ZIP.`);
  }
  const lines = [...files].map(([file, text]): [string, Record<string, string>[]] => {
    const { data } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
      header: true,
      skipEmptyLines: true,
    });
    return [file, data];
  });
  return { is: 'oneRoster', roster: readOneRoster(new Map(lines), today) };
}

function tables(sheets: readonly { name: string; rows: readonly (readonly string[])[] }[]): FileTable[] {
  const found = sheets.flatMap(({ name, rows }) => tableOf(name, rows) ?? []);
  if (found.length === 0) throw new Unreadable('There is no table in it: a line of headings, and rows below.');
  return found;
}

/** Bytes as text, in the encoding that they tell of themselves. */
function textOf(bytes: Buffer): string {
  const [a, b] = bytes;
  const zeros = (from: number) => bytes.subarray(0, 400).filter((byte, i) => i % 2 === from && byte === 0).length;
  if ((a === 0xff && b === 0xfe) || zeros(1) > 50) return new TextDecoder('utf-16le').decode(bytes);
  if ((a === 0xfe && b === 0xff) || zeros(0) > 50) return new TextDecoder('utf-16be').decode(bytes);
  if (bytes.includes(0)) throw new Unreadable('This is no table. CSV or XLSX can be read here.');
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

/** Lines of cells; what parts them is told from the text itself. */
function linesOf(text: string): string[][] {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^sep=.\r?\n/, ''), {
    delimitersToGuess: [',', ';', '\t', '|'],
  });
  const open = errors.find(({ code }) => code === 'MissingQuotes');
  if (open) throw new Unreadable(`Row ${(open.row ?? 0) + 1} has a quotation mark that is not closed.`);
  return data;
}
