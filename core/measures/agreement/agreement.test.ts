import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  exactCountPerIntervalAgreement,
  intervalByIntervalAgreement,
  meanCountPerIntervalAgreement,
  meanDurationPerOccurrenceAgreement,
  scoredIntervalAgreement,
  totalCountAgreement,
  totalDurationAgreement,
  trialByTrialAgreement,
  unscoredIntervalAgreement,
} from './agreement';
import { cohensKappa } from './kappa';
import { agreementByPhase, phaseAgreementSentence } from './over-sessions';

const times = (n: number, a: string, b: string) => Array.from({ length: n }, () => [a, b] as const);
const kappaOf = (pairs: (readonly [string, string])[]) =>
  cohensKappa(
    pairs.map(([a]) => a),
    pairs.map(([, b]) => b),
  );

describe('agreement of two observers (Cooper, Heron & Heward; figures by hand)', () => {
  it('total count: smaller over larger, whoever has which', () => {
    expect(totalCountAgreement(8, 10)).toBe(0.8);
    expect(totalCountAgreement(10, 8)).toBe(0.8);
    expect(totalCountAgreement(0, 3)).toBe(0);
    expect(totalCountAgreement(0, 0)).toBe(1);
    expect(() => totalCountAgreement(-1, 3)).toThrow(RangeError);
  });

  it('count per interval: equal totals hide what the intervals show', () => {
    // Five intervals, 12 counted by each: 1 + 2/3 + 1/3 + 1 + 3/4, over 5; two are the same.
    const [a, b] = [
      [3, 2, 1, 2, 4],
      [3, 3, 3, 0, 3],
    ];
    expect(totalCountAgreement(12, 12)).toBe(1);
    expect(meanCountPerIntervalAgreement(a, b)).toBeCloseTo((1 + 2 / 3 + 1 / 3 + 0 + 3 / 4) / 5, 12);
    expect(exactCountPerIntervalAgreement(a, b)).toBeCloseTo(1 / 5, 12);
    expect(meanCountPerIntervalAgreement([0, 4], [0, 2])).toBeCloseTo(0.75, 12);
  });

  it('trial by trial and interval by interval: the share on which both say the same', () => {
    expect(trialByTrialAgreement(['right', 'wrong', 'none'], ['right', 'right', 'none'])).toBeCloseTo(2 / 3, 12);
    expect(intervalByIntervalAgreement([true, true, false, false], [true, false, false, false])).toBe(0.75);
  });

  it('scored and unscored intervals leave out what both did not see, or both saw', () => {
    const a = [true, true, false, false, false];
    const b = [true, false, true, false, false];
    expect(scoredIntervalAgreement(a, b)).toBeCloseTo(1 / 3, 12);
    expect(unscoredIntervalAgreement(a, b)).toBeCloseTo(2 / 4, 12);
    expect(scoredIntervalAgreement([false], [false])).toBeNull();
    expect(unscoredIntervalAgreement([true], [true])).toBeNull();
  });

  it('duration: in total, and occurrence by occurrence', () => {
    expect(totalDurationAgreement([30, 60], [30, 70])).toBeCloseTo(0.9, 12);
    expect(meanDurationPerOccurrenceAgreement([30, 60], [30, 80])).toBeCloseTo((1 + 0.75) / 2, 12);
  });

  it('refuses two records of different length, or none', () => {
    expect(() => trialByTrialAgreement([1], [1, 2])).toThrow(RangeError);
    expect(() => meanCountPerIntervalAgreement([], [])).toThrow(RangeError);
    expect(() => cohensKappa([], [])).toThrow(RangeError);
    expect(() => cohensKappa(['a'], [])).toThrow(RangeError);
  });

  it('does not care who is called first, and stays between 0 and 1', () => {
    const counts = fc.array(fc.tuple(fc.nat(9), fc.nat(9)), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(counts, (rows) => {
        const [a, b] = [rows.map(([x]) => x), rows.map(([, y]) => y)];
        for (const of of [meanCountPerIntervalAgreement, exactCountPerIntervalAgreement, totalDurationAgreement]) {
          expect(of(a, b)).toBe(of(b, a));
          expect(of(a, b)).toBeGreaterThanOrEqual(0);
          expect(of(a, b)).toBeLessThanOrEqual(1);
        }
        // What agrees exactly also agrees on average.
        expect(meanCountPerIntervalAgreement(a, b)).toBeGreaterThanOrEqual(exactCountPerIntervalAgreement(a, b));
        const yes = (values: number[]) => values.map((value) => value > 0);
        expect(scoredIntervalAgreement(yes(a), yes(b)) ?? 0).toBeLessThanOrEqual(
          intervalByIntervalAgreement(yes(a), yes(b)),
        );
      }),
    );
  });
});

