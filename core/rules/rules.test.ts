import { describe, expect, it } from 'vitest';
import { hours } from '~/tests/examples/measures';
import { itemCheckDefinition } from '../measures/item-check/item-check';
import { beginningOf, type MeasureDefinition } from '../measures/measure';
import { rubricDefinition } from '../measures/rubric/rubric';
import { usualLevels } from '../measures/support-levels';
import { trialsDefinition } from '../measures/trials/trials';
import { type EntryFacts, type GoalFacts, type IncidentFacts, outcomeFacts } from './facts';
import { dueAfter } from './follow-up';
import { fulfils, marksOf } from './fulfils';
import { completing, windowStart } from './often';
import { type GoalCondition, type Rule, type RuleWhen, rule } from './rule';
import { type RuleNames, ruleSentence, scopeWords } from './rule-sentence';
import { shippedRules } from './shipped';

const calendar = { weekdays: [1, 2, 3, 4, 5], closures: [{ first: '2026-11-26', last: '2026-11-27' }] };
const trials = trialsDefinition.parse({ kind: 'trials', levels: usualLevels, mostSupport: 'gesture' });
const readings = beginningOf('measurement');
const words = itemCheckDefinition.parse({
  kind: 'itemCheck',
  items: ['the', 'said', 'was'].map((label) => ({ key: label, label })),
});

const about = { entryId: 'e', studentId: 's', on: '2026-11-24', kind: 'goal' as const, goalId: 'g', area: 'Reading' };
const of = (definition: MeasureDefinition, data: object): GoalFacts => ({
  ...about,
  // Data of the measure beside it.
  ...outcomeFacts(definition, { data, reason: null } as never),
});
const is = (facts: GoalFacts, ...conditions: GoalCondition[]) =>
  fulfils({ trigger: 'goalEntry', fulfils: 'all', conditions }, facts);

const incident = (changes: Partial<IncidentFacts>): IncidentFacts => ({
  ...{ kind: 'incident', entryId: 'i', studentId: 's', on: '2026-11-24', antecedents: new Set(), location: null },
  ...{ behaviors: new Set(['left the bench']), intensity: null, seconds: null, isUnresolved: false },
  ...changes,
});

