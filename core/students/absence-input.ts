import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';

/** A school day on which a student was away, from one day to another; the same day where it was one. */
export const absenceInput = z
  .object({ from: isoDateField, to: isoDateField })
  .refine(({ from, to }) => from <= to, { error: 'It ends after it begins.', path: ['to'] });
export type AbsenceInput = z.infer<typeof absenceInput>;

/** More than this at once is taken for a slip. */
export const MOST_DAYS_AWAY = 60;
