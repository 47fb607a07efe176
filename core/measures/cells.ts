import { format, isValid, parse } from 'date-fns';
import type { IsoDate } from '../calendar/iso-date';
import { type NoScoreReason, noScoreReasons, noScoreWords } from './score';

/** What a cell holds, or what is wrong with it. */
export type Cell<T> = { ok: true; value: T } | { ok: false; message: string };

const fine = <T>(value: T): Cell<T> => ({ ok: true, value });
const wrong = (message: string): Cell<never> => ({ ok: false, message });

/** How dates stand in tables, in the order in which they are tried; without a year it is the last such day. */
const dateShapes = ['yyyy-MM-dd', 'M/d/yyyy', 'M/d/yy', 'MMM d, yyyy', 'MMM d yyyy', 'MMM d', 'M/d'];

/**
 * A date as people type it.
 *
 * @param today  dates without a year are the newest such day up to it
 * @example dateCell('11/20', '2026-11-24') // 2026-11-20
 * @example dateCell('12/1', '2026-11-24') // 2025-12-01
 */
export function dateCell(text: string, today: IsoDate): Cell<IsoDate> {
  if (text === '') return wrong('A date is needed.');
  const reference = new Date(`${today}T12:00:00`);
  for (const shape of dateShapes) {
    const read = parse(text, shape, reference);
    if (!isValid(read) || read.getFullYear() < 1900) continue;
    const date = format(read, 'yyyy-MM-dd');
    if (!shape.includes('y') && date > today) read.setFullYear(read.getFullYear() - 1);
    return fine(format(read, 'yyyy-MM-dd'));
  }
  return wrong('A date, such as 11/20/2026 or 2026-11-20.');
}

/** A time of day as people type it: “9:05”, “14:30”, “2:30 pm”. */
export function timeCell(text: string): Cell<string> {
  for (const shape of ['HH:mm', 'H:mm', 'h:mm a', 'h:mma', 'h a', 'ha']) {
    const read = parse(text, shape, new Date(2000, 0, 1));
    if (isValid(read)) return fine(format(read, 'HH:mm'));
  }
  return wrong('A time, such as 9:05 or 2:30 pm.');
}

/** A number with a decimal point or a decimal comma; null where nothing stands. */
export function numberCell(text: string): Cell<number | null> {
  if (text === '') return fine(null);
  if (!/^[+\-−]?\d+([.,]\d+)?$/.test(text)) return wrong('A number, please.');
  return fine(Number(text.replace('−', '-').replace(',', '.')));
}

/** A length of time: “4:30” is minutes and seconds, a bare number is seconds. */
export function lengthCell(text: string): Cell<number> {
  const clock = /^(\d+):([0-5]?\d)$/.exec(text);
  if (clock) return fine(60 * Number(clock[1]) + Number(clock[2]));
  const number = numberCell(text);
  return number.ok && number.value !== null
    ? fine(number.value)
    : wrong('Minutes and seconds such as 4:30, or seconds.');
}

/** One of some named things, by its name or its key, whatever the case. */
export function choiceCell(
  text: string,
  choices: readonly { key: string; label: string }[],
  others: Record<string, string> = {},
): Cell<string> {
  const asked = text.toLocaleLowerCase();
  const found = choices.find(({ key, label }) => label.toLocaleLowerCase() === asked || key.toLowerCase() === asked);
  const key = found?.key ?? others[asked];
  return key === undefined ? wrong(`One of: ${choices.map(({ label }) => label).join(', ')}.`) : fine(key);
}

/** A reason why there is no score; null where nothing stands. */
export function reasonCell(text: string): Cell<NoScoreReason | null> {
  if (text === '') return fine(null);
  const choices = noScoreReasons.map((key) => ({ key, label: noScoreWords[key].label }));
  const read = choiceCell(text, choices, { 'no chance': 'noOpportunity', declined: 'refused' });
  // `choiceCell` answers with a key of what it was given: these three, whatever word was typed for them.
  return read as Cell<NoScoreReason>;
}

/** The parts of a cell that holds several. */
export const partsOf = (text: string) =>
  text
    .split(/[;|]/)
    .map((part) => part.trim())
    .filter(Boolean);
