import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';

export const retirementInput = z.object({
  goalId: z.uuid(),
  on: isoDateField,
  how: z.enum(['met', 'discontinued', 'replaced'], { error: 'Say why it is retired.' }),
  /** The goal that takes its place, when it is replaced. */
  replacedBy: z.uuid().nullable().default(null),
  note: z.string().trim().max(400, { error: 'Keep this to 400 characters.' }).default(''),
});
export type RetirementInput = z.infer<typeof retirementInput>;

/** Why a goal is no longer worked on. */
export const retirementWords = {
  met: 'Met',
  discontinued: 'Discontinued',
  replaced: 'Replaced by another goal',
} as const;
