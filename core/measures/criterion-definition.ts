import { z } from 'zod';

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
    /** Points that weigh less (fewer chances, fewer minutes watched …) are passed over: neither for nor against. */
    minimumOpportunities: z.number().int().min(1).max(100).default(1),
    distinctLocations: z.number().int().min(1).max(10).default(1),
    distinctObservers: z.number().int().min(1).max(10).default(1),
  })
  .refine(({ rule }) => rule.kind === 'inARow' || rule.k <= rule.n, {
    error: 'A criterion cannot ask for more points than it looks at.',
    path: ['rule', 'k'],
  });
export type CriterionDefinition = z.infer<typeof criterionDefinition>;

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
