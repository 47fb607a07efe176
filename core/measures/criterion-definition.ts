import { z } from 'zod';

const fields = {
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
  /** So many places, and observers, each of which must pass on its own points. */
  distinctLocations: z.number().int().min(1).max(10).default(1),
  distinctObservers: z.number().int().min(1).max(10).default(1),
};
const least = z
  .number()
  .int({ error: 'A whole number.' })
  .min(1, { error: 'At least 1.' })
  .max(100, { error: 'At most 100.' });
type Rule = { rule: { kind: 'ofLast'; k: number; n: number } | { kind: 'inARow'; n: number } };
const canBeReached = ({ rule }: Rule) => rule.kind === 'inARow' || rule.k <= rule.n;
const cannot = { error: 'A criterion cannot ask for more points than it looks at.', path: ['rule', 'k'] };

/**
 * When a goal counts as reached: the value, in `k` of the last `n` points or in `n` in a row, and what else must hold.
 * A point is a day or a session, as the goal says.
 */
export const criterionDefinition = z
  .object({
    ...fields,
    /** Points that weigh less (fewer opportunities, fewer minutes watched …) are passed over: neither for nor against. */
    minimumOpportunities: least.default(1),
  })
  .refine(canBeReached, cannot);
export type CriterionDefinition = z.infer<typeof criterionDefinition>;

/** A criterion as it is written: where the minimum is left blank, it is the usual one of the measure. */
export const criterionInput = z
  .object({ ...fields, minimumOpportunities: least.nullable().default(null) })
  .refine(canBeReached, cannot);
export type CriterionInput = z.infer<typeof criterionInput>;

export type Comparison = CriterionDefinition['comparison'];

/** Three of the last four points: what a new goal's criterion begins with (common practice). */
export function usualCriterion(comparison: Comparison, value: number): CriterionDefinition {
  return {
    comparison,
    value,
    rule: { kind: 'ofLast', k: 3, n: 4 },
    minimumOpportunities: 1,
    distinctLocations: 1,
    distinctObservers: 1,
  };
}
