/** A calendar date as `YYYY-MM-DD`, with no time and no zone: the date on the classroom wall. */
export type IsoDate = string;

const MS_PER_DAY = 86_400_000;

/**
 * Whole days from 1 January 1970 to a date.
 *
 * @throws RangeError when the text is not a real date
 * @example dayNumber('1970-01-02') // 1
 */
export function dayNumber(date: IsoDate): number {
  // A date without a time is taken for UTC (ECMAScript, 21.4.1.32); one that is not in the calendar would run over into the next month.
  const midnight = SHAPE.test(date) ? Date.parse(date) : Number.NaN;
  if (new Date(midnight).getUTCDate() !== Number(date.slice(8))) throw new RangeError(`Not a date: ${date}`);
  return midnight / MS_PER_DAY;
}

const SHAPE = /^[1-9]\d{3}-\d\d-\d\d$/;

/**
 * The date of a day number; the inverse of `dayNumber`.
 *
 * @example isoDate(1) // '1970-01-02'
 */
export function isoDate(day: number): IsoDate {
  return new Date(day * MS_PER_DAY).toISOString().slice(0, 10);
}

/**
 * The date so many days later (earlier, when negative).
 *
 * @example addDays('2024-02-28', 2) // '2024-03-01'
 */
export function addDays(date: IsoDate, days: number): IsoDate {
  return isoDate(dayNumber(date) + days);
}

/**
 * Day of the week as in ISO 8601: 1 is Monday, 7 is Sunday.
 *
 * @example weekday('1970-01-01') // 4, a Thursday
 */
export function weekday(date: IsoDate): number {
  return weekdayOf(dayNumber(date));
}

/** The same of a day number: 0, the first of January 1970, was a Thursday. */
export const weekdayOf = (day: number): number => ((((day + 3) % 7) + 7) % 7) + 1;

/**
 * The Monday of the week a date lies in.
 *
 * @example mondayOf('1970-01-01') // '1969-12-29'
 */
export function mondayOf(date: IsoDate): IsoDate {
  return addDays(date, 1 - weekday(date));
}

const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/**
 * A date as sentences and lists say it: as American English writes it (Unicode CLDR, en-US), but without the platform's own formats,
 * each of which takes a slow device some fifty milliseconds to make.
 *
 * @throws RangeError when the text is not a real date
 * @example shortDate('2026-11-18') // 'Nov 18'
 */
export function shortDate(date: IsoDate): string {
  const day = new Date(dayNumber(date) * MS_PER_DAY);
  return `${months[day.getUTCMonth()]} ${day.getUTCDate()}`;
}

/**
 * A date as sentences say it, with its year unless that is the present one.
 *
 * @example dateSeenFrom('2027-02-03', '2026-11-18') // 'Feb 3, 2027'
 */
export function dateSeenFrom(date: IsoDate, today: IsoDate): string {
  return date.slice(0, 4) === today.slice(0, 4) ? shortDate(date) : `${shortDate(date)}, ${Number(date.slice(0, 4))}`;
}

const weekdays = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

/**
 * The name of a day of the week; 1 is Monday.
 *
 * @example weekdayName(7) // 'Sunday'
 */
export function weekdayName(day: number): string {
  return weekdays[day - 1] ?? '';
}

/**
 * A date with its weekday, as entries are headed; with its year too where that is not the present one.
 *
 * @param today  left out where the year is plain from what stands around
 * @example entryDay('2026-11-18', '2026-11-24') // 'Wed, Nov 18'
 */
export function entryDay(date: IsoDate, today: IsoDate = date): string {
  const isPresentYear = date.slice(0, 4) === today.slice(0, 4);
  return isPresentYear ? `${weekdayName(weekday(date)).slice(0, 3)}, ${shortDate(date)}` : longDate(date);
}

/**
 * A date where weekday and year matter.
 *
 * @example longDate('2026-11-18') // 'Wed, Nov 18, 2026'
 */
export function longDate(date: IsoDate): string {
  return `${weekdayName(weekday(date)).slice(0, 3)}, ${shortDate(date)}, ${Number(date.slice(0, 4))}`;
}
