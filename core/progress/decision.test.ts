import { describe, expect, it } from 'vitest';
import { calendar, goalOf, session } from '~/tests/examples/series';
import { addDays } from '../calendar/iso-date';
import { isDue } from './due';
import { type Progress, progressOf } from './progress';
import { progressSentences } from './sentences';

// Baseline 20 on Tuesday 1 September, target 80 on 31 October: the aim line climbs one point a day.
const goal = (changes: object = {}) =>
  goalOf({ baseline: { value: 20, on: '2026-09-01' }, targetOn: '2026-10-31', ...changes });
const from = (first: string, rights: number[]) => rights.map((right, i) => session(addDays(first, i), right));
const judge = (sessions: ReturnType<typeof from>, today: string, changes: object = {}) =>
  progressOf(goal(changes), sessions, { calendar, today });
const isOf = (...args: Parameters<typeof judge>) => judge(...args).decision.is;

describe('decision, with fewer than eight scores', () => {
  it('is behind when the last four all lie under the aim line (four-point rule, Deno & Mirkin 1977, from memory)', () => {
    // The aim line runs from 21 to 24 on these days; each score is 20.
    const { decision } = judge(from('2026-09-02', [2, 2, 2, 2]), '2026-09-07');
    expect(decision).toEqual({
      is: 'below',
      label: 'Behind the aim line',
      reason:
        'The last four scores (20, 20, 20, 20%) are all below the aim line (21 to 24%). Provisional: from 8 scores on, their average decides.',
      trend: '4 scores over 0 weeks so far; a trend needs 8 over 3 weeks.',
    });
  });

  it('is ahead when they all lie over it; where they lie on both sides no change is called for', () => {
    expect(isOf(from('2026-09-02', [3, 3, 4, 3]), '2026-09-07')).toBe('above');
    expect(isOf(from('2026-09-02', [3, 2, 4, 3]), '2026-09-07')).toBe('noChange');
    // A score on the line lies on neither side.
    expect(isOf(from('2026-09-11', [3, 4, 4, 4]), '2026-09-16')).toBe('noChange');
  });

  it('looks at the last four only', () => {
    expect(isOf(from('2026-09-02', [2, 2, 2, 4, 4, 4, 4]), '2026-09-09')).toBe('above');
  });

  it('turns round for a goal that goes down', () => {
    const down = {
      baseline: { value: 80, on: '2026-09-01' },
      target: 20,
      criterion: { comparison: 'atMost', value: 20, rule: { kind: 'inARow', n: 3 } },
    };
    const behind = judge(from('2026-09-02', [9, 9, 9, 9]), '2026-09-07', down).decision;
    expect(behind).toMatchObject({ is: 'below', reason: expect.stringContaining('all above the aim line') });
    expect(isOf(from('2026-09-02', [5, 5, 5, 5]), '2026-09-07', down)).toBe('above');
  });

  it('is too early with fewer than four scores since the aim line began, or without one', () => {
    const early = judge(from('2026-09-02', [9, 2, 2]), '2026-09-07').decision;
    expect(early).toMatchObject({ is: 'tooEarly', reason: '3 scores since the aim line began; 4 are needed.' });
    expect(judge(from('2026-09-02', [2, 2, 2, 2, 2]), '2026-09-08', { baseline: null }).decision.reason).toContain(
      'no baseline',
    );
  });

  it('has no recent data after ten school days, or after twice the planned gap', () => {
    const sessions = from('2026-09-01', [2, 2, 2, 2]); // the last on Friday 4 September
    expect(isOf(sessions, '2026-09-18')).toBe('noChange'); // nine school days lie between
    expect(isOf(sessions, '2026-09-21')).toBe('noRecentData');
    expect(isOf(sessions, '2026-09-15', { plannedGap: 3 })).toBe('noRecentData');
    expect(judge([], '2026-09-16').decision.reason).toBe('Not observed yet (10 school days).');
  });
});

