import fc from 'fast-check';
import { jStat } from 'jstat';
import { median as referenceMedian, sampleStandardDeviation } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { normalTwoSided, studentDeviate, studentTwoSided } from './distributions';
import { median } from './median';
import { mean, standardDeviation } from './spread';
import { tiesAmong } from './ties';
import { fisherExact, oddsRatio, yulesQ } from './two-by-two';
import { wilsonInterval } from './wilson';

const anyValues = (minLength: number, maxLength = 60) =>
  fc.array(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), { minLength, maxLength });

describe('median', () => {
  it('agrees with simple-statistics on any values', () => {
    fc.assert(
      fc.property(anyValues(1), (some) => {
        expect(median(some)).toBeCloseTo(referenceMedian(some), 9);
      }),
    );
  });

  it('leaves its input alone and refuses none', () => {
    const values = [3, 1, 2];
    expect(median(values)).toBe(2);
    expect(median([4, 1, 3, 2])).toBe(2.5);
    expect(values).toEqual([3, 1, 2]);
    expect(() => median([])).toThrow(RangeError);
  });
});

describe('mean and standard deviation', () => {
  it('agrees with simple-statistics, with n − 1 below the line', () => {
    fc.assert(
      fc.property(anyValues(2), (some) => {
        expect(standardDeviation(some)).toBeCloseTo(sampleStandardDeviation(some), 6);
      }),
    );
    // 32 / 7 under the root, by hand.
    expect(standardDeviation([2, 4, 4, 4, 5, 5, 7, 9])).toBeCloseTo(Math.sqrt(32 / 7), 12);
    expect(standardDeviation([5])).toBeNull();
    expect(mean([1, 2, 6])).toBe(3);
    expect(() => mean([])).toThrow(RangeError);
  });
});

describe('Student’s t', () => {
  // Published in every table of t, two-sided 5%.
  it.each([
    [1, 12.706],
    [2, 4.303],
    [3, 3.182],
    [5, 2.571],
    [10, 2.228],
    [30, 2.042],
    [120, 1.98],
  ])('with %i degrees of freedom', (freedom, t) => {
    expect(studentDeviate(0.05, freedom)).toBeCloseTo(t, 3);
  });

  it('agrees with jstat, and with itself the other way round', () => {
    const freedoms = fc.integer({ min: 1, max: 400 });
    fc.assert(
      fc.property(freedoms, fc.double({ min: 0.001, max: 0.5, noNaN: true }), (freedom, chance) => {
        const t = studentDeviate(chance, freedom);
        expect(t / jStat.studentt.inv(1 - chance / 2, freedom)).toBeCloseTo(1, 5);
        expect(studentTwoSided(t, freedom)).toBeCloseTo(chance, 12);
        expect(studentTwoSided(t, freedom)).toBeCloseTo(2 * (1 - jStat.studentt.cdf(t, freedom)), 6);
      }),
    );
  });

  it('has simple forms with one and two degrees of freedom (Cauchy: 1 − 2/π · arctan t)', () => {
    for (const t of [0, 0.3, 1, 2.5, 40]) {
      expect(studentTwoSided(t, 1)).toBeCloseTo(1 - (2 / Math.PI) * Math.atan(t), 12);
      expect(studentTwoSided(t, 2)).toBeCloseTo(1 - t / Math.sqrt(2 + t * t), 12);
    }
    expect(() => studentDeviate(0, 3)).toThrow(RangeError);
    expect(() => studentDeviate(0.05, 0.5)).toThrow(RangeError);
  });
});

