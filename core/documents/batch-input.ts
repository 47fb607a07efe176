import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';

const students = z.array(z.uuid(), { error: 'Choose at least one student.' });

/** Which documents of which students, as their form sends it. */
export const batchInput = z
  .object({
    id: z.uuid(),
    students: students.min(1, { error: 'Choose at least one student.' }).max(500),
    what: z.enum(['progress', 'running']),
    length: z.enum(['short', 'full']),
    /** Of goals; with no area and no goal chosen it is all goals, and behavior. */
    areas: z.array(z.string().max(60)).max(50).default([]),
    /** One by one, beside those of the areas. */
    goals: z.array(z.uuid()).max(500).default([]),
    from: isoDateField.optional(),
    to: isoDateField.optional(),
    order: z.enum(['group', 'name']),
    as: z.enum(['one', 'each']),
  })
  .superRefine(({ from, to }, context) => {
    if (!from || !to || from <= to) return;
    const message = 'The last day cannot lie before the first.';
    context.addIssue({ code: 'custom', message, path: ['to'], input: to });
  });
export type BatchWanted = z.infer<typeof batchInput>;
