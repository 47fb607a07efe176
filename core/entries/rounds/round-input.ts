import { z } from 'zod';
import { clockTimeField } from '../../calendar/date-fields';

/** Goals that fit in a round. */
export const MOST_IN_ROUND = 40;

const MOST_FORMS = 5;

/** Several goals, of one student or more, that are observed in one go. */
export const roundInput = z.object({
  id: z.uuid(),
  name: z
    .string({ error: 'Say what the round is called.' })
    .trim()
    .min(1, { error: 'Say what the round is called.' })
    .max(60, { error: 'Keep the name to 60 characters.' }),
  /** When it is usually gone through; 1 is Monday. */
  weekday: z.number().int().min(1).max(7).nullable().default(null),
  startsAt: clockTimeField.nullable().default(null),
  goalIds: z
    .array(z.uuid())
    .min(1, { error: 'Choose at least one goal.' })
    .max(MOST_IN_ROUND, { error: `At most ${MOST_IN_ROUND} goals fit in a round.` }),
  /** Forms that are filled in for each of its students. */
  formIds: z
    .array(z.uuid())
    .max(MOST_FORMS, { error: `At most ${MOST_FORMS} forms.` })
    .default([]),
});
export type RoundInput = z.infer<typeof roundInput>;
