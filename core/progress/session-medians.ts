import { type IsoDate, weekday } from '../calendar/iso-date';
import { type MeasureData, type MeasureDefinition, measureOf } from '../measures/measure';
import { median } from '../statistics/median';

export interface SessionMedian<K> {
  key: K;
  /** Sessions with a score. */
  n: number;
  median: number;
}

/**
 * The median of the sessions' scores for each key: for each observer, each place. Sessions without a score are left out.
 * A cumulative total has none: what one session adds says nothing of it.
 *
 * @param keyOf  what a session belongs to; null for nothing
 * @returns in the order in which the keys first come up
 */
export function sessionMedians<S extends { data: MeasureData | null }, K>(
  measure: MeasureDefinition,
  sessions: readonly S[],
  keyOf: (session: S) => K | null,
): SessionMedian<K>[] {
  const of = measureOf(measure);
  if (of.accumulates) return [];
  const values = new Map<K, number[]>();
  for (const session of sessions) {
    const key = keyOf(session);
    const value = session.data === null ? null : of.score(session.data).value;
    if (key === null || value === null) continue;
    const own = values.get(key);
    if (own) own.push(value);
    else values.set(key, [value]);
  }
  return [...values].map(([key, own]) => ({ key, n: own.length, median: median(own) }));
}

/** The same by day of the week, Monday first; 1 is Monday. */
export function mediansByWeekday(
  measure: MeasureDefinition,
  sessions: readonly { on: IsoDate; data: MeasureData | null }[],
): SessionMedian<number>[] {
  return sessionMedians(measure, sessions, ({ on }) => weekday(on)).sort((a, b) => a.key - b.key);
}
