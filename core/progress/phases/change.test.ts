import { describe, expect, it } from 'vitest';
import { roundingVariance } from '../trend/weighted';
import {
  baselineCorrectedTau,
  changeAtLine,
  dualCriterion,
  logResponseRatio,
  napInterval,
  neededByChance,
  publishedNeed,
} from './change';
import { nonoverlapOfAllPairs, tau } from './nonoverlap';

const series = (values: number[], from = 0) => values.map((value, i) => ({ day: from + i, value, weight: 1 }));

describe('dual-criterion lines', () => {
  it('need as many as the exact binomial at .05 (tables of the binomial with an even chance)', () => {
    // One-sided tails: 5 of 5 .031; 6 of 6 .016; 7 of 7 .008 (6 of 7 .0625); 7 of 8 .035; 8 of 9 .020; 9 of 10 .011 (8 of 10 .055).
    expect([5, 6, 7, 8, 9, 10].map(neededByChance)).toEqual([5, 6, 7, 7, 8, 9]);
    expect(neededByChance(20)).toBe(15); // .0207; 14 of 20 is .0577
  });

  it('say where the published table asks for another number: for one fewer, never for more', () => {
    const lengths = Array.from({ length: 19 }, (_, i) => i + 5);
    const differs = lengths.filter((n) => publishedNeed(n) !== neededByChance(n));
    expect(differs).toEqual([7, 10, 12, 17, 19, 20, 21, 22, 23]);
    expect(differs.every((n) => publishedNeed(n) === neededByChance(n) - 1)).toBe(true);
    expect([4, 24].map(publishedNeed)).toEqual([null, null]);
  });

  it('are the mean and the line of the first phase, a quarter of its SD beyond (Fisher, Kelley & Lomas 2003)', () => {
    // Mean 30, slope 10 a day, SD 15.811: lines at 33.95 and from 63.95 upwards.
    const a = series([10, 20, 30, 40, 50]);
    const found = dualCriterion(a, series([65, 75, 85, 95, 60], 5), 'increase');
    expect(found?.meanLine).toBeCloseTo(30 + 0.25 * Math.sqrt(250), 9);
    expect(found?.lineAt(5)).toBeCloseTo(60 + 0.25 * Math.sqrt(250), 9);
    expect(found).toMatchObject({ pass: false, needed: 5, beyond: 4 });
    expect(dualCriterion(a, series([1, 2, 3, 4], 5), 'increase')).toBeNull();
  });
});

describe('the interval of NAP', () => {
  it('holds NAP, is that of Newcombe’s method 5 where it can be solved by hand, and mirrors', () => {
    const [a, b] = [
      [2, 3, 5],
      [4, 5, 6],
    ];
    const nap = nonoverlapOfAllPairs(a, b, 'increase');
    const { low, high } = napInterval(a, b, 'increase');
    expect(low).toBeLessThan(nap);
    expect(high).toBeGreaterThan(nap);
    // At both bounds (NAP − θ)² (2 − θ)(1 + θ) m n = z² θ (1 − θ) (2 + h + (1 + 2h) θ (1 − θ)), the same equation multiplied out.
    const h = 2;
    for (const bound of [low, high]) {
      const left = 9 * (nap - bound) ** 2 * (2 - bound) * (1 + bound);
      const right = 1.959963984540054 ** 2 * bound * (1 - bound) * (2 + h + (1 + 2 * h) * bound * (1 - bound));
      expect(left).toBeCloseTo(right, 9);
    }
    const turned = napInterval(a, b, 'decrease');
    expect(turned.low).toBeCloseTo(1 - high, 9);
    expect(napInterval([1, 2], [3, 4], 'increase').high).toBe(1);
  });
});

describe('the log response ratio', () => {
  it('is ln of the means’ ratio with its correction, by hand', () => {
    // Means 10 and 20, variances 4 and 16, n 4 each: both corrections 4 / (2 · 4 · 100) and 16 / (2 · 4 · 400) are .005.
    const a = [8, 10, 10, 12].map((value) => 10 + (value - 10) * Math.sqrt(1.5));
    const b = a.map((value) => 2 * value);
    const found = logResponseRatio(a, b);
    expect(found?.value).toBeCloseTo(Math.log(2), 12);
    expect(found?.se).toBeCloseTo(Math.sqrt(4 / (4 * 100) + 16 / (4 * 400)), 12);
    expect(logResponseRatio([0, 0], [1, 2])).toBeNull();
  });
});

describe('baseline-corrected Tau', () => {
  it('is τ_b of phase and value where the first phase has no trend', () => {
    const [a, b] = [series([3, 1, 2]), series([4, 5, 6], 3)];
    const { value, isCorrected } = baselineCorrectedTau(a, b, 'increase');
    expect(isCorrected).toBe(false);
    // 9 of 9 pairs between the phases improve; of all 15 pairs 6 lie within a phase: 9 / √(9 · 15).
    expect(value).toBeCloseTo(9 / Math.sqrt(9 * 15), 12);
    expect(baselineCorrectedTau(a, b, 'decrease').value).toBeCloseTo(-value, 12);
  });

  it('takes the first phase’s own trend off both', () => {
    const a = series([1, 2, 3, 4, 5, 6]);
    const b = series([7, 8, 9, 10], 6);
    expect(baselineCorrectedTau(a, b, 'increase')).toEqual({ value: 0, isCorrected: true });
    expect(tau([1, 2, 3, 4, 5, 6], [7, 8, 9, 10], 'increase')).toBe(1);
  });
});

describe('what changes at a phase line', () => {
  it('is the step on the second phase’s first day and the bend, against the first phase’s line', () => {
    // First 10 + day, then 30 + 3 (day − 5): at day 5 the first line is at 15.
    const a = series([10, 11, 12, 13, 14]);
    const b = series([30, 33, 36, 39, 42], 5);
    const { levelChange, slopeChange } = changeAtLine(a, b, roundingVariance([1]));
    expect(levelChange?.value).toBeCloseTo(15, 9);
    expect(slopeChange?.value).toBeCloseTo(14, 9);
    expect(levelChange?.low).toBeLessThan(15);
    expect(changeAtLine(a.slice(0, 2), b, roundingVariance([1]))).toEqual({ levelChange: null, slopeChange: null });
  });
});
