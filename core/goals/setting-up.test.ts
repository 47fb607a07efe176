import { describe, expect, it } from 'vitest';
import {
  beginningOf,
  kinds,
  type MeasureDefinition,
  measureDefinition,
  measureKinds,
  measureOf,
} from '../measures/measure';
import { criterionSentence } from '../progress/mastery';
import { beginFromGoal, beginFromTemplate, blankGoal, templateOf } from './begin';
import { goalForAnother, pastedTargets, typedTarget } from './for-group';
import { goalBank } from './goal-bank';
import { definitionFrom, goalInput } from './goal-input';
import { newKey, withLines } from './keys';
import { templateFor, timesNamed } from './other-student';
import { retirementInput } from './retirement-input';
import { meansTheSame } from './same-meaning';

const id = '7f0f2c1e-5a0f-4d0c-8a43-222222222222';
const goal = {
  id,
  number: '2a',
  shortName: 'Asks for a tool',
  wording: 'Ada will ask.',
  measure: beginningOf('trials'),
  criterion: { comparison: 'atLeast', value: 80, rule: { kind: 'ofLast', k: 3, n: 4 } },
  startsOn: '2026-09-08',
  targetOn: '2027-06-11',
};
const refusedFields = (changes: object) =>
  goalInput.safeParse({ ...goal, ...changes }).error?.issues.map(({ path }) => path.join('.')) ?? [];

describe('a goal as it is set up', () => {
  it('has its target from the criterion, and its phases in order', () => {
    const phases = [
      { label: 'New room', startsOn: '2026-11-02' },
      { label: 'Baseline', startsOn: '2026-09-08', isBaseline: true },
    ];
    const input = goalInput.parse({ ...goal, baselineValue: 20, baselineOn: '2026-09-08', phases });
    expect(definitionFrom(input)).toMatchObject({
      target: 80,
      baseline: { value: 20, on: '2026-09-08' },
      pointPer: 'day',
      phases: [
        { label: 'Baseline', isBaseline: true },
        { label: 'New room', isBaseline: false },
      ],
    });
    expect(definitionFrom(goalInput.parse(goal)).baseline).toBeNull();
  });

  it('keeps its wording to the letter but for the ends of lines', () => {
    expect(goalInput.parse({ ...goal, wording: ' One\r\ntwo 🌱\rعربي ' }).wording).toBe(' One\ntwo 🌱\nعربي ');
    expect(refusedFields({ wording: ' \n ' })).toEqual(['wording']);
    expect(refusedFields({ wording: 'x'.repeat(4001) })).toEqual(['wording']);
  });

  it.each([
    [{ criterion: { ...goal.criterion, value: 120 } }, 'criterion.value'],
    [{ criterion: { ...goal.criterion, value: -1 } }, 'criterion.value'],
    [{ criterion: { ...goal.criterion, rule: { kind: 'ofLast', k: 5, n: 4 } } }, 'criterion.rule.k'],
    [{ baselineValue: 20 }, 'baselineOn'],
    [{ baselineOn: '2026-09-08' }, 'baselineValue'],
    [{ targetOn: '2026-09-08' }, 'targetOn'],
    [{ baselineValue: 20, baselineOn: '2027-06-11' }, 'baselineOn'],
    [{ plannedGap: 0 }, 'plannedGap'],
    [{ number: ' ' }, 'number'],
    [
      {
        phases: [
          { label: 'A', startsOn: '2026-10-01' },
          { label: 'B', startsOn: '2026-10-01' },
        ],
      },
      'phases.1.startsOn',
    ],
  ])('what cannot be true is told at its field: %j', (changes, field) => {
    expect(refusedFields(changes)).toContain(field);
  });

  it('is retired for a reason', () => {
    expect(retirementInput.safeParse({ goalId: id, on: '2026-11-24', how: 'met' }).success).toBe(true);
    expect(retirementInput.safeParse({ goalId: id, on: '2026-11-24', how: 'bored' }).success).toBe(false);
  });
});

describe('the kinds of measure', () => {
  it.each(measureKinds)('%s: a question, and a beginning that holds', (kind) => {
    expect(kinds[kind].question).not.toBe('');
    const measure = beginningOf(kind);
    const criterion = measureOf(measure).defaultCriterion();
    expect(criterionSentence({ measure, criterion, pointPer: 'day' })).toMatch(/^Goal: (at least |at most |all )?\d/);
    expect(meansTheSame(measure, measureDefinition.parse(structuredClone(measure)))).toBe(true);
  });

  it('stand in the goal bank, one goal of each, in words that name nobody', () => {
    expect(goalBank.map(({ measure }) => measure.kind).toSorted()).toEqual(measureKinds.toSorted());
    for (const { wording } of goalBank) expect(wording).toContain('{name}');
  });

  it('get keys that are not taken', () => {
    expect(newKey('item', ['item1', 'item3'])).toBe('item2');
    expect(newKey('level', [])).toBe('level1');
  });
});

