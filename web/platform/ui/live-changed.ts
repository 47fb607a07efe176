import { z } from 'zod';

const liveChanged = z.object({
  studentId: z.string(),
  what: z.enum(['steps', 'entries', 'feedback']),
  isMine: z.boolean(),
});
/** What the stream says of a change: of whom, of what, and whether it is one’s own. */
export type LiveChanged = z.infer<typeof liveChanged>;

/** A change as the stream says it; null for what is none, such as a beat. */
export const readLive = (data: unknown): LiveChanged | null => liveChanged.safeParse(data).data ?? null;
