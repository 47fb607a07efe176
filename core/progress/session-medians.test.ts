import { describe, expect, it } from 'vitest';
import { measureDefinition } from '../measures/measure';
import { mediansByWeekday, scoredSessions, sessionMedians } from './session-medians';

const count = measureDefinition.parse({ kind: 'frequency', per: 'minute' });
const session = (on: string, n: number | null, observer: string | null = 'H. Bruun') => ({
  on,
  observer,
  data: n === null ? null : { count: n, minutes: 1 },
});

describe('medians of sessions', () => {
  it('by observer: the middle of each one’s sessions, blanks left out', () => {
    const sessions = [
      session('2026-11-23', 4),
      session('2026-11-24', 8, 'N. Haddad'),
      session('2026-11-24', null),
      session('2026-11-25', 9),
      session('2026-11-26', 5),
      session('2026-11-26', 7, null),
    ];
    expect(sessionMedians(scoredSessions(count, sessions), ({ observer }) => observer)).toEqual([
      { key: 'H. Bruun', n: 3, median: 5 },
      { key: 'N. Haddad', n: 1, median: 8 },
    ]);
  });

  it('by day of the week, Monday first (23 November 2026 was a Monday)', () => {
    const sessions = ['2026-11-25', '2026-11-23', '2026-11-16'].map((on, i) => session(on, i));
    expect(mediansByWeekday(scoredSessions(count, sessions))).toEqual([
      { key: 1, n: 2, median: 1.5 },
      { key: 3, n: 1, median: 0 },
    ]);
  });

  it('has none of a cumulative total', () => {
    const total = measureDefinition.parse({ kind: 'cumulativeTotal', unit: { one: 'hour', many: 'hours' }, total: 9 });
    const data = { amounts: [{ amount: 1, category: null }] };
    expect(scoredSessions(total, [{ data }])).toEqual([]);
  });
});