describe('whether data still mean the same', () => {
  const change = (kind: MeasureDefinition['kind'], changes: object) =>
    meansTheSame(beginningOf(kind), measureDefinition.parse({ ...beginningOf(kind), ...changes }));
  const { levels } = beginningOf('trials') as Extract<MeasureDefinition, { kind: 'trials' }>;

  it('they do under other names and other ways of saying', () => {
    expect(change('trials', { planned: 5, opportunity: { one: 'board', many: 'boards' } })).toBe(true);
    expect(change('trials', { levels: levels.map((level) => ({ ...level, label: `${level.label}!` })) })).toBe(true);
    expect(change('frequency', { per: 'minute' })).toBe(true);
    expect(change('duration', { of: 'episode', unit: 'seconds' })).toBe(true);
    expect(change('cumulativeTotal', { total: 60 })).toBe(true);
  });

  it('they do not with other levels, items, steps, criteria, intervals or another kind', () => {
    expect(change('trials', { levels: levels.slice(0, 3) })).toBe(false);
    expect(change('trials', { levels: levels.toReversed() })).toBe(false);
    expect(change('trials', { mostSupport: 'gesture' })).toBe(false);
    expect(change('itemCheck', { items: [{ key: 'item2', label: 'First word' }] })).toBe(false);
    expect(
      change('taskAnalysis', {
        steps: [
          { key: 'step1', label: 'A' },
          { key: 'step2', label: 'B' },
        ],
      }),
    ).toBe(false);
    expect(change('intervalRecording', { seconds: 30 })).toBe(false);
    expect(change('rubric', { of: 'sum' })).toBe(false);
    expect(meansTheSame(beginningOf('frequency'), beginningOf('duration'))).toBe(false);
  });
});

describe('a wording for another student', () => {
  it('replaces whole words only, with their endings kept', () => {
    const wording = 'Ann will ask. Ann’s friends of the Anniversary, and Ann.';
    expect(timesNamed(wording, 'Ann')).toBe(3);
    expect(templateFor(wording, { from: 'Ann', to: 'Bo' })).toBe(
      'Bo will ask. Bo’s friends of the Anniversary, and Bo.',
    );
    expect(templateFor('{name} asks, $& and {name}’s.', { from: '{name}', to: '$1 Zoë' })).toBe(
      '$1 Zoë asks, $& and $1 Zoë’s.',
    );
    expect([timesNamed('Zoë and Zoë2', 'Zoë'), timesNamed('anything', '')]).toEqual([1, 0]);
  });
});

describe('lines that are pasted into a list of names', () => {
  it('become rows with keys of their own; the row they begin in keeps its key', () => {
    const rows = [
      { key: 'item1', label: 'old' },
      { key: 'item2', label: 'stays' },
    ];
    expect(withLines(rows, 0, ['flour', 'bowl', 'oven'], 'item')).toEqual([
      { key: 'item1', label: 'flour' },
      { key: 'item3', label: 'bowl' },
      { key: 'item4', label: 'oven' },
      { key: 'item2', label: 'stays' },
    ]);
  });
});

describe('what a goal begins from', () => {
  const blank = blankGoal(id, { today: '2026-11-24', planEndsOn: '2027-06-11', numbers: ['1', '2a', '2b', 'x'] });
  it('nothing: the next number, and the end of the plan', () => {
    expect(blank).toMatchObject({ number: '3', startsOn: '2026-11-24', targetOn: '2027-06-11' });
    const without = blankGoal(id, { today: '2026-11-24', planEndsOn: '2026-06-11', numbers: [] });
    expect(without).toMatchObject({ number: '1', targetOn: '2027-11-24' });
  });
  it('another goal: its measure, without its past', () => {
    const input = goalInput.parse({ ...goal, baselineValue: 20, baselineOn: '2026-09-08' });
    const begun = beginFromGoal(blank, input, 'Bo will ask.');
    expect(begun).toMatchObject({
      number: '3',
      shortName: 'Asks for a tool',
      wording: 'Bo will ask.',
      baselineValue: null,
    });
  });
  it('the goal bank, and back to it', () => {
    const template = templateOf(goalInput.parse(goal), 'Ada');
    expect(template).toMatchObject({ name: 'Asks for a tool', wording: '{name} will ask.' });
    expect(beginFromTemplate(blank, template, 'Bo')).toMatchObject({
      shortName: 'Asks for a tool',
      wording: 'Bo will ask.',
    });
  });
});

describe('a goal for a group', () => {
  const source = {
    ...blankGoal('a2f1f5b0-0000-4000-8000-000000000001', { today: '2026-11-24', planEndsOn: null, numbers: [] }),
    wording: 'Ione will pot 140 plants (1,140 in all her years). Ione’s herbs count.',
    measure: {
      ...{ kind: 'cumulativeTotal' as const, unit: { one: 'plant', many: 'plants' }, total: 140 },
      ...{ amounts: 'added' as const, categories: [] },
    },
  };
  const names = { from: 'Ione', to: 'Jory' };

  it('names the other student and says their own target, where the first one stood as a number of its own', () => {
    const goal = goalForAnother(source, source, { names, target: 80 });
    expect(goal.wording).toBe('Jory will pot 80 plants (1,140 in all her years). Jory’s herbs count.');
    expect(typedTarget(goal)).toBe(80);
    expect(goalForAnother(source, source, { names, target: 140 }).wording).toContain('pot 140 plants');
    expect(goal.phases).toEqual([]);
  });

  it('reads targets as they are pasted from a column', () => {
    expect(pastedTargets('140\r\n80,5\n\n–\n120%\tJory\n')).toEqual(['140', '80.5', '', '', '120']);
  });
});
