import fc from 'fast-check';
import { TheilSenRegression } from 'ml-regression-theil-sen';
import { describe, expect, it } from 'vitest';
import { kendallS } from './mann-kendall';
import { slopesAtRanks } from './pair-slopes';
import { theilSen } from './theil-sen';
import { columnsOf } from './trend-line';

const weekly = (values: number[]) => values.map((value, i) => ({ day: 7 * i, value }));
const series = fc.uniqueArray(
  fc.record({ day: fc.integer({ min: 0, max: 300 }), value: fc.integer({ min: 0, max: 100 }) }),
  { minLength: 3, maxLength: 40, selector: (point) => point.day },
);

describe('Theil–Sen slope', () => {
  it('is the median of the pairwise slopes: three points by hand', () => {
    // Slopes a week: 1 (first to second), 7 (second to third), 4 (first to third); their median is 4.
    expect(theilSen(weekly([1, 2, 9]))?.slopePerWeek).toBeCloseTo(4, 12);
  });

  it('agrees with an example worked by hand, one wild point and all', () => {
    // 10, 12, 11, 15, 14, 40, a week apart: the 15 pairwise slopes, sorted, are −1, −1, 1/2, 2/3, 1, 3/2, 3/2, 5/3, 2, 4, 6,
    // 7, 29/3, 25/2, 26; the eighth is 5/3.
    expect(theilSen(weekly([10, 12, 11, 15, 14, 40]))?.slopePerWeek).toBeCloseTo(5 / 3, 9);
  });

  it('finds the published slopes of two textbook sets', () => {
    // Hollander & Wolfe, Nonparametric Statistical Methods, ch. 9, rainfall after cloud seeding: −.056 (from memory; the
    // middle two of the ten slopes are −.0575 and −.055, by hand).
    const rainfall = [1.26, 1.27, 1.12, 1.16, 1.03].map((value, i) => ({ day: 7 * i, value }));
    expect(theilSen(rainfall)?.slopePerWeek).toBeCloseTo(-0.05625, 12);
    // Sen (1968), section 6: the slope is 4 (from memory).
    const days = [1, 2, 3, 4, 10, 12, 18];
    const sen = [9, 15, 19, 20, 45, 55, 78].map((value, i) => ({ day: 7 * (days[i] as number), value }));
    expect(theilSen(sen)?.slopePerWeek).toBeCloseTo(4, 12);
  });

  it('agrees with ml-regression-theil-sen, where the number of pairs is odd (of an even one it takes no mean)', () => {
    fc.assert(
      fc.property(series, (points) => {
        if (points.length % 4 < 2) return;
        const x = points.map(({ day }) => day);
        const reference = new TheilSenRegression(
          x,
          points.map(({ value }) => value),
        );
        const line = theilSen(points);
        expect(line?.slopePerWeek).toBeCloseTo(7 * reference.slope, 9);
      }),
    );
  });

  it('finds a straight line exactly, and a third of wild points does not move it far from it', () => {
    const line = Array.from({ length: 12 }, (_, i) => ({ day: 3 * i, value: 20 + 0.5 * 3 * i }));
    expect(theilSen(line)?.slopePerWeek).toBeCloseTo(3.5, 9);
    const spoiled = line.map((point, i) => (i === 4 || i === 7 ? { ...point, value: 100 } : point));
    expect(theilSen(spoiled)?.slopePerWeek).toBeCloseTo(3.5, 1);
    expect(theilSen(line)?.at(30)).toBeCloseTo(35, 9);
  });

  it('turns with the values and does not care for their order (equivariance, Sen 1968)', () => {
    fc.assert(
      fc.property(series, (points) => {
        const line = theilSen(points);
        expect(theilSen(points.toReversed())?.slopePerWeek).toBeCloseTo(line?.slopePerWeek ?? Number.NaN, 9);
        const turned = theilSen(points.map(({ day, value }) => ({ day, value: 5 - 2 * value })));
        expect(turned?.slopePerWeek).toBeCloseTo(-2 * (line?.slopePerWeek ?? Number.NaN), 9);
        expect(turned?.low).toBeCloseTo(-2 * (line?.high ?? Number.NaN), 9);
        expect(turned?.high).toBeCloseTo(-2 * (line?.low ?? Number.NaN), 9);
      }),
    );
  });

  it('leaves pairs of one day out', () => {
    // Slopes per day: 2, 4, 3 (twice), none within day 2.
    const points = [
      { day: 0, value: 0 },
      { day: 2, value: 4 },
      { day: 2, value: 8 },
      { day: 4, value: 12 },
    ];
    // 2, 4 from the first; 3 from first to last; 4 and 2 to the last: the median is 3.
    expect(theilSen(points)?.slopePerWeek).toBeCloseTo(21, 12);
  });

  it('says nothing with fewer than three points, or all on one day', () => {
    expect(theilSen(weekly([1, 2]))).toBeNull();
    expect(theilSen([1, 2, 3].map((value) => ({ day: 5, value })))).toBeNull();
  });
});

