import { describe, expect, it } from 'vitest';
import { occurrenceAgreement } from './occurrence';

describe('two observers of when it occurred (Cooper, Heron & Heward: the coefficients are those of agreement.ts)', () => {
  const window = { from: 600, to: 650, interval: 10 };

  it('is counted out in intervals: by hand', () => {
    // Intervals from 10:00: A 2 0 1 0 1, B 1 0 1 1 0. They agree on 1, 2 and 3.
    const found = occurrenceAgreement([600, 609, 620, 649], [605, 629, 630], window);
    expect(found.perInterval).toEqual({ a: [2, 0, 1, 0, 1], b: [1, 0, 1, 1, 0] });
    expect(found).toMatchObject({
      total: 3 / 4,
      occurrence: 3 / 5,
      scored: 2 / 4,
      unscored: 1 / 3,
      exactPerInterval: 2 / 5,
    });
    // Smaller over larger: 1/2, 1, 1, 0, 0.
    expect(found.meanPerInterval).toBeCloseTo(2.5 / 5, 12);
    // Both yes 2, A alone 1, B alone 1, neither 1: observed .6, expected (9 + 4)/25 = .52.
    expect(found.kappa).toBeCloseTo((0.6 - 0.52) / 0.48, 12);
  });

  it('passes over what lies outside of the window, whose end is not in it, and lets the last interval be shorter', () => {
    const found = occurrenceAgreement([599, 600, 625], [600, 624, 700], { from: 600, to: 625, interval: 10 });
    expect(found.perInterval).toEqual({ a: [1, 0, 0], b: [1, 0, 1] });
  });

  it('leaves undefined what is not defined, and refuses a window that is none', () => {
    expect(occurrenceAgreement([], [], window)).toMatchObject({
      total: 1,
      occurrence: 1,
      scored: null,
      unscored: 1,
      kappa: null,
    });
    expect(() => occurrenceAgreement([], [], { from: 600, to: 600, interval: 10 })).toThrow(RangeError);
    expect(() => occurrenceAgreement([], [], { ...window, interval: 0 })).toThrow(RangeError);
  });
});