describe('decision, from eight scores on', () => {
  // Twenty school days from 2 September: the aim line runs from 21 to 48.
  const days = Array.from({ length: 28 }, (_, i) => addDays('2026-09-02', i)).filter((_, i) => i % 7 < 3 || i % 7 > 4);
  const beside = (points: number, wobble = 0) =>
    days.map((on, i) => {
      const aim = 21 + (new Date(on).getTime() - new Date('2026-09-02').getTime()) / 86_400_000;
      const right = Math.round((aim + points) / 10) + (i % 2 ? wobble : 0 - wobble);
      return session(on, Math.max(0, right));
    });

  it('is behind where the mean distance lies wholly under the aim line, with its give or take', () => {
    const { decision } = judge(beside(-15), '2026-09-30');
    expect(decision.is).toBe('below');
    expect(decision.reason).toMatch(
      /^Over the last 20 days 1\d(\.\d)? points below the aim line, give or take \d+(\.\d)?\.$/,
    );
    expect(decision.trend).toMatch(
      /^Up .* points a week, give or take .*: not to be told from the aim line \(\+7 a week\)\.$/,
    );
    expect(isOf(beside(20), '2026-09-30')).toBe('above');
    expect(isOf(beside(0, 1), '2026-09-30')).toBe('noChange');
  });

  it('calls for no change where the last four all lie on the other side, and says both', () => {
    const sessions = beside(-25);
    const turned = [...sessions.slice(0, -4), ...sessions.slice(-4).map(({ on }) => session(on, 5))];
    const { decision } = judge(turned, '2026-09-30');
    expect(decision).toMatchObject({
      is: 'noChange',
      reason: expect.stringContaining('but the last four scores are all above it.'),
    });
  });

  it('is of the present phase only: a new support begins anew, under the same aim line', () => {
    const phases = [
      { label: 'Word cards', startsOn: '2026-09-01', isBaseline: false },
      { label: 'Peer model', startsOn: '2026-09-24', isBaseline: false },
    ];
    const { decision, trend, now, aimLine } = judge(beside(-15), '2026-09-30', { phases });
    expect(decision).toMatchObject({ is: 'below', reason: expect.stringContaining('The last four scores') });
    expect(trend).toBeNull();
    expect(aimLine?.from).toEqual({ on: '2026-09-01', value: 20 });
    const others = beside(-15).map((one) => (one.on < '2026-09-24' ? session(one.on, 5) : one));
    expect(judge(others, '2026-09-30', { phases })).toMatchObject({ now, decision: { is: decision.is } });
  });

  it('decides nothing in a baseline phase, nor where a support was withdrawn', () => {
    const phases = [
      { label: 'Baseline', startsOn: '2026-09-01', isBaseline: true },
      { label: 'Word cards', startsOn: '2026-09-10', isBaseline: false },
      { label: 'Without cards', startsOn: '2026-09-25', isBaseline: true },
    ];
    const progress = judge(beside(-15), '2026-09-30', { baseline: null, phases });
    expect(progress.decision).toMatchObject({
      is: 'tooEarly',
      reason: '“Without cards” is a baseline phase: nothing is decided in it.',
    });
    // Both baselines stay what they are: the line begins with the first.
    expect(progress.baseline).toMatchObject({ on: '2026-09-09', from: 'phase' });
  });

  it('begins a line of its own with a new target, at the median of the last three scores', () => {
    const { aimLine } = judge(beside(0), '2026-09-30', { targetSince: '2026-09-15', target: 90 });
    expect(aimLine).toMatchObject({ from: { on: '2026-09-15', value: 30 }, to: { value: 90 } });
  });
});

