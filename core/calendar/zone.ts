import { TZDate, tzOffset } from '@date-fns/tz';
import type { IsoDate } from './iso-date';

/** A date and a time of day as calendar and clock on the school's wall show them. */
export interface WallTime {
  on: IsoDate;
  /** `HH:MM` */
  time: string;
}

const MS_PER_DAY = 86_400_000;

const two = (n: number) => String(n).padStart(2, '0');

/**
 * What the clock on a wall shows at an instant.
 *
 * @param zone  an IANA time zone: “America/Chicago”
 * @see IANA time zone database
 * @example wallTime(new Date('2026-11-01T06:30:00Z'), 'America/New_York') // { on: '2026-11-01', time: '01:30' }, the second of that day
 */
export function wallTime(instant: Date, zone: string): WallTime {
  const there = new TZDate(instant, zone);
  return {
    on: `${there.getFullYear()}-${two(there.getMonth() + 1)}-${two(there.getDate())}`,
    time: `${two(there.getHours())}:${two(there.getMinutes())}`,
  };
}

/**
 * The instant at which a clock on a wall shows a time. A time that the clock change leaves out is taken as far after the
 * change as it lies after the hour that is left out begins; of one that comes twice, the first is meant.
 *
 * @param zone  an IANA time zone
 * @example instantAt({ on: '2026-11-18', time: '09:30' }, 'America/New_York').toISOString() // '2026-11-18T14:30:00.000Z'
 */
export function instantAt({ on, time }: WallTime, zone: string): Date {
  const read = Date.parse(`${on}T${time}:00Z`);
  // What a clock that is so many minutes ahead of UTC would mean by it: as it was set the day before, and as it is the day after.
  const meant = (near: number) => new Date(read - 60_000 * tzOffset(zone, new Date(near)));
  const [before, after] = [meant(read - MS_PER_DAY), meant(read + MS_PER_DAY)];
  const shows = (instant: Date) => wallTime(instant, zone).on === on && wallTime(instant, zone).time === time;
  return !shows(before) && shows(after) ? after : before;
}

/**
 * Minutes that pass from one time on the wall to another; a clock change between them is allowed for.
 *
 * @returns below 0 when the second is the earlier
 * @example minutesBetween({ on: '2026-03-08', time: '01:00' }, { on: '2026-03-08', time: '04:00' }, 'America/New_York') // 120
 */
export function minutesBetween(from: WallTime, to: WallTime, zone: string): number {
  return (instantAt(to, zone).getTime() - instantAt(from, zone).getTime()) / 60_000;
}

/**
 * Whether a text names an IANA time zone.
 *
 * @example isTimeZone('America/Chicago') // true
 */
export function isTimeZone(text: string): boolean {
  try {
    return new Intl.DateTimeFormat('en-US', { timeZone: text }).resolvedOptions().timeZone.length > 0;
  } catch {
    return false;
  }
}

/**
 * Whether the clock change leaves a time out: the clock on the wall never shows it.
 *
 * @example isSkipped({ on: '2026-03-08', time: '02:30' }, 'America/New_York') // true
 */
export function isSkipped(wall: WallTime, zone: string): boolean {
  return wallTime(instantAt(wall, zone), zone).time !== wall.time;
}

/**
 * Seconds from a beginning to an end of the same day, both as the clock on the wall showed them. In an hour that comes twice,
 * an end that reads earlier than its beginning is that of the second.
 *
 * @returns null when the end lies before the beginning
 * @example secondsUntil({ on: '2026-11-01', time: '01:50' }, '01:10', 'America/New_York') // 1200: the clocks went back
 */
export function secondsUntil(from: WallTime, until: string, zone: string): number | null {
  const minutes = minutesBetween(from, { on: from.on, time: until }, zone);
  if (minutes >= 0) return 60 * minutes;
  // The same reading after the clocks went back that day, by as much as they did: an hour in most zones, half of one on Lord Howe Island.
  const read = instantAt({ on: from.on, time: until }, zone);
  const back = tzOffset(zone, read) - tzOffset(zone, new Date(read.getTime() + MS_PER_DAY));
  const again = wallTime(new Date(read.getTime() + back * 60_000), zone);
  return back > 0 && minutes + back >= 0 && again.time === until && again.on === from.on ? 60 * (minutes + back) : null;
}
