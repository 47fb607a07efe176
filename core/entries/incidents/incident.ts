import { z } from 'zod';
import { clockTimeField, isoDateField } from '../../calendar/date-fields';

/** Names, each once. */
const names = z
  .array(z.string().trim().min(1))
  .max(20)
  .transform((list) => [...new Set(list)]);

/** One behavior incident: what came before, what it was, what followed. The names are those of the student's choices. */
export const incidentDefinition = z.object({
  on: isoDateField,
  time: clockTimeField,
  behaviors: names.refine((list) => list.length > 0, { error: 'Say which behavior it was.' }),
  antecedents: names,
  consequences: names,
  location: z.string().nullable().default(null),
  /** Who noted it. */
  observer: z.string().nullable().default(null),
  /** Hypotheses of the observer. */
  functions: names.default([]),
  /** How long it lasted, in seconds. */
  seconds: z.number().positive({ error: 'It lasted more than no time.' }).max(86_400).nullable().default(null),
  /** On the student's own scale, each step with its words. */
  intensity: z.number().int().min(1).max(10).nullable().default(null),
});
export type Incident = z.infer<typeof incidentDefinition>;

/**
 * A stretch of watching for one behavior: how often it occurred, in how many minutes. “Observed, none occurred” is a count
 * of 0, and makes a rate what it is.
 */
export const watchedStretch = z.object({
  on: isoDateField,
  part: z.string().nullable().default(null),
  behavior: z.string().min(1),
  count: z.number().int().min(0, { error: 'A count cannot be below nothing.' }),
  minutes: z.number().positive({ error: 'Say how long you watched.' }),
});
export type WatchedStretch = z.infer<typeof watchedStretch>;

/** Fewer incidents than this say nothing. */
export const LEAST_INCIDENTS = 5;
