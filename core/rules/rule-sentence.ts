import { noScoreWords } from '../measures/score';
import { decisionWords } from '../progress/decision-words';
import { counted, figure } from '../words/counting';
import type { ForWhom, GoalCondition, IncidentCondition, MarkLook, Rule, RuleScope, RuleWhen } from './rule';

/** What ids in a rule are called; null for what is not there any more. */
export interface RuleNames {
  goal: (id: string) => { name: string; unit: string } | null;
  person: (id: string) => string | null;
  student: (id: string) => string | null;
  group: (id: string) => string | null;
}

const orList = (words: readonly string[], word: 'and' | 'or') =>
  words.length < 2 ? (words[0] ?? '') : `${words.slice(0, -1).join(', ')} ${word} ${words.at(-1)}`;

function goalWords(condition: GoalCondition, { goal }: RuleNames, unit: string): string {
  switch (condition.is) {
    case 'goal':
      return `it is of ${goal(condition.goalId)?.name ?? 'a goal that is not there any more'}`;
    case 'area':
      return `the goal’s area is “${condition.area}”`;
    case 'figure':
      return `the figure is ${condition.comparison === 'below' ? 'below' : 'at least'} ${figure(condition.value)}${unit}`;
    case 'level':
      return `the support was “${condition.level}” or more`;
    case 'item':
      return `“${condition.item}” was not right`;
    case 'noScore':
      return `it says “${noScoreWords[condition.reason].label}”`;
    case 'partial':
      return 'a part was left open';
    case 'selfRating': {
      const levels = condition.lowest === 1 ? 'its lowest level' : `one of its ${condition.lowest} lowest levels`;
      return `the student rated a criterion at ${levels}`;
    }
  }
}

function incidentWords(condition: IncidentCondition): string {
  switch (condition.is) {
    case 'behavior':
      return `the behavior is “${condition.name}”`;
    case 'antecedent':
      return `“${condition.name}” came before`;
    case 'location':
      return `the location is “${condition.name}”`;
    case 'intensity':
      return `the intensity is step ${condition.step} or higher`;
    case 'lasted':
      return `it lasted ${condition.minutes} min or longer`;
    case 'unresolved':
      return 'it was not resolved';
  }
}

/** When a rule does something, as the beginning of a sentence. */
function whenWords(when: RuleWhen, names: RuleNames): string {
  const joined = (words: string[], how: 'all' | 'any') => orList(words, how === 'all' ? 'and' : 'or');
  switch (when.trigger) {
    case 'goalEntry': {
      const named = when.conditions.flatMap((one) => (one.is === 'goal' ? [names.goal(one.goalId)?.unit] : []));
      // A figure is a percentage, unless the one goal that is named is measured otherwise.
      const unit = named[0] ?? '%';
      return `When an entry of a goal is recorded and ${joined(
        when.conditions.map((one) => goalWords(one, names, unit)),
        when.fulfils,
      )}`;
    }
    case 'incident':
      return `When an incident is recorded and ${joined(when.conditions.map(incidentWords), when.fulfils)}`;
    case 'often': {
      const of = when.behavior === null ? '' : ` of “${when.behavior}”`;
      const what =
        when.of === 'counts'
          ? `${when.times} times${of || ' of any behavior'} were counted`
          : `there are ${when.times} incidents${of}`;
      return `When ${what} within ${counted(when.days, 'school day', 'school days')}`;
    }
    case 'answer':
      return 'When a student answers a form about themselves and an answer stands out';
    case 'stuck':
      return 'When a student says that they are stuck';
    case 'quiet':
      return `When nothing was recorded of a goal for ${counted(when.days, 'school day', 'school days')}`;
    case 'decision':
      return `When a goal’s decision becomes ${orList(
        when.decisions.map((is) => `“${decisionWords[is].label}”`),
        'or',
      )}`;
  }
}

const whomWords = (forWhom: ForWhom, { person }: RuleNames): string => {
  if (forWhom === 'caseManager') return 'the case manager';
  if (forWhom === 'recorder') return 'whoever recorded it';
  if (forWhom === 'maker') return 'whoever made this rule';
  return person(forWhom) ?? 'somebody who is not on the team any more';
};

export const lookWords: Record<MarkLook, string> = { line: 'Outlined', wash: 'Shaded', bold: 'Bold' };

/** Whom a rule is about. */
export function scopeWords(scope: RuleScope, { student, group }: RuleNames): string {
  if (scope.of === 'student') return student(scope.studentId) ?? 'a student who is not here any more';
  if (scope.of === 'group') return `students in ${group(scope.groupId) ?? 'a group that is not there any more'}`;
  return scope.of === 'school' ? 'all students of the school' : 'all students whose goals you edit';
}

/**
 * A rule read out.
 *
 * @example ruleSentence(rule, names) // 'When an entry of a goal is recorded and the figure is below 50%: mark it “Low”.'
 */
export function ruleSentence({ when, does }: Rule, names: RuleNames): string {
  const said = [
    does.mark && `mark it “${does.mark.word || '…'}”`,
    does.followUp &&
      `make a follow-up for ${whomWords(does.followUp.forWhom, names)}, “${does.followUp.what || '…'}”, due ${
        does.followUp.inDays === 0 ? 'the same day' : `in ${counted(does.followUp.inDays, 'school day', 'school days')}`
      }`,
    does.message && `send a message to ${whomWords(does.message.forWhom, names)}`,
  ].filter((one) => typeof one === 'string');
  return `${whenWords(when, names)}: ${orList(said, 'and') || '…'}.`;
}
