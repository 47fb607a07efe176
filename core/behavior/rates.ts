import { type IsoDate, mondayOf, weekday } from '../calendar/iso-date';
import type { Timetable } from '../calendar/timetable';
import type { WatchedStretch } from '../entries/incidents/incident';
import { type Interval, wilsonInterval } from '../statistics/wilson';
import { ratioFigure } from '../words/counting';

/** Where and for how long a behavior could have been noted. */
export interface Exposure {
  /** The school days on which the student was there. */
  days: readonly IsoDate[];
  timetable: Timetable;
  /** Stretches of watching, those in which nothing occurred among them. */
  watched: readonly WatchedStretch[];
}

export interface Rate {
  n: number;
  /** Days or hours. */
  exposure: number;
  /** n for each unit of exposure; null without any. */
  rate: number | null;
}

/**
 * So many for each day or hour.
 *
 * @example rateOf(6, 20).rate // 0.3
 */
export function rateOf(n: number, exposure: number): Rate {
  return { n, exposure, rate: exposure > 0 ? n / exposure : null };
}

/** The rate per hour observed: what was counted while somebody watched for it, silence included. */
export function ratePerHourObserved(watched: readonly WatchedStretch[]): Rate {
  let n = 0;
  let minutes = 0;
  for (const stretch of watched) {
    n += stretch.count;
    minutes += stretch.minutes;
  }
  return rateOf(n, minutes / 60);
}

export interface MonthRate extends Rate {
  /** `YYYY-MM` */
  month: string;
}

/**
 * Incidents by month, for each school day the student was there: months are compared by rate, not by count.
 *
 * @param dates  the incidents' dates
 * @returns every month with a school day or an incident, in order
 */
export function ratesByMonth(dates: readonly IsoDate[], days: readonly IsoDate[]): MonthRate[] {
  return ratesBy(dates, days, (on) => on.slice(0, 7)).map(({ key, ...rate }) => ({ month: key, ...rate }));
}

/** Months with fewer school days are too short to be held against others. */
const LEAST_DAYS_OF_MONTH = 5;

/** The last two months with school days enough, and how many each has; null where there are no two. */
export function monthPair(days: readonly IsoDate[]) {
  const months = ratesByMonth([], days)
    .filter(({ exposure }) => exposure >= LEAST_DAYS_OF_MONTH)
    .map(({ month, exposure }) => ({ month, days: exposure }));
  const [before, last] = months.slice(-2);
  return before && last ? { before, last } : null;
}

export interface WeekRate extends Rate {
  /** The week’s Monday. */
  monday: IsoDate;
}

/**
 * Incidents by week, for each school day of the week.
 *
 * @returns every week with a school day or an incident, in order; a week of closures has no rate
 */
export function ratesByWeek(dates: readonly IsoDate[], days: readonly IsoDate[]): WeekRate[] {
  return ratesBy(dates, days, mondayOf).map(({ key, ...rate }) => ({ monday: key, ...rate }));
}

export interface WeekdayRate extends Rate {
  /** 1 is Monday, 7 is Sunday. */
  weekday: number;
}

/** Incidents by day of the week, for each such school day. */
export function ratesByWeekday(dates: readonly IsoDate[], days: readonly IsoDate[]): WeekdayRate[] {
  return ratesBy(dates, days, (on) => String(weekday(on))).map(({ key, ...rate }) => ({
    weekday: Number(key),
    ...rate,
  }));
}

function ratesBy(dates: readonly IsoDate[], days: readonly IsoDate[], keyOf: (on: IsoDate) => string) {
  const counts = new Map<string, { n: number; days: number }>();
  const keys = new Map<IsoDate, string>();
  const at = (on: IsoDate) => {
    const key = keys.get(on) ?? keyOf(on);
    keys.set(on, key);
    const found = counts.get(key) ?? { n: 0, days: 0 };
    counts.set(key, found);
    return found;
  };
  for (const on of days) at(on).days++;
  for (const on of dates) at(on).n++;
  return [...counts]
    .map(([key, { n, days: exposure }]) => ({ key, ...rateOf(n, exposure) }))
    .sort((a, b) => a.key.localeCompare(b.key));
}

export interface RateComparison {
  before: Rate;
  after: Rate;
  /** The later rate over the earlier; null where the earlier is 0 or one of them is unknown. */
  ratio: number | null;
  /** The ratio's 95% interval; a bound is null where it is without limit. */
  low: number | null;
  high: number | null;
}

/**
 * Two ranges of dates compared by their rates. Given how many there are in both together, the share that falls into the later
 * range is binomial; its Wilson interval gives that of the ratio.
 *
 * @param before  count and exposure (school days or hours observed) of the earlier range
 * @see Przyborowski & Wilenski (1940), Biometrika 31, for the conditioning; Wilson (1927) for the interval
 * @example compareRates({ n: 12, exposure: 21 }, { n: 4, exposure: 20 }).ratio // (4/20) / (12/21) = 0.35
 */
export function compareRates(a: { n: number; exposure: number }, b: { n: number; exposure: number }): RateComparison {
  const before = rateOf(a.n, a.exposure);
  const after = rateOf(b.n, b.exposure);
  const none = { before, after, ratio: null, low: null, high: null };
  if (a.n + b.n === 0 || before.rate === null || after.rate === null) return none;
  const share: Interval = wilsonInterval(b.n, a.n + b.n);
  const ratioAt = (p: number) => (p >= 1 ? null : ((p / (1 - p)) * a.exposure) / b.exposure);
  return {
    before,
    after,
    ratio: before.rate === 0 ? null : after.rate / before.rate,
    low: ratioAt(share.low),
    high: ratioAt(share.high),
  };
}

/**
 * How many times as many, and how sure that is.
 *
 * @param unit  what it is told for, where that is not plain: “a school day”
 * @returns null where the two cannot be held against each other
 * @example timesAsMany(compareRates({ n: 12, exposure: 21 }, { n: 4, exposure: 20 })) // '0.35 times as many; likely 0.12 to 1.03'
 */
export function timesAsMany({ ratio, low, high }: RateComparison, unit = ''): string | null {
  if (ratio === null || low === null || high === null) return null;
  const times = ['times as many', unit].filter(Boolean).join(' ');
  return `${ratioFigure(ratio)} ${times}; likely ${ratioFigure(low)} to ${ratioFigure(high)}`;
}
