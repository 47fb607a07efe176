import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../calendar/iso-date';
import { analyseSeries, nothingSet, type SeriesRow } from './analyse-series';

const asked = nothingSet;
const plain = { of: null, place: null, observer: null };
const rowsOf = (values: number[], phases: string[] = []): SeriesRow[] =>
  values.map((value, i) => ({ date: addDays('2026-09-01', 2 * i), value, phase: phases[i] ?? null, ...plain }));

describe('a series, analysed whole', () => {
  it('takes the first of several phases for the baseline, and each run for a phase of its own', () => {
    const phases = ['A', 'A', 'A', 'B', 'B', 'B', 'A', 'A', 'A'];
    const { baseline, phases: found, comparisons } = analyseSeries(rowsOf([1, 2, 3, 7, 8, 9, 2, 3, 2], phases), asked);
    expect(baseline).toEqual({ value: 2, on: '2026-09-05', from: 'phase' });
    expect(found.map(({ name, n }) => [name, n])).toEqual([
      ['A', 3],
      ['B', 3],
      ['A', 3],
    ]);
    expect(comparisons.map(({ nap }) => nap)).toEqual([1, 0]);
  });

  it('goes down where the target lies below the baseline, unless it is told otherwise', () => {
    const options = { ...asked, baseline: 10, target: 2, targetDate: '2026-12-01' };
    const falling = analyseSeries(rowsOf([9, 8, 6, 4, 3]), options);
    expect(falling).toMatchObject({ direction: 'decrease', decision: { is: 'above' }, progressToTarget: 0.75 });
    expect(analyseSeries(rowsOf([9, 8, 6, 4, 3]), { ...options, direction: 'increase' }).direction).toBe('increase');
  });

  it('counts gaps in school days: two weekends and ten days between', () => {
    const dates = ['2026-09-01', '2026-09-15', '2026-09-30'];
    const rows = dates.map((date) => ({ date, value: 1, phase: null, ...plain }));
    const { gaps, points } = analyseSeries(rows, asked);
    // Nine school days lie between 1 and 15 September, ten between 15 and 30 September.
    expect(gaps).toEqual([{ after: '2026-09-15', before: '2026-09-30', schoolDays: 10, calendarDays: 14 }]);
    expect(points.map(({ afterGap }) => afterGap)).toEqual([false, false, true]);
  });

  it('is met when k of n points are at the target, and only then', () => {
    const options = { ...asked, baseline: 0, target: 5, targetDate: '2026-12-01', criterion: { k: 2, n: 3 } };
    expect(analyseSeries(rowsOf([1, 5, 4, 6]), options)).toMatchObject({
      decision: { is: 'metHolding' },
      mastery: { metOn: '2026-09-07' },
    });
    expect(analyseSeries(rowsOf([1, 5, 4, 4]), options).decision.is).not.toBe('metHolding');
    expect(analyseSeries(rowsOf([9, 9, 9, 9]), { ...options, criterion: null }).decision.is).toBe('above');
  });

  it('says why there is no decision and no trend', () => {
    const { decision, trend, aimLine } = analyseSeries(rowsOf([4, 5]), asked);
    expect(aimLine).toBeNull();
    expect(decision).toEqual({
      is: 'tooEarly',
      reason: 'There is no target yet, so there is no aim line to compare with.',
      trend: '2 scores over 0 weeks so far; a trend needs 8 over 3 weeks.',
    });
    expect(trend).toMatchObject({ theilSen: null, leastSquares: null, splitMiddle: null });
    expect(trend.reason).toContain('3 points');
    const late = analyseSeries(rowsOf([4, 5, 6, 7]), { ...asked, baseline: 4, target: 9, targetDate: '2026-09-01' });
    expect(late.decision.reason).toContain('does not lie after the baseline');
  });

  const series = fc.array(fc.integer({ min: -40, max: 120 }), { minLength: 1, maxLength: 30 });
  const options = fc.record({
    target: fc.constantFrom(null, 0, 50),
    targetDate: fc.constantFrom(null, '2026-12-01'),
    baseline: fc.constantFrom(null, 0, 20),
    direction: fc.constantFrom(null, 'increase' as const, 'decrease' as const),
  });

  it('never gives NaN or Infinity, whatever the series', () => {
    fc.assert(
      fc.property(series, options, fc.integer({ min: 1, max: 29 }), (values, some, cut) => {
        const phases = values.map((_, i) => (i < cut ? 'A' : 'B'));
        const result = analyseSeries(rowsOf(values, phases), { ...asked, ...some });
        JSON.stringify(result, (key, value) => {
          if (typeof value === 'number' && !Number.isFinite(value)) throw new Error(`${key} is ${value}`);
          return value;
        });
      }),
    );
  });

  it('moves with the values: shifted, stretched, put in another order', () => {
    fc.assert(
      fc.property(series, (values) => {
        const rows = rowsOf(values);
        const { trend } = analyseSeries(rows, asked);
        const shuffled = analyseSeries(rows.toReversed(), asked);
        expect(shuffled.trend).toEqual(trend);
        const moved = analyseSeries(rowsOf(values.map((value) => 3 * value + 7)), asked).trend;
        for (const kind of ['theilSen', 'leastSquares', 'splitMiddle'] as const) {
          const [before, after] = [trend[kind], moved[kind]];
          if (before && after) expect(after.slopePerWeek).toBeCloseTo(3 * before.slopePerWeek, 6);
        }
        expect(moved.mannKendall).toEqual(trend.mannKendall);
      }),
    );
  });

  it('is the same upside down for a goal that goes down', () => {
    fc.assert(
      fc.property(series, (values) => {
        const aim = { ...asked, baseline: 10, target: 60, targetDate: '2026-12-01', direction: 'increase' as const };
        const up = analyseSeries(rowsOf(values), aim);
        const down = analyseSeries(rowsOf(values.map((value) => 0 - value)), {
          ...aim,
          baseline: -10,
          target: -60,
          direction: 'decrease',
        });
        expect(down.decision.is).toBe(up.decision.is);
        expect(down.progressToTarget).toBeCloseTo(up.progressToTarget ?? 0, 9);
        expect(down.trend.drawn?.slopePerWeek ?? 0).toBeCloseTo(0 - (up.trend.drawn?.slopePerWeek ?? 0), 9);
        expect(down.arrival).toEqual(up.arrival);
      }),
    );
  });
});
