import { z } from 'zod';
import { isTimeZone } from '../calendar/zone';
import { accountFields, emailField, isSameTwice } from './account-input';

/** What it takes to begin with an empty installation: the code that the start command printed, the school, its administrator. */
export const beginningInput = z
  .object({
    code: z.string({ error: 'Type the code that the start command printed.' }).trim().min(1).max(40),
    school: z
      .string({ error: 'Type the school’s name.' })
      .trim()
      .min(1, { error: 'Type the school’s name.' })
      .max(60, { error: 'Keep the name to 60 characters.' }),
    timeZone: z
      .string({ error: 'Choose a time zone.' })
      .refine(isTimeZone, { error: 'Choose a time zone from the list.' }),
    email: emailField,
    ...accountFields,
  })
  .refine(...isSameTwice);
export type BeginningInput = z.infer<typeof beginningInput>;
