import Papa from 'papaparse';

/** Where a file cannot be read, and why; line and column count from 1. */
export class Malformed extends Error {
  constructor(
    readonly line: number,
    readonly column: number,
    message: string,
  ) {
    super(message);
  }
}

export interface Cell {
  text: string;
  line: number;
  column: number;
  name: string;
}

/** A row by the names of its columns; a column that the file does not have is not in it. */
export type Row = Partial<Record<string, Cell>>;

/** Bytes as text: UTF-8, with or without a mark at its start, lines ended in any of the three ways. */
export function textOf(bytes: Uint8Array): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes).replace(/\r\n?/g, '\n');
  } catch {
    throw new Malformed(1, 1, 'The file is not UTF-8 text.');
  }
}

/**
 * The rows of comma-separated text whose first row names the columns. Rows without anything in them are passed over.
 *
 * @throws Malformed where a column is missing or doubled, a quote is left open, or a row is longer or shorter than the first
 */
export function readTable(text: string, required: readonly string[]): Row[] {
  const rows: Row[] = [];
  let names: string[] | null = null;
  let line = 1;
  let read = 0;
  Papa.parse<string[]>(text, {
    delimiter: ',',
    newline: '\n',
    step: ({ data, errors, meta }) => {
      const start = line;
      line += text.slice(read, meta.cursor).split('\n').length - 1;
      read = meta.cursor;
      if (errors[0]) throw new Malformed(start, data.length, 'A quoted cell does not end where it should.');
      if (data.every((cell) => cell.trim() === '')) return;
      if (names === null) {
        names = namesOf(data, required, start);
        return;
      }
      if (data.length !== names.length) {
        const at = Math.min(data.length, names.length) + 1;
        throw new Malformed(
          start,
          at,
          `The row has ${data.length} cells where the first row names ${names.length} columns.`,
        );
      }
      rows.push(
        Object.fromEntries(
          names.map((name, i) => [name, { text: (data[i] ?? '').trim(), line: start, column: i + 1, name }]),
        ),
      );
    },
  });
  if (names === null) throw new Malformed(1, 1, `The first row must name the columns: ${required.join(', ')}.`);
  if (rows.length === 0) throw new Malformed(line, 1, 'There is no row below the names of the columns.');
  return rows;
}

function namesOf(cells: readonly string[], required: readonly string[], line: number): string[] {
  const names = cells.map((cell) => cell.trim().toLowerCase());
  const missing = required.find((name) => !names.includes(name));
  if (missing) throw new Malformed(line, names.length + 1, `There is no column “${missing}”.`);
  const doubled = names.findIndex((name, i) => name !== '' && names.indexOf(name) !== i);
  if (doubled !== -1) throw new Malformed(line, doubled + 1, `There are two columns “${names[doubled]}”.`);
  return names;
}
