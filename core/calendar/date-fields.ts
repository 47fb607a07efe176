import { z } from 'zod';
import { dayNumber, isoDate } from './iso-date';

function isRealDate(text: string): boolean {
  try {
    return isoDate(dayNumber(text)) === text;
  } catch {
    return false;
  }
}

/** A calendar date as forms and files give it. */
export const isoDateField = z
  .string({ error: 'Choose a date.' })
  .refine(isRealDate, { error: 'Choose a date, as year, month and day.' });

/** A time of day as `HH:MM`. */
export const clockTimeField = z
  .string({ error: 'Choose a time.' })
  .regex(/^([01]\d|2[0-3]):[0-5]\d$/, { error: 'Choose a time, as hours and minutes.' });
