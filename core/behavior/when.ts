import type { IsoDate } from '../calendar/iso-date';
import { hoursByCell, partFinder, type Timetable } from '../calendar/timetable';
import { type Rate, rateOf } from './rates';

export interface WhenCell extends Rate {
  /** 1 is Monday, 7 is Sunday. */
  weekday: number;
  part: string;
}

interface Timed {
  on: IsoDate;
  time: string;
}

export interface When {
  /** Every cell of the timetable. */
  cells: WhenCell[];
  /** Incidents that fall in no part of the day. */
  outside: number;
}

/**
 * Weekday × part of the day: how many incidents, in how many hours, at what rate per hour.
 *
 * @param days  the school days on which the student was there
 * @see the scatter plot of Touchette, MacDonald & Langer (1985), Journal of Applied Behavior Analysis 18
 */
export function whenGrid(incidents: readonly Timed[], timetable: Timetable, days: readonly IsoDate[]): When {
  const keyOf = (day: number, part: string) => `${day} ${part}`;
  const cells = new Map(
    hoursByCell(timetable, days).map((cell) => [keyOf(cell.weekday, cell.part), { ...cell, n: 0 }]),
  );
  let outside = 0;
  const partOf = partFinder(timetable);
  for (const { on, time } of incidents) {
    const found = partOf(on, time);
    const cell = found && cells.get(keyOf(found.weekday, found.part));
    if (cell) cell.n++;
    else outside++;
  }
  return {
    cells: [...cells.values()].map(({ weekday: day, part, n, hours }) => ({ weekday: day, part, ...rateOf(n, hours) })),
    outside,
  };
}

/** The cells of a grid added up by part of the day, in the order of the day. */
export function byPart(cells: readonly WhenCell[]): (Rate & { part: string })[] {
  const parts = new Map<string, { n: number; exposure: number }>();
  for (const { part, n, exposure } of cells) {
    const sum = parts.get(part) ?? { n: 0, exposure: 0 };
    parts.set(part, { n: sum.n + n, exposure: sum.exposure + exposure });
  }
  return [...parts].map(([part, { n, exposure }]) => ({ part, ...rateOf(n, exposure) }));
}

export interface QuarterHour {
  from: string;
  n: number;
}

/**
 * Incidents by quarter of an hour, over all weekdays.
 *
 * @returns only quarters with an incident, in order: `09:15` holds 09:15 to 09:29
 */
export function byQuarterHour(incidents: readonly Timed[]): QuarterHour[] {
  const counts = new Map<string, number>();
  for (const { time } of incidents) {
    const from = quarterOf(time);
    counts.set(from, (counts.get(from) ?? 0) + 1);
  }
  return [...counts].map(([from, n]) => ({ from, n })).sort((a, b) => a.from.localeCompare(b.from));
}

/**
 * The quarter of an hour that a time falls in, by its first minute.
 *
 * @example quarterOf('09:29') // '09:15'
 */
export function quarterOf(time: string): string {
  return `${time.slice(0, 3)}${String(15 * Math.floor(Number(time.slice(3, 5)) / 15)).padStart(2, '0')}`;
}
