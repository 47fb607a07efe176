import { type IsoDate, mondayOf } from '../calendar/iso-date';

/**
 * Entries by week, each week named by its Monday, in the order the entries come in.
 *
 * @example groupByWeek([{ on: '2026-11-24' }, { on: '2026-11-23' }, { on: '2026-11-20' }]) // weeks of Nov 23 (two) and Nov 16 (one)
 */
export function groupByWeek<T extends { on: IsoDate }>(entries: readonly T[]): { monday: IsoDate; entries: T[] }[] {
  const weeks: { monday: IsoDate; entries: T[] }[] = [];
  for (const entry of entries) {
    const monday = mondayOf(entry.on);
    const last = weeks.at(-1);
    if (last?.monday === monday) last.entries.push(entry);
    else weeks.push({ monday, entries: [entry] });
  }
  return weeks;
}
