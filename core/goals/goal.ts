import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import { measureDefinition } from '../measures/measure';

/**
 * When a goal counts as reached: the value, in `k` of the last `n` points or in `n` in a row, and what else must hold.
 * A point is a day or a session, as the goal says.
 */
export const criterionDefinition = z
  .object({
    comparison: z.enum(['atLeast', 'atMost']),
    value: z.number(),
    rule: z.discriminatedUnion('kind', [
      z.object({
        kind: z.literal('ofLast'),
        k: z.number().int().min(1).max(30),
        n: z.number().int().min(1).max(30),
      }),
      z.object({ kind: z.literal('inARow'), n: z.number().int().min(1).max(30) }),
    ]),
    /** Points with fewer opportunities are passed over: neither for nor against. */
    minimumOpportunities: z.number().int().min(1).max(100).default(1),
    distinctSettings: z.number().int().min(1).max(10).default(1),
    distinctObservers: z.number().int().min(1).max(10).default(1),
  })
  .refine(({ rule }) => rule.kind === 'inARow' || rule.k <= rule.n, {
    error: 'A criterion cannot ask for more points than it looks at.',
    path: ['rule', 'k'],
  });
export type CriterionDefinition = z.infer<typeof criterionDefinition>;

export const phaseDefinition = z.object({
  label: z.string().trim().min(1).max(60),
  startsOn: isoDateField,
  /** The stretch before anything was changed; its points make the baseline and do not meet the criterion. */
  isBaseline: z.boolean(),
});
export type Phase = z.infer<typeof phaseDefinition>;

/** What the computation needs to know of a goal. */
export const goalDefinition = z.object({
  measure: measureDefinition,
  criterion: criterionDefinition,
  pointPer: z.enum(['day', 'session']),
  /** Where it began, when the plan states it; else the baseline phase tells. */
  baseline: z.object({ value: z.number(), on: isoDateField }).nullable(),
  target: z.number(),
  targetOn: isoDateField,
  /** The first day on which observations were expected. */
  startsOn: isoDateField,
  /** School days that should at most lie between two observations, when the plan says. */
  plannedGap: z.number().int().min(1).max(60).nullable(),
  /** In order of date. */
  phases: z.array(phaseDefinition),
});
export type GoalDefinition = z.infer<typeof goalDefinition>;

export type Direction = 'increase' | 'decrease';

/** Which way is better. */
export function directionOf(criterion: CriterionDefinition): Direction {
  return criterion.comparison === 'atLeast' ? 'increase' : 'decrease';
}
