import { z } from 'zod';
import { clockTimeField } from './date-fields';
import { type IsoDate, weekday } from './iso-date';
import type { WallTime } from './zone';

/** A block of a timetable: a part of the day on one weekday. The same part may lie elsewhere on another weekday. */
export const timetableBlock = z
  .object({
    /** 1 is Monday, 7 is Sunday. */
    weekday: z.number().int().min(1).max(7),
    part: z.string().trim().min(1).max(60),
    from: clockTimeField,
    to: clockTimeField,
    /** Where the student usually is. */
    location: z.string().nullable().default(null),
  })
  .refine(({ from, to }) => from < to, { error: 'A part of the day ends after it begins.', path: ['to'] });
export type TimetableBlock = z.infer<typeof timetableBlock>;

/** A week of blocks, none over another. */
export const timetableDefinition = z
  .array(timetableBlock)
  .max(200)
  .superRefine((blocks, context) => {
    const sorted = blocks.toSorted((a, b) => a.weekday - b.weekday || a.from.localeCompare(b.from));
    for (const [i, block] of sorted.entries()) {
      const before = sorted[i - 1];
      if (!before || before.weekday !== block.weekday || before.to <= block.from) continue;
      const message = `“${block.part}” begins at ${block.from}, before “${before.part}” ends at ${before.to}.`;
      context.addIssue({ code: 'custom', message, path: [blocks.indexOf(block), 'from'], input: blocks });
    }
  });
export type Timetable = readonly TimetableBlock[];

/** Minutes from midnight of a time of day. */
export const minutesOfDay = (time: string) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));

/** The hours that a block takes. */
export function hoursOf({ from, to }: Pick<TimetableBlock, 'from' | 'to'>): number {
  return (minutesOfDay(to) - minutesOfDay(from)) / 60;
}

/**
 * The block that a time falls in; a block holds its first minute and not its last.
 *
 * @returns null between blocks and outside of school
 */
export function blockAt(timetable: Timetable, { on, time }: WallTime): TimetableBlock | null {
  const day = weekday(on);
  return timetable.find((block) => block.weekday === day && block.from <= time && time < block.to) ?? null;
}

/**
 * `blockAt` for many times: each weekday is looked up once.
 *
 * @returns a function that finds the block of a date and a time; null between blocks
 */
export function partFinder(timetable: Timetable): (on: IsoDate, time: string) => TimetableBlock | null {
  const byDate = new Map<IsoDate, TimetableBlock[]>();
  return (on, time) => {
    let blocks = byDate.get(on);
    if (!blocks) {
      const day = weekday(on);
      blocks = timetable.filter((block) => block.weekday === day);
      byDate.set(on, blocks);
    }
    return blocks.find((block) => block.from <= time && time < block.to) ?? null;
  };
}

export interface CellHours {
  weekday: number;
  part: string;
  hours: number;
}

/**
 * How many hours each part of the day took on each weekday, over some school days.
 *
 * @param days  the school days on which the student was there
 */
export function hoursByCell(timetable: Timetable, days: readonly IsoDate[]): CellHours[] {
  const daysByWeekday = countWeekdays(days);
  const cells = new Map<string, CellHours>();
  for (const block of timetable) {
    const key = JSON.stringify([block.weekday, block.part]);
    const cell = cells.get(key) ?? { weekday: block.weekday, part: block.part, hours: 0 };
    cell.hours += hoursOf(block) * (daysByWeekday.get(block.weekday) ?? 0);
    cells.set(key, cell);
  }
  return [...cells.values()];
}

export interface LocationHours {
  location: string;
  hours: number;
}

/** How many hours each place took, over some school days; blocks without a place are left out. */
export function hoursByLocation(timetable: Timetable, days: readonly IsoDate[]): LocationHours[] {
  const daysByWeekday = countWeekdays(days);
  const hours = new Map<string, number>();
  for (const { location, ...block } of timetable) {
    if (location === null) continue;
    hours.set(location, (hours.get(location) ?? 0) + hoursOf(block) * (daysByWeekday.get(block.weekday) ?? 0));
  }
  return [...hours].map(([location, sum]) => ({ location, hours: sum }));
}

function countWeekdays(days: readonly IsoDate[]): Map<number, number> {
  const counts = new Map<number, number>();
  for (const day of days) counts.set(weekday(day), (counts.get(weekday(day)) ?? 0) + 1);
  return counts;
}