describe('met', () => {
  it('holds until the record says otherwise, with how many of the last', () => {
    const { decision } = judge(from('2026-09-02', [9, 8, 8, 5]), '2026-09-07');
    expect(decision).toMatchObject({
      is: 'metHolding',
      label: 'Met, holding',
      reason: 'First met on Sep 4, and met now: 3 of the last 4 days.',
    });
  });

  it('is said to be met now only where it is: what has not lapsed may have been met last long ago', () => {
    const { decision } = judge(from('2026-09-02', [9, 8, 8, 6, 7, 9, 7]), '2026-09-09');
    expect(decision).toMatchObject({
      is: 'metHolding',
      reason: 'First met on Sep 4, last met on Sep 5: 1 of the last 4 days.',
    });
    const once = judge(from('2026-09-02', [9, 8, 8, 6, 6]), '2026-09-07');
    expect(once.decision.reason).toBe('First met on Sep 4, last met on Sep 5: 2 of the last 4 days.');
  });

  it('is not holding when the last days, pooled, lie short of the target beyond chance', () => {
    // 12 of 40: the Wilson interval ends at .454.
    const { decision, mastery } = judge(from('2026-09-02', [9, 8, 8, 3, 3, 3, 3]), '2026-09-09');
    expect(mastery).toMatchObject({ metOn: '2026-09-04', holding: false, lastMetOn: '2026-09-05' });
    expect(decision).toMatchObject({
      is: 'metNotHolding',
      reason: 'First met on Sep 4, last met on Sep 5: 0 of the last 4 days.',
    });
  });

  it('says since when it was not checked', () => {
    const { decision } = judge(from('2026-09-02', [9, 8, 8, 2]), '2026-12-01');
    expect(decision).toMatchObject({ is: 'metNotChecked', label: 'Met, not checked since Sep 5' });
  });

  it('is never met by a baseline', () => {
    const phases = [
      { label: 'Baseline', startsOn: '2026-09-01', isBaseline: true },
      { label: 'New support', startsOn: '2026-09-08', isBaseline: false },
    ];
    const progress = judge(from('2026-09-01', [9, 9, 9]), '2026-09-08', { baseline: null, phases });
    expect(progress.mastery.metOn).toBeNull();
    expect(progress.baseline).toMatchObject({ value: 90, from: 'phase' });
  });

  it('asks each place to pass on its own scores', () => {
    const criterion = { ...goalOf().criterion, distinctLocations: 2 };
    const at = (location: string, rights: number[]) =>
      rights.map((right, i) => session(addDays('2026-09-02', i), right, 10, { location, id: `${location} ${i}` }));
    const both = (garden: number[]) =>
      [...at('kitchen', [10, 10, 10, 10]), ...at('garden', garden)].sort((a, b) => (a.on < b.on ? -1 : 1));
    // 10 of 10 in the kitchen and 6 of 10 in the garden make 80% together, and not in the garden.
    expect(judge(both([6, 6, 6, 6]), '2026-09-07', { criterion }).mastery.metOn).toBeNull();
    expect(judge(both([8, 9, 8, 6]), '2026-09-07', { criterion }).mastery.metOn).toBe('2026-09-04');
    expect(judge(at('kitchen', [10, 10, 10]), '2026-09-07', { criterion }).mastery.metOn).toBeNull();
  });
});

const say = (progress: Progress, today = '2026-09-07') => progressSentences(goal(), progress, { today, calendar });

describe('what the numbers say', () => {
  it('names its counts and how sure they are', () => {
    const progress = judge(from('2026-09-02', [3, 4, 5, 6, 6]), '2026-09-07');
    const said = say(progress);
    const text = said.map(({ title, text: words }) => `${title}: ${words}`).join('\n');
    expect(text).toContain(
      'Now 60%: That is the median of the last three scores. It began at 20% on Sep 1, as the plan states. 67% of the way from baseline to target.',
    );
    // Wilson interval of 6 in 10, computed with the formula in Newcombe (1998): .3127 to .8318.
    expect(text).toContain('6 of 10 on Sep 6: 60%; with 10 tries the true share is likely between 31% and 83%');
    expect(text).toContain('Of the last 4 days, 0 came at or above 80%; 3 are needed.');
    expect(said[0]?.title).toBe('Ahead of the aim line');
  });

  it('says of how many scores of the present phase “now” is, and nothing where it has none', () => {
    const phases = [
      { label: 'Word cards', startsOn: '2026-09-01', isBaseline: false },
      { label: 'Peer model', startsOn: '2026-09-05', isBaseline: false },
    ];
    const in_ = (rights: number[]) => say(judge(from('2026-09-02', rights), '2026-09-07', { phases }));
    const titles = in_([3, 4, 5, 6]);
    expect(titles.find(({ title }) => title === 'Now 60%')?.text).toContain('That is the median of 1 score.');
    expect(in_([3, 4, 5]).map(({ title }) => title)).toContain('No score yet in this phase');
  });

  it('says what lies beyond either end of the way', () => {
    const text = (rights: number[]) =>
      say(judge(from('2026-09-02', rights), '2026-09-07'))
        .map(({ text: words }) => words)
        .join(' ');
    expect(text([10, 10, 10])).toContain('Past the target.');
    expect(text([1, 1, 1])).toContain('None yet: now 10%, below the start of 20%.');
  });

  it('never rounds a figure up to the target', () => {
    // 39 of 49 is 79.6%: short of 80.
    const progress = progressOf(goal(), [session('2026-09-02', 39, 49)], { calendar, today: '2026-09-07' });
    expect(say(progress).map(({ title }) => title)).toContain('Now 79%');
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

  it('is, for a goal never observed, when its gap with its first day has passed, and never before it begins', () => {
    // September 7 is Labor Day only where the calendar says so.
    expect([due(null, 1, '2026-09-01'), due(null, 1, '2026-08-31')]).toEqual([true, false]);
    expect([due(null, null, '2026-09-03'), due(null, null, '2026-09-07')]).toEqual([false, true]);
  });
});
