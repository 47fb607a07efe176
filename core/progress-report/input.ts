import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import { outsideKinds } from '../sharing/reader-kind';
import { richText } from '../words/rich-text';

/** The teacher’s own words in a draft: for the whole, and for each goal. */
export const draftWords = z.object({
  whole: richText,
  goals: z.record(z.uuid(), richText),
});
export type DraftWords = z.infer<typeof draftWords>;

export const draftInput = z.object({
  period: isoDateField,
  /** The version of the draft that was before the writer. */
  version: z.number().int().min(0),
  words: draftWords,
});
export type DraftInput = z.infer<typeof draftInput>;

export const issueInput = draftInput.extend({
  id: z.uuid(),
  /** Who may read it besides the team. */
  readers: z.array(z.enum(outsideKinds)).max(3),
  /** The report that it replaces, where one was issued for this period; null for the first. */
  replaces: z.uuid().nullable(),
});
export type IssueInput = z.infer<typeof issueInput>;

/** Files of groups can be fetched for so many days. */
export const BATCH_DAYS = 14;
