import { describe, expect, it } from 'vitest';
import { calendar, goalOf, session } from '~/tests/examples/series';
import type { ObservedSession } from '../entries/observation';
import type { MeasureDefinition } from '../measures/measure';
import { progressOf } from './progress';
import { joinedRuns, seriesOf } from './series';

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
      [session('2026-09-01', 'absent'), session('2026-09-02', 4), session('2026-09-02', 'refused')],
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

  it('joins points within a phase and up to a gap only', () => {
    const days = ['2026-09-01', '2026-09-02', '2026-09-08', '2026-09-09', '2026-09-10', '2026-10-12'];
    const points = seriesOf(
      goalOf({ phases }),
      days.map((on) => session(on, 5)),
      calendar,
    );
    expect(joinedRuns(points).map((run) => run.map(({ on }) => on.slice(5)))).toEqual([
      ['09-01', '09-02'],
      ['09-08', '09-09', '09-10'],
      ['10-12'],
    ]);
  });

  it('adds a cumulative total up: each point holds all before it, and now is the last', () => {
    const goal = goalOf({
      measure: { kind: 'cumulativeTotal', unit: { one: 'hour', many: 'hours' }, total: 20 },
      criterion: { comparison: 'atLeast', value: 100, rule: { kind: 'inARow', n: 1 } },
      baseline: { value: 0, on: '2026-09-01' },
      target: 100,
    });
    const sessions = [1, 2, 3, 4].map((amount, i) => ({
      ...session(['2026-09-01', '2026-09-01', '2026-09-02', '2026-09-03'][i] as string, 0),
      outcome: { data: { amounts: [{ amount, category: null }] }, reason: null },
    }));
    const progress = progressOf(goal, sessions, { calendar, today: '2026-09-04' });
    expect(progress.points.map(({ on, value, amount }) => [on, value, amount])).toEqual([
      ['2026-09-01', 15, 3],
      ['2026-09-02', 30, 6],
      ['2026-09-03', 50, 10],
    ]);
    expect(progress).toMatchObject({ now: 50, progressToTarget: 0.5, mastery: { metOn: null }, trend: null });
  });

  it('carries on where only the list of items changed, and breaks where figures cannot be compared', () => {
    const check = (items: string[], level = 'right') =>
      goalOf({
        measure: {
          ...{ kind: 'itemCheck', mostSupport: level, levels: [{ key: level, label: level, words: level }] },
          items: items.map((key) => ({ key, label: key })),
        },
      });
    const now = check(['bread', 'rye', 'salt']);
    const asked = (on: string, items: string[], outcome: string, former?: MeasureDefinition): ObservedSession => ({
      ...session(on, 0),
      outcome: { data: { items: items.map((item) => ({ item, outcome })) }, reason: null },
      ...(former && { former }),
    });
    const points = seriesOf(
      now,
      [
        asked('2026-09-01', ['bread'], 'alone', check(['bread'], 'alone').measure),
        asked('2026-09-02', ['bread', 'rye'], 'right', check(['bread', 'rye']).measure),
        asked('2026-09-03', ['bread', 'rye', 'salt'], 'right'),
      ],
      calendar,
    );
    expect(points.map(({ value, isFormer }) => [value, isFormer])).toEqual([
      [100, true],
      [100, false],
      [100, false],
    ]);
  });
});
