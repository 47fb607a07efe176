import { plainName } from '../entries/incidents/choice';
import type { EntryFacts, GoalFacts, IncidentFacts } from './facts';
import type { EntryMark, GoalCondition, IncidentCondition, Rule, RuleWhen } from './rule';

/** @param namesGoal  whether one goal is named: then a figure is in that goal's own unit, else in percent */
function goalFulfils(facts: GoalFacts, condition: GoalCondition, namesGoal: boolean): boolean {
  switch (condition.is) {
    case 'goal':
      return facts.goalId === condition.goalId;
    case 'area':
      return plainName(facts.area) === plainName(condition.area);
    case 'figure':
      // What has no score is neither below nor above anything.
      if (facts.value === null || !(facts.isPercent || namesGoal)) return false;
      return condition.comparison === 'below'
        ? facts.value < condition.value - HAIR
        : facts.value >= condition.value - HAIR;
    case 'level':
      return facts.levels.has(plainName(condition.level));
    case 'item':
      return facts.missed.has(plainName(condition.item));
    case 'noScore':
      return facts.reason === condition.reason;
    case 'partial':
      return facts.isPartial;
    case 'selfRating':
      return facts.selfRating !== null && facts.selfRating <= condition.lowest;
  }
}

/** 70% of ten may come out a hair below 70. */
const HAIR = 1e-9;

function incidentFulfils(facts: IncidentFacts, condition: IncidentCondition): boolean {
  switch (condition.is) {
    case 'behavior':
      return facts.behaviors.has(plainName(condition.name));
    case 'antecedent':
      return facts.antecedents.has(plainName(condition.name));
    case 'location':
      return facts.location === plainName(condition.name);
    case 'intensity':
      return facts.intensity !== null && facts.intensity >= condition.step;
    case 'lasted':
      return facts.seconds !== null && facts.seconds >= 60 * condition.minutes;
    case 'unresolved':
      return facts.isUnresolved;
  }
}

const together = <C>(all: readonly C[], how: 'all' | 'any', is: (one: C) => boolean) =>
  how === 'all' ? all.every(is) : all.some(is);

/**
 * Whether one entry fulfils a rule by itself. What needs several entries, or none, is looked at elsewhere: `often`, `quiet`, `decision`.
 *
 * @example fulfils({ trigger: 'incident', fulfils: 'all', conditions: [{ is: 'unresolved' }] }, incident) // true while it goes on
 */
export function fulfils(when: RuleWhen, facts: EntryFacts): boolean {
  switch (when.trigger) {
    case 'goalEntry':
      return (
        facts.kind === 'goal' &&
        together(when.conditions, when.fulfils, (one) =>
          goalFulfils(
            facts,
            one,
            when.conditions.some(({ is }) => is === 'goal'),
          ),
        )
      );
    case 'incident':
      return facts.kind === 'incident' && together(when.conditions, when.fulfils, (one) => incidentFulfils(facts, one));
    case 'answer':
      return facts.kind === 'answer' && facts.standsOut;
    default:
      return false;
  }
}

/** A rule that marks, with whom it reaches. */
export interface StandingRule {
  id: string;
  rule: Rule;
}

/** The marks of an entry, each word once, in the order of the rules: two rules that contradict each other are both heard. */
export function marksOf(rules: readonly StandingRule[], facts: EntryFacts): EntryMark[] {
  const marks = new Map<string, EntryMark>();
  for (const { id, rule } of rules) {
    const { mark } = rule.does;
    if (mark && !marks.has(mark.word) && fulfils(rule.when, facts)) marks.set(mark.word, { ...mark, ruleId: id });
  }
  return [...marks.values()];
}
