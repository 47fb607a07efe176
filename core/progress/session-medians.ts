import { type IsoDate, weekday } from '../calendar/iso-date';
import { type MeasureData, type MeasureDefinition, measureOf } from '../measures/measure';
import { median } from '../statistics/median';

export interface SessionMedian<K> {
  key: K;
  /** Sessions with a score. */
  n: number;
  median: number;
}

/** A session with its score. */
export interface ScoredSession<S> {
  session: S;
  value: number;
}

/**
 * Sessions with what each scored; those without a score are left out. Of a cumulative total there are none: what one session adds says
 * nothing of it.
 */
export function scoredSessions<S extends { data: MeasureData | null }>(
  measure: MeasureDefinition,
  sessions: readonly S[],
): ScoredSession<S>[] {
  const of = measureOf(measure);
  if (of.accumulates) return [];
  return sessions.flatMap((session) => {
    const value = session.data === null ? null : of.score(session.data).value;
    return value === null ? [] : { session, value };
  });
}

/**
 * The median of the sessions' scores for each key: for each observer, each place.
 *
 * @param keyOf  what a session belongs to; null for nothing
 * @returns in the order in which the keys first come up
 */
export function sessionMedians<S, K>(
  scored: readonly ScoredSession<S>[],
  keyOf: (session: S) => K | null,
): SessionMedian<K>[] {
  const values = new Map<K, number[]>();
  for (const { session, value } of scored) {
    const key = keyOf(session);
    if (key === null) continue;
    const own = values.get(key);
    if (own) own.push(value);
    else values.set(key, [value]);
  }
  return [...values].map(([key, own]) => ({ key, n: own.length, median: median(own) }));
}

/** The same by day of the week, Monday first; 1 is Monday. */
export function mediansByWeekday(scored: readonly ScoredSession<{ on: IsoDate }>[]): SessionMedian<number>[] {
  return sessionMedians(scored, ({ on }) => weekday(on)).sort((a, b) => a.key - b.key);
}
