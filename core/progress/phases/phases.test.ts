import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { roundingVariance } from '../trend/weighted';
import { nonoverlapOfAllPairs, percentageOfNonoverlappingData, tau, tauU } from './nonoverlap';
import { comparePhases, enoughPoints, phaseAnalysis, phaseFigures } from './phases';

const phase = (name: string, values: number[]) => ({ name, points: values.map((value, day) => ({ day, value })) });
const values = fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 1, maxLength: 15 });

describe('nonoverlap of two phases, re-derived by hand', () => {
  // A 2, 3, 5 against B 4, 5, 6: the nine pairs are 2<4, 2<5, 2<6, 3<4, 3<5, 3<6, 5>4, 5=5, 5<6.
  const [a, b] = [
    [2, 3, 5],
    [4, 5, 6],
  ];

  it('NAP: seven improve, one ties, one worsens (Parker & Vannest 2009)', () => {
    expect(nonoverlapOfAllPairs(a, b, 'increase')).toBeCloseTo(7.5 / 9, 12);
    expect(nonoverlapOfAllPairs(a, b, 'decrease')).toBeCloseTo(1.5 / 9, 12);
  });

  it('PND: only 6 lies beyond the best of A; downwards none lies below 2 (Scruggs, Mastropieri & Casto 1987)', () => {
    expect(percentageOfNonoverlappingData(a, b, 'increase')).toBeCloseTo(1 / 3, 12);
    expect(percentageOfNonoverlappingData(a, b, 'decrease')).toBe(0);
    expect(percentageOfNonoverlappingData([8, 9], [7, 8, 3], 'decrease')).toBeCloseTo(2 / 3, 12);
  });

  it('Tau and Tau-U: 6 of 9 pairs, and the 3 by which A rises taken off (Parker, Vannest, Davis & Sauber 2011)', () => {
    expect(tau(a, b, 'increase')).toBeCloseTo(6 / 9, 12);
    expect(tauU(a, b, 'increase')).toBeCloseTo(3 / 9, 12);
    // Downwards A goes 3 the wrong way, which is to B's credit: (−6 + 3) / 9.
    expect(tauU(a, b, 'decrease')).toBeCloseTo(-3 / 9, 12);
  });

  it('has no bound of its own where A rises long before B: the formula as it stands', () => {
    expect(tauU([1, 2, 3, 4, 5, 6], [7], 'increase')).toBeCloseTo((6 - 15) / 6, 12);
  });

  it('refuses an empty phase', () => {
    for (const of of [nonoverlapOfAllPairs, percentageOfNonoverlappingData, tau, tauU]) {
      expect(() => of([], [1], 'increase')).toThrow(RangeError);
      expect(() => of([1], [], 'increase')).toThrow(RangeError);
    }
  });

  it('keeps its symmetries: NAP(a, b) + NAP(b, a) = 1, the directions mirror, Tau = 2 · NAP − 1', () => {
    fc.assert(
      fc.property(values, values, (x, y) => {
        const nap = nonoverlapOfAllPairs(x, y, 'increase');
        expect(nap + nonoverlapOfAllPairs(y, x, 'increase')).toBeCloseTo(1, 12);
        expect(tau(x, y, 'increase')).toBeCloseTo(2 * nap - 1, 12);
        const mirrored = (of: typeof tau) =>
          of(
            x.map((v) => -v),
            y.map((v) => -v),
            'decrease',
          );
        for (const of of [nonoverlapOfAllPairs, percentageOfNonoverlappingData, tau, tauU]) {
          expect(mirrored(of)).toBeCloseTo(of(x, y, 'increase'), 12);
          const scaled = of(
            x.map((v) => 3 * v + 2),
            y.map((v) => 3 * v + 2),
            'increase',
          );
          expect(scaled).toBeCloseTo(of(x, y, 'increase'), 12);
        }
      }),
    );
  });
});

describe('one phase', () => {
  it('is stable when four in five lie within a quarter of the median (common practice)', () => {
    // The median is 10: 7.5 to 12.5, both ends with it.
    expect(phaseFigures(phase('A', [7.5, 10, 10, 12.5, 20]))).toMatchObject({
      n: 5,
      mean: 12,
      median: 10,
      min: 7.5,
      max: 20,
      withinQuarter: 0.8,
      stable: true,
    });
    expect(phaseFigures(phase('A', [7.4, 10, 10, 12.5, 20]))?.stable).toBe(false);
    expect(phaseFigures(phase('A', [0, 0, 0, 0, 1]))?.stable).toBe(true);
    expect(phaseFigures(phase('A', [-7.5, -10, -10, -12.5]))?.stable).toBe(true);
    // Near zero a quarter of the median leaves no room: of percentages one below 10 is taken for 10 (our own rule).
    expect(phaseFigures(phase('A', [0, 0, 2, 2, 2.5]), true)).toMatchObject({ withinQuarter: 1, stable: true });
    expect(phaseFigures(phase('A', [0, 0, 2, 2, 2.5]))).toMatchObject({ withinQuarter: 0.6, stable: false });
  });

  it('says nothing of the stability of two points, and is nothing without points', () => {
    expect(phaseFigures(phase('A', [5, 5]))).toMatchObject({ stable: null, enough: 'tooFew', trend: null });
    expect(phaseFigures(phase('A', [5]))?.sd).toBeNull();
    expect(phaseFigures(phase('A', []))).toBeNull();
  });

  it('is marked by its points: 5, 3 with reservations (What Works Clearinghouse)', () => {
    expect([2, 3, 4, 5].map(enoughPoints)).toEqual(['tooFew', 'withReservations', 'withReservations', 'enough']);
  });
});

const rounding = roundingVariance([1]);

describe('one phase after another', () => {
  it('shows the change at the line: the first three against the last three, above 0 for the better', () => {
    const a = phase('A', [90, 8, 9, 7]);
    const b = phase('B', [3, 4, 2, 50]);
    expect(comparePhases(a, b, 'decrease', rounding).immediate).toBe(5);
    expect(comparePhases(a, b, 'increase', rounding).immediate).toBe(-5);
    expect(comparePhases(phase('A', [4]), phase('B', [4]), 'decrease', rounding).immediate).toBe(0);
  });

  it('compares neighbours that have points, with the poorer mark of both', () => {
    const { phases, comparisons } = phaseAnalysis(
      [phase('A', [1, 2, 1, 2, 1]), phase('Empty', []), phase('B', [3, 4, 5]), phase('C', [9, 9])],
      'increase',
      rounding,
    );
    expect(phases.map(({ name }) => name)).toEqual(['A', 'B', 'C']);
    expect(comparisons.map(({ from, to, enough }) => [from, to, enough])).toEqual([
      ['A', 'B', 'withReservations'],
      ['B', 'C', 'tooFew'],
    ]);
    expect(comparisons[0]).toMatchObject({ nap: 1, pnd: 1, tau: 1, immediate: 3 });
  });
});
