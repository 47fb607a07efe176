/** A table as it stands in a file: texts, as somebody would read them there. */
export interface FileTable {
  /** Of the sheet, or of the file. */
  name: string;
  head: string[];
  rows: string[][];
  /** The number that the file's program shows beside the first of the rows. */
  firstRow: number;
}

/** More is no table that somebody kept by hand, and would not be looked through before it is taken over. */
export const MOST_ROWS = 20_000;
export const MOST_COLUMNS = 200;
export const MOST_FILE_BYTES = 8 * 1024 * 1024;
export const tooLargeWords = `The file is larger than ${MOST_FILE_BYTES / 1024 / 1024} MB. Split it, by year or by class.`;
const LONGEST_CELL = 8000;

/** What a spreadsheet has made of something that was not meant as one, as its reader hands it on. */
export const MADE_A_DATE = 'made a date: ';

/** A cell as it is read where a date may stand. */
export const unmarked = (text: string) => (text.startsWith(MADE_A_DATE) ? text.slice(MADE_A_DATE.length) : text);

/** Why a file cannot be read, in words. */
export class Unreadable extends Error {}

/**
 * The lines of a sheet as a table: the first line with several headings is its head, what stands above it (a title) is passed over.
 *
 * @returns null for a sheet in which no table stands
 * @throws Unreadable where it is larger than what is looked through by hand
 */
export function tableOf(name: string, lines: readonly (readonly string[])[]): FileTable | null {
  const filled = (line: readonly string[]) => line.filter((cell) => cell.trim() !== '').length;
  const widest = lines.reduce((most, line) => Math.max(most, filled(line)), 0);
  const at = lines.findIndex((line) => filled(line) >= Math.min(2, widest) && filled(line) > 0);
  const last = lines.findLastIndex((line) => filled(line) > 0);
  if (at < 0 || last <= at) return null;
  const rows = lines.slice(at + 1, last + 1);
  if (rows.length > MOST_ROWS) {
    throw new Unreadable(
      `${rows.length.toLocaleString('en-US')} rows: at most ${MOST_ROWS.toLocaleString('en-US')} are carried in at once. Split the file, by year or by class.`,
    );
  }
  const columns = rows.reduce((most, line) => Math.max(most, line.length), lines[at]?.length ?? 0);
  if (columns > MOST_COLUMNS) throw new Unreadable(`${columns} columns: at most ${MOST_COLUMNS} are looked through.`);
  const tidy = (line: readonly string[]) =>
    Array.from({ length: columns }, (_, i) => {
      const text = (line[i] ?? '').replace(/\r\n?/g, '\n').trim();
      // Longer than anything that is kept: what it is for refuses it in its own words.
      return text.slice(0, LONGEST_CELL);
    });
  const head = tidy(lines[at] ?? []).map((heading) => heading.replace(/\s+/g, ' '));
  return { name, head, rows: rows.map(tidy), firstRow: at + 2 };
}

/** Texts as people do not tell them apart: without case, accents, and what is no letter or number. */
export const plainText = (text: string) =>
  text
    .normalize('NFKD')
    .replace(/\p{Mark}+/gu, '')
    .replace(/[^\p{Letter}\p{Number}]+/gu, ' ')
    .trim()
    .toLowerCase();

/** A field that a column of a file may hold, and how people head it. */
export interface FileField<Key extends string = string> {
  key: Key;
  headings: readonly string[];
}

/** Which field each column holds, as its heading says: '' where it says none of them. Each field is given once. */
export function guessColumns<Key extends string>(
  head: readonly string[],
  fields: readonly FileField<Key>[],
): (Key | '')[] {
  const given = new Set<Key>();
  const exact = (heading: string, field: FileField) => field.headings.includes(heading);
  const within = (heading: string, field: FileField) =>
    field.headings.some((one) => one.length > 3 && ` ${heading} `.includes(` ${one} `));
  const guesses: (Key | '')[] = head.map(() => '');
  for (const fits of [exact, within]) {
    for (const [at, text] of head.entries()) {
      const heading = plainText(text);
      if (guesses[at] !== '' || heading === '') continue;
      const field = fields.find((one) => !given.has(one.key) && fits(heading, one));
      if (!field) continue;
      given.add(field.key);
      guesses[at] = field.key;
    }
  }
  return guesses;
}

/** What a row holds by field; where several columns hold the same, the first that is filled. */
export function rowCells(row: readonly string[], columns: readonly string[]): Record<string, string> {
  const cells: Record<string, string> = {};
  for (const [at, key] of columns.entries()) {
    if (key && !cells[key]) cells[key] = key === 'score' ? (row[at] ?? '') : unmarked(row[at] ?? '');
  }
  return cells;
}

/** In a merged cell only the first row holds what all of them mean: a blank goes on with the one above. */
export function filledDown(
  rows: readonly (readonly string[])[],
  columns: readonly string[],
  keys: readonly string[],
): string[][] {
  const above: string[] = [];
  return rows.map((row) =>
    row.map((cell, at) => {
      if (!keys.includes(columns[at] ?? '') || row.every((one) => one === '')) return cell;
      if (cell !== '') above[at] = cell;
      return above[at] ?? cell;
    }),
  );
}
