import type { IsoDate } from '../calendar/iso-date';
import { plainName } from '../entries/incidents/choice';
import type { Outcome } from '../entries/observation';
import { type MeasureData, type MeasureDefinition, measureOf } from '../measures/measure';
import { outcomesIn, partsIn } from '../measures/parts';
import type { NoScoreReason } from '../measures/score';
import { successLevels } from '../measures/support-levels';

interface CommonFacts {
  entryId: string;
  studentId: string;
  on: IsoDate;
}

/** What rules ask of a goal's entry. */
export interface GoalFacts extends CommonFacts {
  kind: 'goal';
  goalId: string;
  area: string;
  /** In percent of a share, else in the measure's own unit; null where there is no score. */
  value: number | null;
  isPercent: boolean;
  reason: NoScoreReason | null;
  /** The most support that was given, and every level that asks for no more than that, by plain name. */
  levels: ReadonlySet<string>;
  /** Items or steps that were asked and came to no success, by plain name. */
  missed: ReadonlySet<string>;
  isPartial: boolean;
  /** Of a rubric: the lowest level, counted from 1, at which the student rated a criterion; null where they rated none. */
  selfRating: number | null;
}

/** What rules ask of an incident: choices by plain name, merged ones by the name of the one that stands for them. */
export interface IncidentFacts extends CommonFacts {
  kind: 'incident';
  behaviors: ReadonlySet<string>;
  antecedents: ReadonlySet<string>;
  location: string | null;
  /** On the student's scale, from 1. */
  intensity: number | null;
  seconds: number | null;
  isUnresolved: boolean;
}

/** What rules ask of what a student answered about themselves. */
export interface AnswerFacts extends CommonFacts {
  kind: 'answer';
  standsOut: boolean;
}

/** What rules ask of a stretch of watching in which a behavior was counted. */
export interface CountFacts extends CommonFacts {
  kind: 'count';
  behaviors: ReadonlySet<string>;
  times: number;
}

export type EntryFacts = GoalFacts | IncidentFacts | CountFacts | AnswerFacts;

/** An entry names its raters by their kind: see `asEntry`. */
const THE_STUDENT = /^Student( |$)/;

function selfRatingIn(definition: MeasureDefinition, data: MeasureData): number | null {
  if (definition.kind !== 'rubric' || !('ratings' in data)) return null;
  const ranks = data.ratings.flatMap(({ criterion, points, rater, isBeside }) => {
    if (!isBeside || !THE_STUDENT.test(rater ?? '')) return [];
    const levels = definition.criteria.find(({ key }) => key === criterion)?.levels ?? [];
    const rank = levels.findIndex((level) => level.points >= points) + 1;
    return rank > 0 ? [rank] : [];
  });
  return ranks.length > 0 ? Math.min(...ranks) : null;
}

/**
 * What an outcome means to rules.
 *
 * @example outcomeFacts(trials, { data: { trials: ['independent', 'gesture'] }, reason: null }).value // 50
 */
export function outcomeFacts(
  definition: MeasureDefinition,
  outcome: Outcome,
): Pick<GoalFacts, 'value' | 'isPercent' | 'reason' | 'levels' | 'missed' | 'isPartial' | 'selfRating'> {
  const isPercent = measureOf(definition).axis.unit === '%';
  const none = {
    value: null,
    isPercent,
    levels: new Set<string>(),
    missed: new Set<string>(),
    isPartial: false,
    selfRating: null,
  };
  if (outcome.reason !== null) return { ...none, reason: outcome.reason };
  const measure = measureOf(definition);
  const score = measure.score(outcome.data);
  const opportunities = outcomesIn(outcome.data);
  // A single amount of a running total is no percentage of anything: what it adds up to is said by the goal’s decision.
  const value = definition.kind === 'cumulativeTotal' ? null : score.value;
  const facts = { ...none, value, reason: null, selfRating: selfRatingIn(definition, outcome.data) };
  const parts = partsIn(definition);
  const asked = new Set(opportunities.map(({ part }) => part));
  const isPartial = measure.required(outcome.data).length > 0 || parts.some(({ key }) => !asked.has(key));
  if (!('levels' in definition)) return { ...facts, isPartial };
  const right = successLevels(definition);
  const used = new Set(opportunities.map(({ outcome: key }) => key));
  const most = definition.levels.findLastIndex(({ key }) => used.has(key));
  const labels = new Map(parts.map(({ key, label }) => [key, label]));
  return {
    ...facts,
    isPartial,
    levels: new Set(definition.levels.slice(0, most + 1).map(({ label }) => plainName(label))),
    missed: new Set(
      opportunities.flatMap(({ part, outcome: key }) =>
        part === null || right.has(key) ? [] : [plainName(labels.get(part) ?? part)],
      ),
    ),
  };
}
