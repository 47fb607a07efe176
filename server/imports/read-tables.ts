// Runs in a thread: what others made is taken apart here.
import Papa from 'papaparse';
import readWorkbook from 'read-excel-file/node';
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
import { isOneRoster, readOneRoster } from '~/core/imports/one-roster';
import { Invalid } from '../platform/failures';
import type { FileContent } from './read-file';
import { unzipped } from './unzip';

interface TablesAsked {
  name: string;
  bytes: Uint8Array;
  today: IsoDate;
}

/** The task behind `readFileContent`: what stands in the file, as JSON. @throws Invalid at `file` */
export async function readTables({ name, bytes, today }: TablesAsked): Promise<string> {
  const content = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return JSON.stringify(await contentOf(name, content, today).catch(refused));
}

function refused(error: unknown): never {
  if (error instanceof Unreadable) throw new Invalid({ file: error.message });
  throw error;
}

async function contentOf(name: string, bytes: Buffer, today: IsoDate): Promise<FileContent> {
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
    const sheets = await sheetsOf(bytes, MOST_ROWS + 50);
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

/** What a cell of a spreadsheet holds, as text. */
function asText(cell: unknown): string {
  if (cell === null || cell === undefined) return '';
  if (typeof cell === 'boolean') return cell ? 'yes' : 'no';
  // What is computed in binary shows no more figures than anybody typed.
  if (typeof cell === 'number') return String(Number(cell.toPrecision(12)));
  if (!(cell instanceof Date)) return String(cell);
  const day = cell.toISOString().slice(0, 10);
  const time = new Date(cell.getTime() + 30_000).toISOString().slice(11, 16);
  if (day < '1900-01-02') return time;
  return `${MADE_A_DATE}${time === '00:00' ? day : `${day} ${time}`}`;
}

/** The sheets of a spreadsheet as texts, so many rows of each. Null for one that cannot be read. */
async function sheetsOf(bytes: Buffer, most: number) {
  // Whatever the reader stumbles over, it is the file that cannot be read.
  let sheets: Awaited<ReturnType<typeof readWorkbook>>;
  try {
    sheets = await readWorkbook(bytes);
  } catch {
    return null;
  }
  return sheets.map(({ sheet, data }) => ({
    ...{ name: sheet, all: data.length },
    rows: data.slice(0, most).map((row) => row.map(asText)),
  }));
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
