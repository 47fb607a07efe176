import type { TimetableBlock } from './timetable';

/**
 * One timetable of several, none over another: what comes first keeps its time, of what comes later only the time that is
 * left stays. So a student’s own part of the day stands before the group’s, and the group’s before the school’s.
 *
 * @param layers  the blocks that stand first, then those behind them; within a layer the earlier one in the list stands first
 * @returns in order of weekday and time
 * @example layered([[workshop9to10], [lessons9to12]]) // workshop 9 to 10, lessons 10 to 12
 */
export function layered<Block extends TimetableBlock>(layers: readonly (readonly Block[])[]): Block[] {
  const taken: Block[] = [];
  for (const block of layers.flat()) {
    const inTheWay = taken
      .filter((other) => other.weekday === block.weekday && other.from < block.to && block.from < other.to)
      .sort((a, b) => a.from.localeCompare(b.from));
    let from = block.from;
    for (const other of inTheWay) {
      if (from < other.from) taken.push({ ...block, from, to: other.from });
      if (from < other.to) from = other.to;
    }
    if (from < block.to) taken.push({ ...block, from });
  }
  return taken.sort((a, b) => a.weekday - b.weekday || a.from.localeCompare(b.from));
}
