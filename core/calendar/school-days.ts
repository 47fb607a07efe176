import { addDays, dayNumber, type IsoDate, weekday, weekdayName, weekdayOf } from './iso-date';

export interface SchoolCalendar {
  /** Days of the week on which school is held: 1 is Monday, 7 is Sunday. */
  weekdays: readonly number[];
  /** Stretches without school, both ends included. */
  closures: readonly { first: IsoDate; last: IsoDate; label?: string }[];
}

/** A calendar as one student has it: the days on which they were away are taken out like closures. */
export const withoutDays = (calendar: SchoolCalendar, days: readonly IsoDate[]): SchoolCalendar =>
  days.length === 0
    ? calendar
    : { ...calendar, closures: [...calendar.closures, ...days.map((day) => ({ first: day, last: day }))] };

/** Whether school is held on a date. */
export function isSchoolDay(date: IsoDate, calendar: SchoolCalendar): boolean {
  return (
    calendar.weekdays.includes(weekday(date)) &&
    !calendar.closures.some(({ first, last }) => first <= date && date <= last)
  );
}

/**
 * Why there is no school on a date: the name of the closure, or that it is no day of the school week; null on a school day.
 *
 * @example noSchoolWords('2026-11-28', { weekdays: [1, 2, 3, 4, 5], closures: [] }) // 'it is Saturday'
 */
export function noSchoolWords(date: IsoDate, calendar: SchoolCalendar): string | null {
  if (isSchoolDay(date, calendar)) return null;
  const closure = calendar.closures.find(({ first, last }) => first <= date && date <= last);
  if (closure?.label) return closure.label;
  return closure ? 'the school is closed' : `it is ${weekdayName(weekday(date))}`;
}

/**
 * The school days of a stretch, both ends included; none when the last lies before the first.
 *
 * @example schoolDays('2026-11-20', '2026-11-23', { weekdays: [1, 2, 3, 4, 5], closures: [] }) // the Friday and the Monday
 */
export function schoolDays(first: IsoDate, last: IsoDate, calendar: SchoolCalendar): IsoDate[] {
  const days: IsoDate[] = [];
  const length = dayNumber(last) - dayNumber(first);
  for (let i = 0; i <= length; i++) {
    const date = addDays(first, i);
    if (isSchoolDay(date, calendar)) days.push(date);
  }
  return days;
}

/** Closures as stretches of day numbers, in order, none touching another: made once for each calendar. */
const merged = new WeakMap<SchoolCalendar, [first: number, last: number][]>();

function closuresOf(calendar: SchoolCalendar): [first: number, last: number][] {
  const known = merged.get(calendar);
  if (known) return known;
  const stretches: [number, number][] = [];
  const sorted = calendar.closures
    .map(({ first, last }): [number, number] => [dayNumber(first), dayNumber(last)])
    .sort(([a], [b]) => a - b);
  for (const [first, last] of sorted) {
    const before = stretches.at(-1);
    if (before && first <= before[1] + 1) before[1] = Math.max(before[1], last);
    else stretches.push([first, last]);
  }
  merged.set(calendar, stretches);
  return stretches;
}

/** How many days of the school week a stretch of day numbers holds: whole weeks, and what is left over day by day. */
function weekdaysWithin(first: number, last: number, weekdays: readonly number[]): number {
  if (last < first) return 0;
  const weeks = Math.floor((last - first + 1) / 7);
  let count = weeks * weekdays.length;
  for (let day = first + 7 * weeks; day <= last; day++) if (weekdays.includes(weekdayOf(day))) count++;
  return count;
}

/**
 * How many school days a stretch holds, both ends included: as many as `schoolDays` lists, without listing them.
 *
 * @example countSchoolDays('2026-11-20', '2026-11-23', { weekdays: [1, 2, 3, 4, 5], closures: [] }) // 2
 */
export function countSchoolDays(first: IsoDate, last: IsoDate, calendar: SchoolCalendar): number {
  return countDays(dayNumber(first), dayNumber(last), calendar);
}

function countDays(from: number, to: number, calendar: SchoolCalendar): number {
  const weekdays = [...new Set(calendar.weekdays)];
  const closed = closuresOf(calendar).reduce(
    (sum, [first, last]) => sum + weekdaysWithin(Math.max(first, from), Math.min(last, to), weekdays),
    0,
  );
  return weekdaysWithin(from, to, weekdays) - closed;
}

/** How many school days lie strictly between two dates: neither end counts. */
export function schoolDaysBetween(after: IsoDate, before: IsoDate, calendar: SchoolCalendar): number {
  return Math.max(0, countDays(dayNumber(after) + 1, dayNumber(before) - 1, calendar));
}

/** How many school days have come after a date, up to another one and with it. */
export function schoolDaysSince(after: IsoDate, until: IsoDate, calendar: SchoolCalendar): number {
  return Math.max(0, countDays(dayNumber(after) + 1, dayNumber(until), calendar));
}
