import type { IsoDate } from './iso-date';

/** School years begin in August or early September: from the first of August on it is the next one (common practice in the United States). */
const FIRST_MONTH = 8;

/**
 * The first of August of the school year that a day lies in.
 *
 * @example schoolYearStart('2026-11-24') // '2026-08-01'
 * @example schoolYearStart('2027-06-11') // '2026-08-01'
 */
export function schoolYearStart(day: IsoDate): IsoDate {
  const [year, month] = day.split('-').map(Number) as [number, number];
  return `${month >= FIRST_MONTH ? year : year - 1}-08-01`;
}
