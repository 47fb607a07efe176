import { z } from 'zod';
import { schoolInput } from './school-input';

export const MOST_CALENDAR_BYTES = 2 * 1024 * 1024;

/** Closures that were found in a calendar's file, of which some are taken over. */
export const closuresInput = z.object({
  closures: z
    .array(
      schoolInput.shape.closures.unwrap().element.extend({
        /** Whether it is taken over. */
        isWanted: z.boolean().default(false),
      }),
    )
    .max(200)
    .default([]),
});
export type ClosuresInput = z.infer<typeof closuresInput>;
export type FoundClosure = Omit<ClosuresInput['closures'][number], 'isWanted'>;