describe('Cohen’s κ', () => {
  it('is .40 for the table 20, 5, 10, 15 (a common textbook example after Cohen 1960)', () => {
    const result = kappaOf([
      ...times(20, 'yes', 'yes'),
      ...times(5, 'yes', 'no'),
      ...times(10, 'no', 'yes'),
      ...times(15, 'no', 'no'),
    ]);
    expect(result).toEqual({ kappa: 0.4, observed: 0.7, expected: 0.5, n: 50 });
  });

  it('tells two tables of the same agreement apart (the well-known pair 45, 15, 25, 15 and 25, 35, 5, 35)', () => {
    const table = (a: number, b: number, c: number, d: number) =>
      kappaOf([...times(a, 'y', 'y'), ...times(b, 'y', 'n'), ...times(c, 'n', 'y'), ...times(d, 'n', 'n')]);
    expect(table(45, 15, 25, 15).kappa).toBeCloseTo(0.1304, 4);
    expect(table(25, 35, 5, 35).kappa).toBeCloseTo(0.2593, 4);
  });

  it('is 1 for full agreement in several categories, and undefined in a single one', () => {
    expect(kappaOf([...times(2, 'a', 'a'), ...times(3, 'b', 'b'), ...times(1, 'c', 'c')]).kappa).toBe(1);
    expect(kappaOf(times(4, 'a', 'a'))).toMatchObject({ kappa: null, observed: 1, expected: 1 });
  });
});

describe('agreement over the sessions of a phase', () => {
  const phases = [
    { phase: 'Baseline', n: 5 },
    { phase: 'New support', n: 12 },
  ];

  it('asks for a fifth of the sessions and a mean of 80% (common practice)', () => {
    const checked = [
      { phase: 'Baseline', agreement: 0.7 },
      { phase: 'New support', agreement: 0.9 },
      { phase: 'New support', agreement: 0.7 },
    ];
    const [baseline, support] = agreementByPhase(checked, phases);
    expect(baseline).toMatchObject({ checked: 1, sessions: 5, share: 0.2, enoughChecked: true, agrees: false });
    expect(support).toMatchObject({ checked: 2, enoughChecked: false, low: 0.7, high: 0.9, agrees: true });
    expect(support?.mean).toBeCloseTo(0.8, 12);
    expect(agreementByPhase(checked, phases, 0.6)[0]?.agrees).toBe(true);
    expect(support && phaseAgreementSentence(support)).toMatch(
      /^New support: 2 of \d+ sessions were seen by two \(\d+%\); they agree to 80% in the mean, from 70% to 90%\.$/,
    );
  });

  it('says nothing of a phase that nobody checked, and leaves out what is not defined', () => {
    const [none, undefined_] = agreementByPhase([{ phase: 'New support', agreement: null }], phases);
    expect(none).toMatchObject({ checked: 0, mean: null, low: null, agrees: null, enoughChecked: false });
    expect(undefined_).toMatchObject({ checked: 1, mean: null });
  });
});
