import { addDays, dayNumber, type IsoDate, isoDate } from '../calendar/iso-date';
import { type SchoolCalendar, schoolDays, schoolDaysBetween } from '../calendar/school-days';
import { defined } from '../defined';
import { mean, standardDeviation, sum } from '../statistics/spread';

/** How a cumulative total grows: it has no trend that could be tested, since it only ever adds up. */
export interface Pace {
  /** School days looked at: the last 20, or as many as there are since the first entry. */
  days: number;
  /** What was added on one of them, on the average; in the series’ unit. */
  perDay: number;
  /** What it takes a school day to be there by the target date; null when it is there, or the date has passed. */
  needed: number | null;
  /** What was added in those days, and what it takes in as many, in words. */
  said: string;
  neededSaid: string;
  /** When it is there at this pace; null when not within two years. */
  on: IsoDate | null;
  earliest: IsoDate | null;
  latest: IsoDate | null;
}

/** The running total at the end of a day with an entry. */
interface Total {
  on: IsoDate;
  value: number;
}

const DAYS_LOOKED_AT = 20;
const MOST_DAYS_AHEAD = 731;

/**
 * The pace of the last 20 school days, the pace needed, and the day on which the target is reached at that pace; its range comes from how
 * the days’ amounts vary (two standard errors of their mean).
 *
 * @param points  the running total on each day with an entry, in order of date
 * @param said  an amount of the series in words
 * @returns null while there is nothing to tell a pace from, or once the target is reached
 */
export function paceOf(
  points: readonly Total[],
  target: { value: number; on: IsoDate } | null,
  { calendar, today }: { calendar: SchoolCalendar; today: IsoDate },
  said: (amount: number) => string,
): Pace | null {
  const last = points.at(-1);
  if (!last || !target || last.value >= target.value) return null;
  const looked = daysLookedAt(points, { calendar, today });
  if (looked.length < 2) return null;
  const amounts = addedOn(looked, points);
  const perDay = mean(amounts);
  const error = (standardDeviation(amounts) ?? 0) / Math.sqrt(amounts.length);
  const missing = target.value - last.value;
  const left = target.on > today ? schoolDaysBetween(today, target.on, calendar) + 1 : 0;
  const needed = left > 0 ? missing / left : null;
  const reached = (pace: number) => (pace > 0 ? dayAfter(missing / pace, today, calendar) : null);
  return {
    ...{ days: looked.length, perDay, needed },
    said: said(perDay * looked.length),
    neededSaid: said((needed ?? 0) * looked.length),
    ...{ on: reached(perDay), earliest: reached(perDay + 2 * error), latest: reached(perDay - 2 * error) },
  };
}

/** The last 20 school days, or as many as there are since the first entry. */
function daysLookedAt(
  points: readonly Total[],
  { calendar, today }: { calendar: SchoolCalendar; today: IsoDate },
): IsoDate[] {
  const first = points[0];
  if (!first) return [];
  return schoolDays(addDays(today, -60), today, calendar)
    .filter((day) => day >= first.on)
    .slice(-DAYS_LOOKED_AT);
}

/** What was added on each of some school days; what was on a day without school counts for the next one. */
function addedOn(looked: readonly IsoDate[], points: readonly Total[]): number[] {
  const [from, to] = [looked[0] ?? '', looked.at(-1) ?? ''];
  const added = new Map(looked.map((day) => [day, 0]));
  points.forEach(({ on, value }, i) => {
    const before = points[i - 1]?.value ?? 0;
    const day = looked.find((one) => one >= on) ?? (to && on >= to ? to : undefined);
    if (on >= from && day) added.set(day, defined(added.get(day)) + value - before);
  });
  return [...added.values()];
}

/**
 * What the last 20 school days added, whether a pace can be told of it or not.
 *
 * @param points  as for `paceOf`
 * @returns null while there is no entry
 */
export function addedLately(
  points: readonly Total[],
  when: { calendar: SchoolCalendar; today: IsoDate },
): number | null {
  const last = points.at(-1);
  if (!last) return null;
  const looked = daysLookedAt(points, when);
  // All of it was on days without school.
  return looked.length === 0 ? last.value : sum(addedOn(looked, points));
}

/** The day on which so many school days have passed; null when not within two years. */
function dayAfter(days: number, today: IsoDate, calendar: SchoolCalendar): IsoDate | null {
  const ahead = schoolDays(addDays(today, 1), isoDate(dayNumber(today) + MOST_DAYS_AHEAD), calendar);
  return ahead[Math.max(0, Math.ceil(days - 1e-9) - 1)] ?? null;
}
