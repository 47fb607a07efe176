import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { theilSen } from './theil-sen';

const weekly = (values: number[]) => values.map((value, i) => ({ day: 7 * i, value }));

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

  const series = fc.uniqueArray(
    fc.record({ day: fc.integer({ min: 0, max: 300 }), value: fc.integer({ min: 0, max: 100 }) }),
    {
      minLength: 3,
      maxLength: 40,
      selector: (point) => point.day,
    },
  );

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
        const slope = theilSen(points)?.slopePerWeek ?? Number.NaN;
        expect(theilSen(points.toReversed())?.slopePerWeek).toBeCloseTo(slope, 9);
        const turned = points.map(({ day, value }) => ({ day, value: 5 - 2 * value }));
        expect(theilSen(turned)?.slopePerWeek).toBeCloseTo(-2 * slope, 9);
      }),
    );
  });

  it('says nothing with fewer than three points, or all on one day', () => {
    expect(theilSen(weekly([1, 2]))).toBeNull();
    expect(theilSen([1, 2, 3].map((value) => ({ day: 5, value })))).toBeNull();
  });
});
