import { z } from 'zod';

/** What the stream says of a change: of whom, of what, and whether it is one’s own. */
export const liveChanged = z.object({
  studentId: z.string(),
  what: z.enum(['steps', 'entries', 'feedback']),
  isMine: z.boolean(),
});
export type LiveChanged = z.infer<typeof liveChanged>;
