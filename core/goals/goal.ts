import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import type { IsoDate } from '../calendar/iso-date';
import { type CriterionDefinition, criterionDefinition } from '../measures/criterion-definition';
import { measureDefinition } from '../measures/measure';
import { hasDistinctKeys, type Named, named } from '../measures/named';

export const phaseDefinition = z.object({
  label: z.string().trim().min(1).max(60),
  startsOn: isoDateField,
  /** The stretch before anything was changed; its points make the baseline and do not meet the criterion. */
  isBaseline: z.boolean().default(false),
  /** What adults do in it, step by step, where it is a support whose fidelity is watched. */
  steps: z.array(named).max(12).refine(hasDistinctKeys, { error: 'Two steps have the same key.' }).optional(),
});
export type Phase = z.infer<typeof phaseDefinition>;

/** The steps of the support that is in place on a day: those of the phase that the day lies in. */
export function supportStepsOn(phases: readonly Phase[], on: IsoDate): Named[] {
  return phases.findLast(({ startsOn }) => startsOn <= on)?.steps ?? [];
}

/** What the computation needs to know of a goal. */
export const goalDefinition = z.object({
  measure: measureDefinition,
  criterion: criterionDefinition,
  pointPer: z.enum(['day', 'session']),
  /** Where it began, when the plan states it; else the baseline phase tells. */
  baseline: z.object({ value: z.number(), on: isoDateField }).nullable(),
  target: z.number(),
  targetOn: isoDateField,
  /** Since when the target is what it is, where it was another before. */
  targetSince: isoDateField.nullish(),
  /** The first day on which observations were expected. */
  startsOn: isoDateField,
  /** School days that should at most lie between two observations, when the plan says. */
  plannedGap: z.number().int().min(1).max(60).nullable(),
  /** In order of date. */
  phases: z.array(phaseDefinition),
});
export type GoalDefinition = z.infer<typeof goalDefinition>;

export type Direction = 'increase' | 'decrease';

/** 1 where higher is better, −1 where lower is. */
export const signOf = (direction: Direction) => (direction === 'increase' ? 1 : -1);

/** Which way is better. */
export function directionOf(criterion: CriterionDefinition): Direction {
  return criterion.comparison === 'atLeast' ? 'increase' : 'decrease';
}