describe('what a goal’s entry fulfils', () => {
  it('is told by its figure: what has none is neither below nor above anything', () => {
    const half = of(trials, { trials: ['independent', 'spoken'] });
    expect(half.value).toBe(50);
    expect(is(half, { is: 'figure', comparison: 'below', value: 50 })).toBe(false);
    expect(is(half, { is: 'figure', comparison: 'below', value: 51 })).toBe(true);
    expect(is(half, { is: 'figure', comparison: 'atLeast', value: 50 })).toBe(true);
    const absent: GoalFacts = { ...about, ...outcomeFacts(trials, { data: null, reason: 'absent' }) };
    expect(is(absent, { is: 'figure', comparison: 'below', value: 101 })).toBe(false);
    expect(is(absent, { is: 'noScore', reason: 'absent' })).toBe(true);
    expect(is(absent, { is: 'noScore', reason: 'refused' })).toBe(false);
  });

  it('compares no single amount of a running total with a percentage, whether the goal is named or not', () => {
    const one = of(hours, { amounts: [{ amount: 1, category: 'garden' }] });
    const below = { is: 'figure', comparison: 'below', value: 50 } as const;
    expect([is(one, below), is(one, below, { is: 'goal', goalId: 'g' })]).toEqual([false, false]);
    expect(is(one, { is: 'goal', goalId: 'g' })).toBe(true);
  });

  it('takes a percentage for one: of measures in other units only where the goal is named', () => {
    const minutes = of(readings, { readings: [12] });
    const below = { is: 'figure', comparison: 'below', value: 50 } as const;
    expect(minutes.value).toBe(12);
    expect(is(minutes, below)).toBe(false);
    expect(is(minutes, below, { is: 'goal', goalId: 'g' })).toBe(true);
    expect(is(minutes, below, { is: 'goal', goalId: 'another' })).toBe(false);
  });

  it('knows how low the student rated their own work, and takes nobody else’s rating for it', () => {
    const level = (points: number) => ({ points, words: `at ${points}` });
    const rubric = rubricDefinition.parse({
      kind: 'rubric',
      criteria: ['plan', 'finish'].map((key) => ({ key, label: key, levels: [1, 2, 4].map(level) })),
    });
    const rated = (rater: string, points: number, isBeside = true) => ({
      ...{ criterion: 'plan', points, rater },
      ...(isBeside && { isBeside }),
    });
    const low = (lowest: number) => ({ is: 'selfRating', lowest }) as const;
    const second = of(rubric, { ratings: [rated('Staff', 1, false), rated('Peer', 1), rated('Student', 2)] });
    expect(second.selfRating).toBe(2);
    expect(is(second, low(1))).toBe(false);
    expect(is(second, low(2))).toBe(true);
    // Where the student rated nothing, nothing is low.
    expect(is(of(rubric, { ratings: [rated('Staff', 1, false), rated('Peer', 1)] }), low(9))).toBe(false);
    expect(is(of(trials, { trials: ['incorrect'] }), low(9))).toBe(false);
  });

  it('knows how much support there was: the level that is named, or more; however it is spelled', () => {
    const spoken = of(trials, { trials: ['independent', 'spoken', 'incorrect'] });
    expect(is(spoken, { is: 'level', level: ' gesture ' })).toBe(true);
    expect(is(spoken, { is: 'level', level: 'SPOKEN' })).toBe(true);
    expect(is(spoken, { is: 'level', level: 'Hands on' })).toBe(false);
    expect(is(of(trials, { counts: { gesture: 2 } }), { is: 'level', level: 'Spoken' })).toBe(false);
  });

  it('knows which items were not right, and which were not asked: blank is not wrong', () => {
    const facts = of(words, {
      items: [
        { item: 'the', outcome: 'right' },
        { item: 'said', outcome: 'incorrect' },
      ],
    });
    expect(is(facts, { is: 'item', item: 'Said' })).toBe(true);
    expect(is(facts, { is: 'item', item: 'was' })).toBe(false);
    expect(is(facts, { is: 'partial' })).toBe(true);
    expect(is(facts, { is: 'partial' }, { is: 'area', area: 'reading' })).toBe(true);
    expect(is(facts, { is: 'partial' }, { is: 'area', area: 'Math' })).toBe(false);
    const any: RuleWhen = {
      trigger: 'goalEntry',
      fulfils: 'any',
      conditions: [{ is: 'partial' }, { is: 'area', area: 'Math' }],
    };
    expect(fulfils(any, facts)).toBe(true);
  });
});

describe('what incidents fulfil', () => {
  const long: RuleWhen = {
    trigger: 'incident',
    fulfils: 'any',
    conditions: [{ is: 'lasted', minutes: 10 }, { is: 'unresolved' }],
  };
  it('is told by how long, how strong, and whether it was resolved; what nobody said is none of it', () => {
    expect(fulfils(long, incident({ seconds: 599 }))).toBe(false);
    expect(fulfils(long, incident({ seconds: 600 }))).toBe(true);
    expect(fulfils(long, incident({ isUnresolved: true }))).toBe(true);
    const strong: RuleWhen = { trigger: 'incident', fulfils: 'all', conditions: [{ is: 'intensity', step: 3 }] };
    expect(fulfils(strong, incident({}))).toBe(false);
    expect(fulfils(strong, incident({ intensity: 3 }))).toBe(true);
    expect(fulfils(strong, { ...about, ...outcomeFacts(trials, { data: null, reason: 'absent' }) })).toBe(false);
  });

  it('counts so many in so many school days, and says a bad week once', () => {
    const often = {
      trigger: 'often' as const,
      of: 'incidents' as const,
      behavior: 'Left the bench',
      times: 3,
      days: 5,
    };
    const on = (...days: string[]) => days.map((day, n) => incident({ entryId: `${n}`, on: day }));
    const ids = (entries: EntryFacts[], said: string[] = []) =>
      completing(often, entries, calendar, said).map(({ entryId }) => entryId);
    // From Thursday the 19th over the weekend to Wednesday the 25th are five school days.
    expect(windowStart('2026-11-25', 5, calendar)).toBe('2026-11-19');
    expect(ids(on('2026-11-19', '2026-11-23', '2026-11-25', '2026-11-25'))).toEqual(['2']);
    expect(ids(on('2026-11-18', '2026-11-23', '2026-11-25'))).toEqual([]);
    expect(ids(on('2026-11-19', '2026-11-23', '2026-11-25'), ['2026-11-20'])).toEqual([]);
    const other = incident({ behaviors: new Set(['called out']), on: '2026-11-23' });
    expect(ids([...on('2026-11-23', '2026-11-23'), other])).toEqual([]);
    // What was counted while watching is counted by its times, and never together with what was noted.
    const counts = on('2026-11-23', '2026-11-24').map(({ entryId, ...one }, n) => ({
      ...{ ...one, entryId: `c${entryId}`, kind: 'count' as const, times: 1 + n },
    }));
    const counted = { ...often, of: 'counts' as const };
    const both = [...on('2026-11-23'), ...counts];
    expect(completing(counted, both, calendar).map(({ entryId }) => entryId)).toEqual(['c1']);
    expect(ids(both)).toEqual([]);
  });
});

