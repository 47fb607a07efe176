import { describe, expect, it } from 'vitest';
import { calendar, goalOf, session } from '~/tests/examples/series';
import { addDays } from '../calendar/iso-date';
import { isDue } from './due';
import { type Progress, progressOf } from './progress';
import { progressSentences, trendOf } from './sentences';

// Baseline 20 on Tuesday 1 September, target 80 on 31 October: the aim line climbs one point a day.
const goal = (changes: object = {}) =>
  goalOf({ baseline: { value: 20, on: '2026-09-01' }, targetOn: '2026-10-31', ...changes });
const from = (first: string, rights: number[]) => rights.map((right, i) => session(addDays(first, i), right));
const judge = (sessions: ReturnType<typeof from>, today: string, changes: object = {}) =>
  progressOf(goal(changes), sessions, { calendar, today });

describe('decision', () => {
  it('is below course when the last four all lie under it (four-point rule, Deno & Mirkin 1977, from memory)', () => {
    // The aim line runs from 21 to 24 on these days; each point is 20.
    const { decision } = judge(from('2026-09-02', [2, 2, 2, 2]), '2026-09-07');
    expect(decision.is).toBe('belowCourse');
    expect(decision.reason).toBe(
      'The last four points (20, 20, 20, 20%) all lie below the aim line, which ran from 21 to 24%.',
    );
  });

  it('is above course when the last four all lie over it, on course when they lie on both sides', () => {
    expect(judge(from('2026-09-02', [3, 3, 4, 3]), '2026-09-07').decision.is).toBe('aboveCourse');
    expect(judge(from('2026-09-02', [3, 2, 4, 3]), '2026-09-07').decision.is).toBe('onCourse');
    // A point on the line lies on neither side.
    expect(judge(from('2026-09-11', [3, 4, 4, 4]), '2026-09-16').decision.is).toBe('onCourse');
  });

  it('looks at the last four only', () => {
    expect(judge(from('2026-09-02', [2, 2, 2, 4, 4, 4, 4]), '2026-09-09').decision.is).toBe('aboveCourse');
  });

  it('turns round for a goal that goes down', () => {
    const down = {
      baseline: { value: 80, on: '2026-09-01' },
      target: 20,
      criterion: { comparison: 'atMost', value: 20, rule: { kind: 'inARow', n: 3 } },
    };
    expect(judge(from('2026-09-02', [9, 9, 9, 9]), '2026-09-07', down).decision.is).toBe('belowCourse');
    expect(judge(from('2026-09-02', [5, 5, 5, 5]), '2026-09-07', down).decision.is).toBe('aboveCourse');
  });

  it('is too early with fewer than four points since the aim line began, or without a course', () => {
    const early = judge(from('2026-09-02', [9, 2, 2]), '2026-09-07').decision;
    expect(early).toEqual({ is: 'tooEarly', reason: '3 points since the aim line began; 4 are needed.' });
    expect(judge(from('2026-09-02', [2, 2, 2, 2, 2]), '2026-09-08', { baseline: null }).decision.reason).toContain(
      'no baseline',
    );
  });

  it('has no recent data after ten school days, or after twice the planned gap', () => {
    const sessions = from('2026-09-01', [2, 2, 2, 2]); // the last on Friday 4 September
    expect(judge(sessions, '2026-09-18').decision.is).toBe('onCourse'); // nine school days lie between
    expect(judge(sessions, '2026-09-21').decision.is).toBe('noRecentData');
    expect(judge(sessions, '2026-09-15', { plannedGap: 3 }).decision.is).toBe('noRecentData');
    expect(judge([], '2026-09-16').decision.reason).toBe('Not observed yet (10 school days).');
  });

  it('stays met whatever comes later, silence too, and says what fell short', () => {
    const { decision } = judge(from('2026-09-02', [9, 8, 8, 2]), '2026-12-01');
    expect(decision.is).toBe('met');
    expect(decision.reason).toBe('First met on Sep 4. Since then 1 point fell short.');
  });

  it('lets no baseline point meet the criterion', () => {
    const phases = [
      { label: 'Baseline', startsOn: '2026-09-01', isBaseline: true },
      { label: 'New support', startsOn: '2026-09-08', isBaseline: false },
    ];
    const progress = judge(from('2026-09-01', [9, 9, 9]), '2026-09-08', { baseline: null, phases });
    expect(progress.criterion.metOn).toBeNull();
    expect(progress.baseline).toMatchObject({ value: 90, from: 'phase' });
  });
});

const say = (progress: Progress, today = '2026-09-07') =>
  progressSentences(goal(), progress, trendOf(progress), { today, calendar });

describe('what the numbers say', () => {
  it('names its counts and how sure they are', () => {
    const progress = judge(from('2026-09-02', [3, 4, 5, 6, 6]), '2026-09-07');
    const said = say(progress);
    const text = said.map(({ title, text: words }) => `${title}: ${words}`).join('\n');
    expect(text).toContain(
      'Now 60%: That is the median of the last three points. It began at 20% on Sep 1, as the plan states. 67% of the way from baseline to 80%.',
    );
    // Wilson interval of 6 in 10, computed with the formula in Newcombe (1998): .3127 to .8318.
    expect(text).toContain('6 of 10 on Sep 6: 60%; with so few chances the true share is likely between 31% and 83%');
    expect(text).toContain('Of the last 4 days, 0 came at or above 80%; 3 are needed.');
    expect(said[0]?.title).toBe('Ahead of the aim line');
  });

  it('keeps the true figure of a way that is longer than the whole', () => {
    const far = say(judge(from('2026-09-02', [10, 10, 10]), '2026-09-07'));
    expect(far.map(({ text }) => text).join(' ')).toContain(
      'First met on Sep 4. Still met since. That is the median of the last three points. It began at 20% on Sep 1, as the plan states. It is past the target of 80% (133% of the way). The median of the slopes between all points since the aim line began (Theil–Sen), likely between 0 and 0 with 67% confidence (Sen; Mann–Kendall p = 1.00). The aim line asks for 7 a week. 100%; with so few chances the true share is likely between 72% and 100% (Wilson, 95%).',
    );
  });

  it('says that there is no trend yet', () => {
    const said = say(judge(from('2026-09-02', [3, 4]), '2026-09-07'));
    expect(said.map(({ title }) => title)).toContain('No trend yet');
  });
});

describe('due', () => {
  const on = (today: string) => ({ calendar, today });
  const due = (lastOn: string | null, plannedGap: number | null, today: string) =>
    isDue({ lastOn, startsOn: '2026-09-01', plannedGap }, on(today));

  it('comes with the planned gap, in school days; without one, after a school week', () => {
    expect(due('2026-09-03', 2, '2026-09-04')).toBe(false);
    expect(due('2026-09-03', 2, '2026-09-07')).toBe(true); // the weekend does not count
    expect(due('2026-09-01', null, '2026-09-07')).toBe(false);
    expect(due('2026-09-01', null, '2026-09-08')).toBe(true);
  });

  it('is at once for a goal never observed, and never before it begins', () => {
    expect(due(null, null, '2026-09-01')).toBe(true);
    expect(due(null, null, '2026-08-31')).toBe(false);
  });
});
