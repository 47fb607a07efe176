import { describe, expect, it } from 'vitest';
import { calendar, goalOf, session } from '~/tests/examples/series';
import { addDays } from '../calendar/iso-date';
import { signed } from '../words/counting';
import { aimLineOf } from './aim-line';
import { progressOf } from './progress';
import { progressSentences, trendOf } from './sentences';
import { theilSen } from './trend/theil-sen';
import { trendRule } from './trend-rule';

// The aim line climbs 7 a week.
const course = aimLineOf({ on: '2026-09-01', value: 10 }, { on: '2026-11-10', value: 80 });
const points = (perPoint: number, n: number, every = 3) =>
  Array.from({ length: n }, (_, i) => ({ day: every * i, value: 10 + perPoint * i }));
const rule = (some: { day: number; value: number }[], direction: 'increase' | 'decrease' = 'increase') =>
  trendRule(some, theilSen(some), course, { direction, change: 'points' });

describe('the trend rule (Deno & Mirkin 1977)', () => {
  it('holds the slope of the trend against that of the aim line', () => {
    expect(rule(points(1, 8))?.is).toBe('slower');
    expect(rule(points(3, 8))?.is).toBe('asFast');
    expect(rule(points(4, 8))?.is).toBe('faster');
    expect(rule(points(1, 8))?.reason).toBe('The trend goes +2.3 points a week, the aim line +7.');
  });

  it('respects the direction: a steeper fall is slower for a goal that goes up, faster for one that goes down', () => {
    expect(rule(points(-1, 8))?.is).toBe('slower');
    expect(rule(points(-1, 8), 'decrease')?.is).toBe('faster');
  });

  it('asks for 8 points and for 3 weeks', () => {
    expect(rule(points(1, 7, 4))?.reason).toBe('7 points over 3 weeks since the aim line began; 8 over 3 are needed.');
    expect(rule(points(1, 8, 2))?.is).toBe('tooEarly'); // eight points in 14 days
    expect(rule(points(1, 8, 3))?.is).toBe('slower'); // … in 21
    expect(
      trendRule(points(1, 8), theilSen(points(1, 8)), null, { direction: 'increase', change: 'points' }),
    ).toBeNull();
  });

  it('says when the aim line lies within the trend’s interval', () => {
    const scattered = [10, 30, 5, 40, 12, 50, 20, 44].map((value, i) => ({ day: 3 * i, value }));
    expect(rule(scattered)?.reason).toMatch(
      /^The trend goes \+\S+ points a week, the aim line \+7\. Its interval, .* includes the aim line too\.$/,
    );
  });

  it('writes changes with their sign', () => {
    expect([1.24, -0.4, 0.04, -0.04, 0].map(signed)).toEqual(['+1.2', '−0.4', '+0.04', '−0.04', '0']);
  });
});

describe('what the margin says beside the decision', () => {
  const goal = goalOf({
    baseline: { value: 20, on: '2026-09-01' },
    targetOn: '2026-12-10',
    phases: [
      { label: 'Baseline', startsOn: '2026-09-01', isBaseline: true },
      { label: 'New support', startsOn: '2026-09-10', isBaseline: false },
    ],
  });
  const say = (rights: number[], { every = 3, today = '2026-10-20' } = {}) => {
    const progress = progressOf(
      goal,
      rights.map((right, i) => session(addDays('2026-09-01', every * i), right)),
      { calendar, today },
    );
    return progressSentences(goal, progress, trendOf(progress), { today, calendar });
  };
  const titled = (said: { title: string; text: string }[], title: RegExp) => said.find((one) => title.test(one.title));

  it('compares the phases, with how far that can be relied on', () => {
    const said = titled(say([2, 1, 2, 4, 5, 4, 6]), /New support after Baseline/);
    expect(said?.text).toBe(
      '100% of all pairs of points improve (NAP 1.00), 100% of the points lie beyond the best before (PND); 20 points better at the line; Tau-U 1.00. Fewer than 5 points in one of them: with reservations.',
    );
  });

  it('says when the target is reached on this trend, or that it is not', () => {
    expect(titled(say([2, 2, 2, 3, 4, 5, 6], { today: '2026-09-20' }), /^80% about/)?.title).toBe('80% about Sep 25');
    expect(titled(say([2, 2, 2, 6, 5, 4, 3]), /not on this trend/)?.text).toContain('Not within two years');
    // Never both a date and that it will not be.
    for (const values of [
      [2, 2, 2, 6, 5, 4, 3],
      [1, 2, 1, 3, 2, 3, 2, 4],
      [4, 1, 5, 2, 6, 3, 7],
      [3, 2, 4, 2, 5, 1, 6],
    ]) {
      for (const { title, text } of say(values)) {
        const said = `${title} ${text}`;
        expect(/two years/.test(said) && /about|earliest|between [A-Z]/.test(said), said).toBe(false);
      }
    }
  });

  it('gives the trend with its interval and its test', () => {
    expect(titled(say([2, 2, 2, 3, 4, 5, 6, 6, 7]), /^Up/)?.text).toMatch(
      /likely between \+\d\S* and \+\S+ with 95% confidence \(Sen; Mann–Kendall p = \.\d+\)\. The aim line asks for/,
    );
  });

  it('points out stretches without a point, in school days and calendar days', () => {
    const gap = titled(say([2, 2, 3], { every: 17 }), /without a point/);
    expect(gap).toEqual({
      title: '2 stretches without a point',
      text: 'The longest lies between Sep 1 and Sep 18: 12 school days (16 calendar days).',
    });
    expect(titled(say([2, 2, 3]), /without a point/)).toBeUndefined();
  });
});
