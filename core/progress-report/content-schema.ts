import { z } from 'zod';
import { richText } from '../words/rich-text';
import type { ProgressReport } from './content';

const day = z.iso.date();
const at = z.object({ on: day, value: z.number() });
const line = z.tuple([at, at]);
const point = at.extend({ said: z.string(), isPartial: z.boolean().optional(), isBeyond: z.boolean().optional() });

const graph = z.object({
  runs: z.array(z.array(point)),
  aimLine: line.nullable(),
  trend: line.nullable(),
  trendBand: z.array(z.object({ on: day, low: z.number(), high: z.number() })).optional(),
  dualCriterion: z.array(line).optional(),
  phases: z.array(z.object({ on: day, label: z.string() })),
  ...{ from: day, to: day, target: z.number().nullable(), isUp: z.boolean(), max: z.number() },
  ...{ unit: z.string(), caption: z.string() },
});

const goal = z.object({
  ...{ goalId: z.uuid(), number: z.string(), shortName: z.string(), wording: z.string(), criterion: z.string() },
  ...{ baseline: z.string().nullable(), now: z.string().nullable(), target: z.string(), way: z.string().nullable() },
  decision: z.object({ label: z.string(), mark: z.string(), sentence: z.string(), means: z.string().optional() }),
  further: z.array(z.tuple([z.string(), z.string()])).optional(),
  ...{ evidence: z.string(), inPeriod: z.number().int(), graph: graph.nullable(), words: richText },
});

/** A progress report as it is frozen, for what arrives from another installation. */
export const progressReport = z.object({
  student: z.object({ name: z.string(), shortName: z.string(), grade: z.string(), groups: z.array(z.string()) }),
  ...{ schoolName: z.string(), caseManager: z.string(), plan: z.object({ startsOn: day, endsOn: day }) },
  period: z.object({ label: z.string(), from: day, to: day }),
  ...{ goals: z.array(goal), behavior: z.array(z.string()), words: richText, leftOut: z.array(z.string()).optional() },
}) satisfies z.ZodType<ProgressReport>;