describe('Sen’s interval', () => {
  it('lies where the ranks say: by hand for ten points', () => {
    // 45 slopes; the variance of S is 10 · 9 · 25 / 18 = 125, so C = 1.96 · 11.18 = 21.9: ranks 12 and 34 of 45.
    const points = weekly([3, 1, 4, 1, 5, 9, 2, 6, 5, 8].map((value, i) => value + i / 1000));
    const slopes = points
      .flatMap((a, i) => points.slice(i + 1).map((b) => (b.value - a.value) / (b.day - a.day)))
      .sort((a, b) => a - b);
    const line = theilSen(points);
    expect(line?.low).toBeCloseTo(7 * (slopes[11] as number), 12);
    expect(line?.high).toBeCloseTo(7 * (slopes[33] as number), 12);
    expect(line?.confidence).toBe(0.95);
  });

  it('holds the slopes that Kendall’s test does not reject, but for the half rank it is rounded by (Sen 1968)', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 10_000 }), { minLength: 8, maxLength: 25 }), (values) => {
        const points = weekly(values);
        const line = theilSen(points);
        if (!line) return;
        const n = points.length;
        const limit = 1.959963984540054 * Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18);
        const sLess = (slope: number) =>
          kendallS(points.map(({ day, value }) => ({ day, value: value - (slope / 7) * day })));
        expect(Math.abs(sLess(line.low - 1e-6))).toBeGreaterThan(limit - 2);
        expect(Math.abs(sLess(line.low + 1e-6))).toBeLessThan(limit + 2);
        expect(Math.abs(sLess(line.high + 1e-6))).toBeGreaterThan(limit - 2);
        expect(Math.abs(sLess(line.high - 1e-6))).toBeLessThan(limit + 2);
      }),
    );
  });

  it('is the widest pair with three or four points, and says how little that is worth', () => {
    expect(theilSen(weekly([1, 2, 9]))).toMatchObject({ low: 1, high: 7 });
    expect(theilSen(weekly([1, 2, 9]))?.confidence).toBeCloseTo(1 - 2 / 6, 12);
    expect(theilSen(weekly([0, 1, 3, 9]))?.confidence).toBeCloseTo(1 - 2 / 24, 12);
    expect(theilSen(weekly([0, 1, 3, 9, 10]))?.confidence).toBe(0.95);
    // Two pairs that share a day each: of 120 orders 2 · 2 have every slope going up.
    const shared = [0, 0, 7, 7, 14].map((day, i) => ({ day, value: [0, 2, 3, 9, 10][i] as number }));
    const line = theilSen(shared);
    expect(line?.confidence).toBeCloseTo(1 - 8 / 120, 12);
    const slopes = shared.flatMap((a, i) =>
      shared.slice(i + 1).flatMap((b) => (b.day > a.day ? [b.value - a.value] : [])),
    );
    expect(line?.low).toBeCloseTo(Math.min(...slopes.map((rise, i) => rise / [1, 1, 2, 1, 1, 2, 1, 1][i]!)), 12);
  });

  it('is narrow where many points lie on a line, and nothing where all do', () => {
    const flat = theilSen(weekly(Array(20).fill(5)));
    expect(flat).toMatchObject({ slopePerWeek: 0, low: 0, high: 0 });
  });
});

describe('slopes of many points', () => {
  it('are the same ones whether all are kept or only those near the ranks', () => {
    // 600 points make 179,700 pairs; whole values make many ties.
    const points = Array.from({ length: 600 }, (_, i) => ({ day: i, value: (i * 37) % 101 }));
    const all = points
      .flatMap((a, i) => points.slice(i + 1).map((b) => (b.value - a.value) / (b.day - a.day)))
      .sort((a, b) => a - b);
    for (const ranks of [[0], [90_000, 90_001, 95_000], [179_699], [1000, 178_000]]) {
      expect(slopesAtRanks(columnsOf(points), all.length, ranks)).toEqual(ranks.map((rank) => all[rank]));
    }
  });

  it('gives the slopes at ranks also where more pairs are alike than were looked for', () => {
    // Of 200 points half are 0 and half 1, in turns: most slopes near the middle are alike.
    const points = Array.from({ length: 200 }, (_, i) => ({ day: i, value: i % 2 }));
    const slopes = points
      .flatMap((a, i) => points.slice(i + 1).map((b) => (b.value - a.value) / (b.day - a.day)))
      .sort((a, b) => a - b);
    const ranks = [0, 4_900, 9_949, 9_950, 15_000, slopes.length - 1];
    expect(slopesAtRanks(columnsOf(points), slopes.length, ranks)).toEqual(ranks.map((rank) => slopes[rank]));
    expect(slopesAtRanks(columnsOf(points), slopes.length, [9_949, 9_950])).toEqual([0, 0]);
  });
});
