import { addDays, dayNumber, type IsoDate, weekday } from './iso-date';

export interface SchoolCalendar {
  /** Days of the week on which school is held: 1 is Monday, 7 is Sunday. */
  weekdays: readonly number[];
  /** Stretches without school, both ends included. */
  closures: readonly { first: IsoDate; last: IsoDate }[];
}

/** Whether school is held on a date. */
export function isSchoolDay(date: IsoDate, calendar: SchoolCalendar): boolean {
  return (
    calendar.weekdays.includes(weekday(date)) &&
    !calendar.closures.some(({ first, last }) => first <= date && date <= last)
  );
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