describe('normal distribution', () => {
  it('leaves the published tails: 1.645, 1.96, 2.576 and 3.291 (any table)', () => {
    const tails = [1.6448536269514722, 1.959963984540054, 2.5758293035489004, 3.2905267314919255].map(normalTwoSided);
    for (const [i, tail] of [0.1, 0.05, 0.01, 0.001].entries()) expect(tails[i]).toBeCloseTo(tail, 12);
    // Far out, where only the ratio tells: twice 6.22096057e-16 beyond 8 (tables of the normal distribution, from memory).
    expect(normalTwoSided(8) / (2 * 6.22096057e-16)).toBeCloseTo(1, 8);
    expect(normalTwoSided(4) / (2 * 3.167124183312e-5)).toBeCloseTo(1, 8);
    expect(normalTwoSided(0)).toBe(1);
    expect(normalTwoSided(-1.96)).toBe(normalTwoSided(1.96));
  });

  it('agrees with jstat on both sides of where the method changes', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 6, noNaN: true }), (z) => {
        expect(normalTwoSided(z)).toBeCloseTo(2 * jStat.normal.cdf(-z, 0, 1), 9);
      }),
    );
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

describe('tables of two by two', () => {
  const cell = fc.integer({ min: 0, max: 40 });
  const tables = fc.record({ a: cell, b: cell, c: cell, d: cell });

  it('finds the lady tasting tea: 34/70 two-sided with three of four right, 2/70 with all (Fisher 1935)', () => {
    expect(fisherExact({ a: 3, b: 1, c: 1, d: 3 })).toBeCloseTo(34 / 70, 12);
    expect(fisherExact({ a: 4, b: 0, c: 0, d: 4 })).toBeCloseTo(2 / 70, 12);
  });

  it('sums the tables that are no likelier, as jstat’s hypergeometric distribution gives them', () => {
    fc.assert(
      fc.property(tables, ({ a, b, c, d }) => {
        const [row, column, n] = [a + b, a + c, a + b + c + d];
        const chance = (k: number) => jStat.hypgeom.pdf(k, n, column, row);
        let sum = 0;
        for (let k = Math.max(0, row + column - n); k <= Math.min(row, column); k++) {
          if (chance(k) <= chance(a) * (1 + 1e-7)) sum += chance(k);
        }
        expect(fisherExact({ a, b, c, d })).toBeCloseTo(n === 0 ? 1 : sum, 6);
      }),
    );
  });

  it('stays a chance with counts in the thousands', () => {
    const p = fisherExact({ a: 3000, b: 1000, c: 1000, d: 5000 });
    expect(p).toBeGreaterThanOrEqual(0);
    expect(p).toBeLessThan(1e-100);
  });

  it('adds a half to each cell of the odds ratio, by hand', () => {
    expect(oddsRatio({ a: 10, b: 5, c: 2, d: 8 })).toBeCloseTo((10.5 * 8.5) / (5.5 * 2.5), 12);
    expect(oddsRatio({ a: 0, b: 0, c: 0, d: 0 })).toBe(1);
  });

  it('gives Yule’s Q from the counts as they are, by hand, and none where a side is empty', () => {
    expect(yulesQ({ a: 10, b: 5, c: 2, d: 8 })).toBeCloseTo(70 / 90, 12);
    expect(yulesQ({ a: 4, b: 0, c: 0, d: 4 })).toBe(1);
    expect(yulesQ({ a: 4, b: 3, c: 0, d: 0 })).toBeNull();
  });

  it('turns over when the rows change places', () => {
    fc.assert(
      fc.property(tables, ({ a, b, c, d }) => {
        const [table, turned] = [
          { a, b, c, d },
          { a: c, b: d, c: a, d: b },
        ];
        expect(oddsRatio(table) * oddsRatio(turned)).toBeCloseTo(1, 9);
        expect((yulesQ(table) ?? 0) + (yulesQ(turned) ?? 0)).toBeCloseTo(0, 9);
        expect(fisherExact(table)).toBeCloseTo(fisherExact(turned), 9);
      }),
    );
  });
});

describe('ties', () => {
  it('are groups of equal values, single ones left out', () => {
    expect(tiesAmong([3, 1, 3, 2, 1, 3])).toEqual([2, 3]);
    expect(tiesAmong([-0, 0])).toEqual([2]);
    expect(tiesAmong([])).toEqual([]);
    expect(tiesAmong([1, 2, 3])).toEqual([]);
  });
});
