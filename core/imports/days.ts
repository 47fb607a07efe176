import type { IsoDate } from '../calendar/iso-date';
import { type Cell, dateCell } from '../measures/cells';
import { unmarked } from './file-table';

export const dayOrders = ['monthFirst', 'dayFirst'] as const;
export type DayOrder = (typeof dayOrders)[number];

const numbers = /^(\d{1,2})[/.-](\d{1,2})[/.-](\d{4}|\d{2})$/;

/** Which of the two numbers of “3/4/2026” is the month, where any date of a file tells; the month first where none does. */
export function guessDayOrder(texts: readonly string[]): DayOrder {
  const firsts = texts.flatMap((text) => {
    const found = numbers.exec(text.trim());
    return found ? [[Number(found[1]), Number(found[2])] as const] : [];
  });
  if (firsts.some(([, second]) => second > 12)) return 'monthFirst';
  if (firsts.some(([first]) => first > 12)) return 'dayFirst';
  // With points it is the day everywhere that writes so.
  return texts.some((text) => /^\d{1,2}\.\d{1,2}\.\d{2,4}$/.test(text.trim())) ? 'dayFirst' : 'monthFirst';
}

/**
 * A date of a file: as ISO 8601, in words, or as numbers in one of the two orders. One without a year is refused: in a file of last year
 * it would be taken for this one's.
 */
export function fileDay(text: string, order: DayOrder, today: IsoDate): Cell<IsoDate> {
  const plain = unmarked(text);
  const found = numbers.exec(plain);
  const [, a = '', b = '', year = ''] = found ?? [];
  const [month, day] = order === 'monthFirst' ? [a, b] : [b, a];
  const read = dateCell(found ? `${month}/${day}/${year}` : plain.replace(/[T ]\d{1,2}:\d{2}.*$/, ''), today);
  if (read.ok && !found && !/\d{4}/.test(plain)) {
    return { ok: false, message: 'A date with its year, such as 11/20/2026 or 2026-11-20.' };
  }
  if (!read.ok && found) {
    return {
      ok: false,
      message: `No such day: ${order === 'monthFirst' ? 'month, day, year' : 'day, month, year'} is read here.`,
    };
  }
  return read;
}
