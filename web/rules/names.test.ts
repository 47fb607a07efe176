import { describe, expect, it } from 'vitest';
import type { Rule, RuleWhen } from '~/core/rules/rule';
import type { OfferedForRules } from '~/server/rules/offered';
import { missingIn, namesFrom } from './names';

const offered: OfferedForRules = {
  ...{ students: [{ id: 's', name: 'Ada E.' }], groups: [{ id: 'g', name: 'Garden' }], people: [], steps: 3 },
  goals: [{ id: 'goal', studentId: 's', name: 'Ada E.: 1 · Plants a row', unit: '%' }],
  ...{ areas: ['Reading'], levels: ['Spoken'], items: ['said'] },
  ...{ behaviors: ['Leaves'], antecedents: ['Noise'], locations: ['Kitchen'] },
};
const missing = (when: RuleWhen, scope: Parameters<typeof missingIn>[1] = { of: 'mine' }) => {
  const rule: Rule = { when, does: { mark: { word: 'x', look: 'line' }, followUp: null, message: null } };
  return missingIn(rule, scope, offered);
};

describe('what a rule waits for in vain', () => {
  it('is said: a goal that is retired, and choices that nobody has any more', () => {
    const goal: RuleWhen = {
      ...{ trigger: 'goalEntry', fulfils: 'any' },
      conditions: [
        { is: 'goal', goalId: 'retired' },
        { is: 'level', level: 'Hands on' },
        { is: 'item', item: 'was' },
        { is: 'area', area: 'Math' },
      ],
    };
    expect(missing(goal)).toEqual([
      'Its goal is retired: nothing new will fulfil it.',
      'No student here has the support level “Hands on” any more.',
      'No student here has the item “was” any more.',
      'No student here has the area “Math” any more.',
    ]);
    const incident: RuleWhen = {
      ...{ trigger: 'incident', fulfils: 'all' },
      conditions: [
        { is: 'behavior', name: 'Shouts' },
        { is: 'intensity', step: 4 },
      ],
    };
    expect(missing(incident)).toEqual([
      'No student here has the behavior “Shouts” any more.',
      'No scale of intensity has a step 4.',
    ]);
    expect(missing({ trigger: 'often', of: 'incidents', behavior: 'Bites', times: 2, days: 5 })).toHaveLength(1);
    expect(missing({ trigger: 'stuck' }, { of: 'group', groupId: 'gone' })).toEqual([
      'Its group is not there any more.',
    ]);
  });

  it('is nothing where all is there, however it is spelled', () => {
    const when: RuleWhen = {
      ...{ trigger: 'goalEntry', fulfils: 'all' },
      conditions: [
        { is: 'goal', goalId: 'goal' },
        { is: 'level', level: ' spoken ' },
        { is: 'figure', comparison: 'below', value: 50 },
      ],
    };
    expect(missing(when, { of: 'group', groupId: 'g' })).toEqual([]);
    expect(missing({ trigger: 'often', of: 'incidents', behavior: null, times: 2, days: 5 })).toEqual([]);
  });
});

it('names are those of what is there; of what is not there, none', () => {
  const names = namesFrom(offered);
  expect([names.student('s'), names.student('x'), names.group('g'), names.person('p')]).toEqual([
    ...['Ada E.', null, 'Garden', null],
  ]);
  expect(names.goal('goal')).toMatchObject({ unit: '%' });
});
