import { dayNumber, type IsoDate } from '../calendar/iso-date';

/** What stands in a cell: a text, a number, a date, a time of day; null where nothing was said. */
export type TableCell = string | number | null | { on: IsoDate } | { time: string };

/** A table for those who compute: what is a number is one, what was not said is blank and no zero. */
export interface Table {
  /** What a spreadsheet calls it. */
  name: string;
  fields: readonly string[];
  rows: readonly (readonly TableCell[])[];
}

/** A cell as a file of comma-separated text says it: dates as in ISO 8601, numbers with a decimal point. */
export function cellText(cell: TableCell): string | number {
  if (cell === null) return '';
  if (typeof cell !== 'object') return cell;
  return 'on' in cell ? cell.on : cell.time;
}

const A_DAY = /^\d{4}-\d\d-\d\d$/;
const A_MOMENT = /^(\d{4}-\d\d-\d\d)T(\d\d:\d\d)$/;

type Written = string | number | null;

/**
 * The table that a file of comma-separated text holds, for a spreadsheet: a date is a date there, a moment (`2026-11-24T09:30`) becomes a date
 * and a time beside it, and what is empty is blank.
 *
 * @example tableOf('x', ['at', 'n'], [['2026-11-24T09:30', 2]]).fields // ['at', 'time', 'n']
 */
export function tableOf(name: string, fields: readonly string[], rows: readonly (readonly Written[])[]): Table {
  const isMoment = fields.map((_, at) => rows.length > 0 && rows.every((row) => A_MOMENT.test(String(row[at] ?? ''))));
  return {
    name,
    fields: fields.flatMap((field, at) => (isMoment[at] ? [field, 'time'] : [field])),
    rows: rows.map((row) =>
      row.flatMap((cell, at): TableCell[] => {
        if (cell === null || cell === '') return [null];
        if (typeof cell === 'number') return [cell];
        const [, on, time] = (isMoment[at] && A_MOMENT.exec(cell)) || [];
        if (on && time) return [{ on }, { time }];
        return [A_DAY.test(cell) ? { on: cell } : cell];
      }),
    ),
  };
}

/** Days from 30 December 1899, from which spreadsheets count (ECMA-376, 18.17.4.1, the 1900 date base), to 1 January 1970. */
const SPREADSHEET_EPOCH = 25_569;

/**
 * A date as a spreadsheet keeps it.
 *
 * @example spreadsheetDay('2026-11-24') // 46350
 */
export const spreadsheetDay = (date: IsoDate): number => dayNumber(date) + SPREADSHEET_EPOCH;

/**
 * A time of day as a spreadsheet keeps it: a share of the day.
 *
 * @example spreadsheetTime('18:00') // 0.75
 */
export function spreadsheetTime(time: string): number {
  const [hours = 0, minutes = 0] = time.split(':').map(Number);
  return (60 * hours + minutes) / 1440;
}

/** At most this many characters name a sheet, none of them one of these (ECMA-376, 18.2.19, and common practice of spreadsheet programs). */
const LONGEST_NAME = 31;
const REFUSED = /[\\/?*[\]:]/g;

/**
 * Names that a spreadsheet takes for its sheets: short, without what is refused, and no two alike.
 *
 * @example sheetNames(['1 Asks', '1 asks']) // ['1 Asks', '1 asks 2']
 */
export function sheetNames(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    // A name neither begins nor ends with an apostrophe or a space, also where it is cut.
    const cut = (to: number) =>
      name
        .replace(REFUSED, ' ')
        .slice(0, to)
        .replace(/^['\s]+|['\s]+$/g, '') || 'Sheet';
    let made = cut(LONGEST_NAME);
    for (let at = 2; taken.has(made.toLowerCase()); at++) made = `${cut(LONGEST_NAME - 4)} ${at}`;
    taken.add(made.toLowerCase());
    return made;
  });
}
