import fc from 'fast-check';
import { jStat } from 'jstat';
import { describe, expect, it } from 'vitest';
import { schoolDays } from '~/core/calendar/school-days';
import { calendar, goalOf, session } from '~/tests/examples/series';
import { luckDoubt } from './computed';
import { chanceMet, chanceOfDay } from './luck';
import { progressOf } from './progress';

const rule = { k: 3, n: 4, comparison: 'atLeast' as const, value: 80, opportunities: 5 };

describe('how easily luck would meet a criterion', () => {
  it('knows a day as the binomial does (jStat as the reference)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 100 }),
        fc.integer({ min: 1, max: 99 }),
        (m, value, truly) => {
          const least = Math.ceil((value * m) / 100 - 1e-9);
          const expected = 1 - (least === 0 ? 0 : jStat.binomial.cdf(least - 1, m, truly / 100));
          expect(chanceOfDay({ ...rule, value, opportunities: m }, truly)).toBeCloseTo(expected, 9);
        },
      ),
    );
  });

  it('is what counting every way out gives', () => {
    // All 2^days ways that the days can go, for few days.
    const counted = ({ k, n }: { k: number; n: number }, passes: number, days: number) => {
      let sum = 0;
      for (let way = 0; way < 2 ** days; way++) {
        const hits = Array.from({ length: days }, (_, i) => (way >> i) & 1);
        const isMet = hits.some((_, i) => hits.slice(Math.max(0, i + 1 - n), i + 1).reduce((a, b) => a + b, 0) >= k);
        const right = hits.reduce((a, b) => a + b, 0);
        if (isMet) sum += passes ** right * (1 - passes) ** (days - right);
      }
      return sum;
    };
    for (const [k, n] of [
      [3, 4],
      [1, 1],
      [2, 2],
      [3, 3],
      [2, 5],
      [5, 6],
    ] as const) {
      for (const days of [1, 4, 9]) {
        const some = { ...rule, k, n };
        expect(chanceMet(some, 60, days)).toBeCloseTo(counted(some, chanceOfDay(some, 60), days), 12);
      }
    }
  });

  it('doubts five opportunities a day: truly at 60%, 80% on 3 of 4 days is met in 95 of 100 school years', () => {
    expect(chanceMet(rule, 60, 180)).toBeGreaterThan(0.95);
    expect(chanceMet(rule, 80, 20)).toBeGreaterThan(0.95);
    // Twelve edges a day in place of six, over 57 days.
    expect(Math.round(100 * chanceMet({ ...rule, opportunities: 6 }, 60, 57))).toBe(71);
    expect(Math.round(100 * chanceMet({ ...rule, opportunities: 12 }, 60, 57))).toBe(8);
  });

  it('turns round for a goal that goes down, and refuses what cannot be counted out', () => {
    const down = { ...rule, comparison: 'atMost' as const, value: 20 };
    expect(chanceMet(down, 40, 57)).toBeCloseTo(chanceMet(rule, 60, 57), 12);
    expect(() => chanceMet({ ...rule, n: 21 }, 60, 10)).toThrow(RangeError);
  });

  it('is said of a goal that is met, over the days it took, and not where luck is unlikely', () => {
    const day = (i: number) => schoolDays('2026-09-01', '2026-12-01', calendar)[i] as string;
    const metAfter = (days: number, opportunities: number) => {
      const measure = { ...goalOf().measure, planned: opportunities };
      const goal = goalOf({ measure, criterion: { ...goalOf().criterion, minimumOpportunities: opportunities } });
      const sessions = Array.from({ length: days }, (_, i) =>
        session(day(i), i < days - 3 ? Math.round(0.4 * opportunities) : opportunities, opportunities),
      );
      return luckDoubt(goal, progressOf(goal, sessions, { calendar, today: day(days) }));
    };
    const share = Math.round(100 * chanceMet({ ...rule, opportunities: 5 }, 60, 30));
    expect(share).toBeGreaterThan(20);
    expect(metAfter(30, 5)?.text).toContain(
      `truly at 60%, about ${share} would have met it within these 30 observation days`,
    );
    // Twenty opportunities a day, and met at once: hardly luck.
    expect(metAfter(5, 20)).toBeNull();
    // Not met: nothing to doubt.
    const goal = goalOf();
    expect(luckDoubt(goal, progressOf(goal, [session(day(0), 9)], { calendar, today: day(1) }))).toBeNull();
  });
});
