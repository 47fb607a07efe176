import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { drawnTrend, meanDistance, tooEarlyForTrend } from './drawn-trend';
import { leastSquares } from './least-squares';
import { roundingVariance, shareVariance } from './weighted';

const series = (values: number[], weight = 6) => values.map((value, i) => ({ day: 3 * i, value, weight }));
const values = fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 8, maxLength: 40 });

describe('the trend that is drawn', () => {
  it('is least squares where all days weigh the same (least-squares.ts is held to the NIST reference data)', () => {
    fc.assert(
      fc.property(values, (some) => {
        const trend = drawnTrend(series(some), shareVariance);
        expect(trend?.slopePerWeek).toBeCloseTo(leastSquares(series(some))?.slopePerWeek ?? 0, 9);
      }),
    );
  });

  it('weighs a day of twelve like two days of six', () => {
    fc.assert(
      fc.property(values, (some) => {
        const heavy = series(some).map((point, i) => ({ ...point, weight: i % 3 === 0 ? 12 : 6 }));
        const twice = heavy.flatMap((point) =>
          point.weight === 12
            ? [
                { ...point, weight: 6 },
                { ...point, weight: 6 },
              ]
            : [point],
        );
        expect(drawnTrend(heavy, shareVariance)?.slopePerWeek).toBeCloseTo(leastSquares(twice)?.slopePerWeek ?? 0, 9);
      }),
    );
  });

  it('never has an interval of no width, and keeps levels to what is possible', () => {
    fc.assert(
      fc.property(values, fc.boolean(), (some, isShare) => {
        const flat = some.map(() => some[0] as number);
        for (const list of [some, flat]) {
          const least = isShare ? shareVariance : roundingVariance(list);
          const trend = drawnTrend(series(list), least, { low: 0, high: 100 });
          if (!trend) throw new Error('Eight points over three weeks have a trend.');
          expect(trend.high).toBeGreaterThan(trend.slopePerWeek);
          expect(trend.low).toBeLessThan(trend.slopePerWeek);
          expect(trend.levelLow).toBeGreaterThanOrEqual(0);
          expect(trend.levelHigh).toBeLessThanOrEqual(100);
        }
      }),
    );
  });

  it('is wider where neighbouring days are alike', () => {
    const trend = (list: number[]) => drawnTrend(series(list, 50), shareVariance);
    const waves = Array.from({ length: 24 }, (_, i) => 50 + (i % 8 < 4 ? 15 : -15));
    const mixed = Array.from({ length: 24 }, (_, i) => 50 + (i % 2 ? 15 : -15));
    const width = (list: number[]) => (trend(list)?.high ?? 0) - (trend(list)?.low ?? 0);
    expect(trend(waves)?.correlation).toBeGreaterThan(0.3);
    expect(trend(mixed)?.correlation).toBe(0);
    expect(width(waves)).toBeGreaterThan(1.3 * width(mixed));
  });

  it('waits for eight scores over three weeks', () => {
    const daily = Array.from({ length: 8 }, (_, i) => ({ day: i, value: 50, weight: 6 }));
    expect(drawnTrend(daily, shareVariance)).toBeNull();
    expect(tooEarlyForTrend(daily)).toBe('8 scores over 1 week so far; a trend needs 8 over 3 weeks.');
    expect(tooEarlyForTrend(series([1, 2, 3, 4, 5, 6, 7, 8]))).toBeNull();
  });
});

describe('the mean distance to a line', () => {
  it('is the weighted mean, by hand', () => {
    const points = [10, 20, 30, 40].map((value, i) => ({ day: i, value, weight: i === 3 ? 3 : 1 }));
    // (10 + 20 + 30 + 3 · 40) / 6 − 25 = 5
    const { mean, low, high } = meanDistance(points, () => 25, shareVariance);
    expect(mean).toBeCloseTo(5, 12);
    expect(low).toBeLessThan(mean);
    expect(high - mean).toBeCloseTo(mean - low, 12);
  });
});
