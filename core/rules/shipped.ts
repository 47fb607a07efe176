import type { Rule } from './rule';

/** A rule to begin from, of our own making. */
export interface ShippedRule {
  key: string;
  name: string;
  rule: Rule;
}

const nothing = { mark: null, followUp: null, message: null };
const forManager = (what: string, inDays: number) => ({ what, forWhom: 'caseManager' as const, inDays });

export const shippedRules: readonly ShippedRule[] = [
  {
    key: 'low-figure',
    name: 'A low percentage',
    rule: {
      when: { trigger: 'goalEntry', fulfils: 'all', conditions: [{ is: 'figure', comparison: 'below', value: 50 }] },
      does: { ...nothing, mark: { word: 'Low', look: 'line' } },
    },
  },
  {
    key: 'most-support',
    name: 'Much support was needed',
    rule: {
      when: { trigger: 'goalEntry', fulfils: 'all', conditions: [{ is: 'level', level: 'Hands on' }] },
      does: { ...nothing, mark: { word: 'Much support', look: 'wash' } },
    },
  },
  {
    key: 'all-right',
    name: 'Everything right',
    rule: {
      when: { trigger: 'goalEntry', fulfils: 'all', conditions: [{ is: 'figure', comparison: 'atLeast', value: 100 }] },
      does: { ...nothing, mark: { word: 'All right', look: 'bold' } },
    },
  },
  {
    key: 'part-missing',
    name: 'A part was left open',
    rule: {
      when: { trigger: 'goalEntry', fulfils: 'all', conditions: [{ is: 'partial' }] },
      does: { ...nothing, mark: { word: 'Partial', look: 'line' } },
    },
  },
  {
    key: 'refused',
    name: 'Refused a session',
    rule: {
      when: { trigger: 'goalEntry', fulfils: 'all', conditions: [{ is: 'noScore', reason: 'refused' }] },
      does: {
        ...nothing,
        mark: { word: 'Refused', look: 'line' },
        followUp: forManager('Ask what got in the way', 2),
      },
    },
  },
  {
    key: 'strong-incident',
    name: 'A strong incident',
    rule: {
      when: { trigger: 'incident', fulfils: 'all', conditions: [{ is: 'intensity', step: 3 }] },
      does: {
        ...nothing,
        mark: { word: 'Strong', look: 'bold' },
        followUp: forManager('Call the family', 1),
      },
    },
  },
  {
    key: 'long-incident',
    name: 'Long, or not resolved',
    rule: {
      when: {
        trigger: 'incident',
        fulfils: 'any',
        conditions: [{ is: 'lasted', minutes: 10 }, { is: 'unresolved' }],
      },
      does: { ...nothing, mark: { word: 'Look at this', look: 'wash' } },
    },
  },
  {
    key: 'many-incidents',
    name: 'Several incidents in a week',
    rule: {
      when: { trigger: 'often', of: 'incidents', behavior: null, times: 4, days: 5 },
      does: { ...nothing, followUp: forManager('Look at the patterns with the team', 3) },
    },
  },
  {
    key: 'quiet-goal',
    name: 'A goal without data',
    rule: {
      when: { trigger: 'quiet', days: 10 },
      does: { ...nothing, followUp: forManager('Plan when this goal is worked on', 2) },
    },
  },
  {
    key: 'behind',
    name: 'A goal has fallen behind',
    rule: {
      when: { trigger: 'decision', decisions: ['below', 'metNotHolding'] },
      does: { ...nothing, followUp: forManager('Decide whether to change the support', 5) },
    },
  },
  {
    key: 'stuck',
    name: 'A student is stuck',
    rule: { when: { trigger: 'stuck' }, does: { ...nothing, followUp: forManager('See what would help', 0) } },
  },
  {
    key: 'not-well',
    name: 'A student says it is not going well',
    rule: {
      when: { trigger: 'answer' },
      does: {
        ...nothing,
        mark: { word: 'Stands out', look: 'wash' },
        followUp: forManager('Talk with the student', 1),
      },
    },
  },
];
