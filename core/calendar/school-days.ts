import { addDays, dayNumber, type IsoDate, weekday, weekdayName } from './iso-date';

export interface SchoolCalendar {
  /** Days of the week on which school is held: 1 is Monday, 7 is Sunday. */
  weekdays: readonly number[];
  /** Stretches without school, both ends included. */
  closures: readonly { first: IsoDate; last: IsoDate; label?: string }[];
}

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

/** How many school days lie strictly between two dates: neither end counts. */
export function schoolDaysBetween(after: IsoDate, before: IsoDate, calendar: SchoolCalendar): number {
  return schoolDays(addDays(after, 1), addDays(before, -1), calendar).length;
}
