import { dateSeenFrom, type IsoDate, mondayOf } from '../calendar/iso-date';
import type { Grouping } from '../sharing/visibility-rule';

export interface EntryGroup<T> {
  key: string;
  /** Null where all stand together. */
  title: string | null;
  entries: T[];
}

interface Grouped {
  on: IsoDate;
  goalId: string | null;
  title: string;
  kind: string;
}

/**
 * Entries by week, each named by its Monday, by goal, or all together; within a group in the order they come in. Weeks come in
 * the order of the entries, goals in the order of the plan, then behavior, forms and reflections.
 *
 * @param goals  in the order of the plan
 * @example groupEntries([{ on: '2026-11-24', … }, { on: '2026-11-20', … }], 'week', []) // weeks of Nov 23 and Nov 16
 */
export function groupEntries<T extends Grouped>(
  entries: readonly T[],
  grouping: Grouping,
  goals: readonly { id: string; number: string; shortName: string }[],
  today: IsoDate,
): EntryGroup<T>[] {
  if (grouping === 'none') return entries.length === 0 ? [] : [{ key: 'all', title: null, entries: [...entries] }];
  const groups = new Map<string, EntryGroup<T>>();
  if (grouping === 'goal') {
    for (const { id, number, shortName } of goals)
      groups.set(id, { key: id, title: `${number} · ${shortName}`, entries: [] });
    groups.set('behavior', { key: 'behavior', title: 'Behavior', entries: [] });
    groups.set('forms', { key: 'forms', title: 'Forms', entries: [] });
    groups.set('reflections', { key: 'reflections', title: 'Reflections', entries: [] });
  }
  const keyOf = (entry: T) =>
    grouping === 'week' ? mondayOf(entry.on) : (entry.goalId ?? otherGroups[entry.kind] ?? 'behavior');
  for (const entry of entries) {
    const key = keyOf(entry);
    const group = groups.get(key);
    if (group) group.entries.push(entry);
    else groups.set(key, { key, title: weekWords(key, today), entries: [entry] });
  }
  return [...groups.values()].filter((group) => group.entries.length > 0);
}

/** Where entries stand that are neither of a goal nor of behavior. */
const otherGroups: Record<string, string> = { reflection: 'reflections', note: 'forms' };

const weekWords = (monday: IsoDate, today: IsoDate) => `Week of ${dateSeenFrom(monday, today)}`;
