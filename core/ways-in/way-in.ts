import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';

/** What it takes to make a way in: careful by default, it shows neither notes, nor observers, nor behavior. */
export const wayInInput = z.object({
  id: z.uuid(),
  readerName: z
    .string({ error: 'Say who will read.' })
    .trim()
    .min(1, { error: 'Say who will read.' })
    .max(120, { error: 'Keep the name to 120 characters.' }),
  showsNotes: z.boolean().default(false),
  showsObservers: z.boolean().default(false),
  /** ABC notes and tallies of behavior. */
  showsBehavior: z.boolean().default(false),
  endsOn: isoDateField,
});
export type WayInInput = z.infer<typeof wayInInput>;
