import fc from 'fast-check';
import { median as referenceMedian } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { median } from './median';
import { wilsonInterval } from './wilson';

describe('median', () => {
  it('agrees with simple-statistics on any values', () => {
    const values = fc.array(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), { minLength: 1, maxLength: 60 });
    fc.assert(
      fc.property(values, (some) => {
        expect(median(some)).toBeCloseTo(referenceMedian(some), 9);
      }),
    );
  });

  it('leaves its input alone and refuses none', () => {
    const values = [3, 1, 2];
    expect(median(values)).toBe(2);
    expect(values).toEqual([3, 1, 2]);
    expect(() => median([])).toThrow(RangeError);
  });
});

describe('Wilson score interval', () => {
  // Published: Newcombe (1998), Statistics in Medicine 17, 857–872, table I, method 3 (cited from memory).
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('of %i in %i', (successes, n, low, high) => {
    const interval = wilsonInterval(successes, n);
    expect(interval.low).toBeCloseTo(low, 4);
    expect(interval.high).toBeCloseTo(high, 4);
  });

  it('holds exactly the proportions that the score test does not reject (its definition)', () => {
    const counts = fc
      .integer({ min: 1, max: 400 })
      .chain((n) => fc.tuple(fc.integer({ min: 0, max: n }), fc.constant(n)));
    fc.assert(
      fc.property(counts, ([successes, n]) => {
        const { low, high } = wilsonInterval(successes, n);
        for (const bound of [low, high].filter((p) => p > 1e-12 && p < 1 - 1e-12)) {
          const z = Math.abs(successes / n - bound) / Math.sqrt((bound * (1 - bound)) / n);
          expect(z).toBeCloseTo(1.959964, 4);
        }
        expect(low).toBeLessThanOrEqual(successes / n);
        expect(high).toBeGreaterThanOrEqual(successes / n);
      }),
    );
  });

  it('refuses what is no share', () => {
    expect(() => wilsonInterval(0, 0)).toThrow(RangeError);
    expect(() => wilsonInterval(3, 2)).toThrow(RangeError);
  });
});
