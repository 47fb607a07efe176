import { TZDate } from '@date-fns/tz';
import type { IsoDate } from './iso-date';

/** A date and a time of day as calendar and clock on the school's wall show them. */
export interface WallTime {
  on: IsoDate;
  /** `HH:MM` */
  time: string;
}

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
  const [year, month, day] = on.split('-').map(Number) as [number, number, number];
  const [hour, minute] = time.split(':').map(Number) as [number, number];
  return new Date(new TZDate(year, month - 1, day, hour, minute, zone).getTime());
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
  const began = instantAt(from, zone);
  const minutes = minutesBetween(from, { on: from.on, time: until }, zone);
  if (minutes >= 0) return 60 * minutes;
  // The same reading an hour later, where there is one.
  for (const later of [30, 60, 120]) {
    const again = new Date(began.getTime() + (minutes + later) * 60_000);
    if (minutes + later >= 0 && wallTime(again, zone).time === until && wallTime(again, zone).on === from.on) {
      return 60 * (minutes + later);
    }
  }
  return null;
}
