import { describe, expect, it } from 'vitest';
import { goalOf } from '~/tests/examples/series';
import { type Outcome, sessionInput } from '../entries/observation';
import { discreetEntry, discreetGoal, discreetStudent } from '../goals/discreet';
import type { TrialsDefinition } from '../measures/trials/trials';
import { everything, shownFields } from '../sharing/visibility-rule';
import { capitalised, counted, figure, numberWord, percent } from '../words/counting';
import { groupEntries } from './groups';
import { asSeenBy, outcomeSaid, outcomeSentence } from './report';

describe('report', () => {
  const at = (on: string, goalId: string | null = null, kind = 'observation') => ({ on, goalId, kind, title: '' });

  it('groups by week, from Monday to Sunday', () => {
    const entries = [at('2026-11-24'), at('2026-11-23'), at('2026-11-22'), at('2025-12-30')];
    const weeks = groupEntries(entries, 'week', [], '2026-11-24');
    expect(weeks.map(({ title, entries: own }) => [title, own.length])).toEqual([
      ['Week of Nov 23', 2],
      ['Week of Nov 16', 1],
      ['Week of Dec 29, 2025', 1],
    ]);
  });

  it('groups by goal in the order of the plan, then behavior, then reflections; or not at all', () => {
    const goals = [
      { id: 'b', number: '1', shortName: 'Sands' },
      { id: 'a', number: '2', shortName: 'Asks' },
    ];
    const entries = [at('2026-11-24', null, 'reflection'), at('2026-11-23', 'a'), at('2026-11-22', null, 'count')];
    const titles = groupEntries(entries, 'goal', goals, '2026-11-24').map(({ title }) => title);
    expect(titles).toEqual(['2 · Asks', 'Behavior', 'Reflections']);
    expect(groupEntries(entries, 'none', goals, '2026-11-24')).toMatchObject([{ title: null, entries }]);
  });

  it('takes out what a reader may not see, rather than hiding it', () => {
    const entry = { note: 'A word', observer: 'H. Bruun', location: 'Garden', outcome: null, sentence: '3 of 4' };
    expect(asSeenBy(entry, shownFields(['observer']))).toEqual({ ...entry, note: null, location: null });
    expect(asSeenBy(entry, everything)).toEqual(entry);
  });

  it('says all, the figure alone, or only that it was observed', () => {
    const { measure } = goalOf();
    const outcome = { data: { trials: ['independent', 'incorrect'] }, reason: null } as Outcome;
    expect(outcomeSaid(measure, outcome, shownFields(['numbers', 'breakdown']))).toBe(
      outcomeSentence(measure, outcome),
    );
    expect(outcomeSaid(measure, outcome, shownFields(['numbers']))).toBe('1 of 2 (50%).');
    expect(outcomeSaid(measure, outcome, shownFields(['breakdown', 'note']))).toBe('Observed.');
  });

  it('says why there is no score, and not zero', () => {
    expect(outcomeSentence(goalOf().measure, { data: null, reason: 'absent' })).toBe('Absent. No score for this day.');
  });
});

describe('the discreet view', () => {
  it('leaves initials, numbers and chances, and nothing else', () => {
    const student = discreetStudent({ firstName: 'Ada', lastName: 'Example', shortName: 'Ada E.', initials: 'AE' });
    const goal = discreetGoal({
      number: '2a',
      shortName: 'Asks',
      wording: 'Ada will ask',
      area: 'Social',
      measure: { ...goalOf().measure, opportunity: { one: 'Ada', many: 'Adas' } } as TrialsDefinition,
    });
    const entry = discreetEntry({ note: 'Ada laughed', sentence: '3 of 4' });
    const all = JSON.stringify([student, goal, entry]);
    expect(all).not.toMatch(/Ada|Asks|Social|laughed/);
    expect(goal.shortName).toBe('Goal 2a');
  });
});

describe('words for counts', () => {
  it('knows one from many, small from large', () => {
    expect([0, 1, 2].map((n) => counted(n, 'day', 'days'))).toEqual(['0 days', '1 day', '2 days']);
    expect([0, 3, 10, 11].map(numberWord)).toEqual(['no', 'three', 'ten', '11']);
    expect(capitalised('two alone')).toBe('Two alone');
  });

  it('rounds without making all or nothing of what is not', () => {
    expect([99.6, 100, 0.3, 0, 66.67].map(percent)).toEqual(['99%', '100%', '1%', '0%', '67%']);
    expect([2, 1.25, -0.04].map(figure)).toEqual(['2', '1.3', '0']);
  });
});

describe('what a form sends', () => {
  const entry = {
    id: '7f0f2c1e-5a0f-4d0c-8a43-111111111111',
    goalId: '7f0f2c1e-5a0f-4d0c-8a43-222222222222',
    outcome: { data: { trials: ['independent'] }, reason: null },
    note: '',
  };
  const session = { on: '2026-11-24', time: '09:30', observerId: entry.id, locationId: null, entries: [entry] };
  const problem = (changes: object) => sessionInput.safeParse({ ...session, ...changes }).error?.issues[0]?.message;

  it('is taken when it is whole', () => expect(sessionInput.safeParse(session).success).toBe(true));

  it('is refused in words a teacher understands', () => {
    expect(problem({ entries: [] })).toContain('Nothing is marked yet');
    expect(problem({ on: '' })).toBe('Choose a date, as year, month and day.');
    expect(problem({ time: '9' })).toBe('Choose a time, as hours and minutes.');
    expect(problem({ entries: [{ ...entry, note: 'x'.repeat(4001) }] })).toContain('4,000 characters');
    expect(problem({ entries: [{ ...entry, outcome: { data: null, reason: 'bored' } }] })).toBeDefined();
  });
});
