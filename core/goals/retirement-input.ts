import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import { retirements } from './retirement-words';

export const retirementInput = z.object({
  goalId: z.uuid(),
  on: isoDateField,
  how: z.enum(retirements, { error: 'Say why it is retired.' }),
  /** The goal that takes its place, when it is replaced. */
  replacedBy: z.uuid().nullable().default(null),
  note: z.string().trim().max(400, { error: 'Keep this to 400 characters.' }).default(''),
});
export type RetirementInput = z.infer<typeof retirementInput>;