describe('a rule', () => {
  const mark = { word: 'Low', look: 'line' as const };
  const low: Rule = {
    when: { trigger: 'goalEntry', fulfils: 'all', conditions: [{ is: 'figure', comparison: 'below', value: 50 }] },
    does: { mark, followUp: null, message: null },
  };
  const refusedWith = (value: unknown) => rule.safeParse(value).error?.issues[0]?.message;

  it('does something, and marks only what is an entry', () => {
    expect(rule.safeParse(low).success).toBe(true);
    expect(refusedWith({ ...low, does: { mark: null, followUp: null, message: null } })).toMatch(/Say what it does/);
    expect(refusedWith({ ...low, when: { trigger: 'quiet', days: 10 } })).toMatch(/There is no entry to mark/);
    expect(refusedWith({ ...low, when: { ...low.when, conditions: [] } })).toMatch(/Add a condition/);
    // Nothing that a rule makes can fulfil one: there is no such trigger, so rules make no circles.
    expect(rule.safeParse({ ...low, when: { trigger: 'followUp' } }).success).toBe(false);
  });

  it('marks beside another that says the opposite, and says a word once', () => {
    const high: Rule = { ...low, does: { ...low.does, mark: { word: 'Fine', look: 'bold' } } };
    const zero = of(trials, { trials: ['incorrect'] });
    const rules = [
      { id: 'a', rule: low },
      { id: 'b', rule: high },
      { id: 'c', rule: low },
    ];
    expect(marksOf(rules, zero).map(({ word, ruleId }) => `${word} ${ruleId}`)).toEqual(['Low a', 'Fine b']);
    expect(marksOf(rules, of(trials, { trials: ['independent'] }))).toEqual([]);
  });

  it('is read out as a sentence', () => {
    const names: RuleNames = {
      goal: () => ({ name: '2a · Words read', unit: ' min' }),
      person: () => null,
      student: () => 'Ada E.',
      group: () => null,
    };
    const rated: Rule = {
      when: { trigger: 'goalEntry', fulfils: 'all', conditions: [{ is: 'selfRating', lowest: 1 }] },
      does: { mark: { word: 'Low', look: 'line' }, followUp: null, message: null },
    };
    expect(ruleSentence(rated, names)).toContain('the student rated a criterion at its lowest level');
    expect(ruleSentence(low, names)).toBe(
      'When an entry of a goal is recorded and the figure is below 50%: mark it “Low”.',
    );
    const sentences = shippedRules.map(({ rule: one }) => ruleSentence(one, names));
    expect(sentences).toContain(
      'When an incident is recorded and it lasted 10 min or longer or it was not resolved: mark it “Look at this”.',
    );
    expect(sentences).toContain(
      'When nothing was recorded of a goal for 10 school days: make a follow-up for the case manager, “Plan when this goal is worked on”, due in 2 school days.',
    );
    expect(new Set(sentences).size).toBe(shippedRules.length);
    expect(scopeWords({ of: 'group', groupId: 'gone' }, names)).toBe('students in a group that is not there any more');
  });

  it('ships at least ten to begin from, each of which can be saved as it is', () => {
    expect(shippedRules.length).toBeGreaterThanOrEqual(10);
    for (const { key, rule: one } of shippedRules) expect(rule.safeParse(one).success, key).toBe(true);
  });
});

describe('a follow-up', () => {
  it('is due in school days: not on a weekend, nor while the school is closed', () => {
    expect(dueAfter('2026-11-24', 0, calendar)).toBe('2026-11-24');
    expect(dueAfter('2026-11-24', 1, calendar)).toBe('2026-11-25');
    expect(dueAfter('2026-11-25', 1, calendar)).toBe('2026-11-30');
    expect(dueAfter('2026-11-25', 3, { weekdays: [], closures: [] })).toMatch(/^2027/);
  });
});
