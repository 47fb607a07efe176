import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';

/** The days on which a student was away, from one to another, both included. */
export const absenceInput = z
  .object({ from: isoDateField, to: isoDateField })
  .refine(({ from, to }) => from <= to, { error: 'It ends after it begins.', path: ['to'] });
export type AbsenceInput = z.infer<typeof absenceInput>;

/** More than this at once is taken for a slip. */
export const MOST_DAYS_AWAY = 60;
