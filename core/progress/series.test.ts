import { describe, expect, it } from 'vitest';
import { calendar, goalOf, session } from '~/tests/examples/series';
import { seriesOf } from './series';

const phases = [
  { label: 'Baseline', startsOn: '2026-09-01', isBaseline: true },
  { label: 'New support', startsOn: '2026-09-08', isBaseline: false },
];

describe('series', () => {
  it('pools the sessions of a day from their raw counts', () => {
    const points = seriesOf(
      goalOf(),
      [session('2026-09-01', 6), session('2026-09-01', 8), session('2026-09-02', 5)],
      calendar,
    );
    expect(points.map(({ on, value, weight }) => [on, value, weight])).toEqual([
      ['2026-09-01', 70, 20],
      ['2026-09-02', 50, 10],
    ]);
    expect(points[0]?.observations).toHaveLength(2);
  });

  it('makes each session its own point where the goal says so', () => {
    const perSession = goalOf({ pointPer: 'session' });
    expect(seriesOf(perSession, [session('2026-09-01', 6), session('2026-09-01', 8)], calendar)).toHaveLength(2);
  });

  it('makes no point of a day without a score: blank is not zero', () => {
    const points = seriesOf(
      goalOf(),
      [session('2026-09-01', 'absent'), session('2026-09-02', 4), session('2026-09-02', 'declined')],
      calendar,
    );
    expect(points.map(({ value }) => value)).toEqual([40]);
  });

  it('knows each point’s phase, and that what lies before the first is in none', () => {
    const days = ['2026-08-31', '2026-09-01', '2026-09-07', '2026-09-08'];
    const points = seriesOf(
      goalOf({ phases }),
      days.map((on) => session(on, 5)),
      calendar,
    );
    expect(points.map(({ phase, isBaseline }) => [phase, isBaseline])).toEqual([
      [-1, false],
      [0, true],
      [0, true],
      [1, false],
    ]);
  });

  it('breaks the line after ten school days without a point, not for a holiday', () => {
    const gapOf = (closures: { first: string; last: string }[]) =>
      seriesOf(goalOf(), [session('2026-09-01', 5), session('2026-09-16', 5)], { ...calendar, closures })[1]?.afterGap;
    // From Tuesday 1 to Wednesday 16 September lie ten school days.
    expect(gapOf([])).toBe(true);
    expect(gapOf([{ first: '2026-09-07', last: '2026-09-07' }])).toBe(false);
  });
});
