import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';

/** Without another administrator it is done after so many days. */
export const WAIT_DAYS = 7;
/** Entries of so many days make one think again. */
export const RECENT_DAYS = 30;
/** Within so many days a family that asks is shown the record (34 CFR 99.10(b)). */
export const SHOW_DAYS = 45;

/** The name of whose record it is, typed: nobody is chosen by a slip. */
export const typedName = z.string({ error: 'Type the name.' }).trim().min(1, { error: 'Type the name.' }).max(200);

/** What is said of a record that is to be destroyed (34 CFR 300.624). */
export const destructionInput = z.object({
  id: z.uuid(),
  studentId: z.uuid({ error: 'Choose a student.' }),
  reason: z
    .string({ error: 'Say why.' })
    .trim()
    .min(3, { error: 'Say why.' })
    .max(400, { error: 'Keep it to 400 characters.' }),
  toldOn: isoDateField,
  toldHow: z
    .string({ error: 'Say how.' })
    .trim()
    .min(3, { error: 'Say how.' })
    .max(200, { error: 'Keep it to 200 characters.' }),
  typedName,
});
export type DestructionInput = z.infer<typeof destructionInput>;

/** That a family asks to see the record. */
export const recordRequestInput = z.object({
  id: z.uuid(),
  askedBy: z
    .string({ error: 'Say who asks.' })
    .trim()
    .min(1, { error: 'Say who asks.' })
    .max(120, { error: 'Keep it to 120 characters.' }),
  askedOn: isoDateField,
});
export type RecordRequestInput = z.infer<typeof recordRequestInput>;
