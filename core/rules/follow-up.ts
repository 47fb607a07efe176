import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import { addDays, type IsoDate, shortDate } from '../calendar/iso-date';
import { isSchoolDay, type SchoolCalendar } from '../calendar/school-days';

const idField = z.uuid({ error: 'This is not a known item.' });
const whatField = z
  .string({ error: 'Type what is to be done.' })
  .trim()
  .min(1, { error: 'Type what is to be done.' })
  .max(200, { error: 'Keep it to 200 characters.' });
const wordField = z.string().trim().max(500, { error: 'Keep it to 500 characters.' });
const personField = z.uuid({ error: 'Choose for whom.' });

/** A follow-up made by hand. */
export const followUpInput = z.object({
  id: idField,
  studentId: z.uuid({ error: 'Choose a student.' }),
  entryId: idField.nullable().default(null),
  what: whatField,
  forPerson: personField,
  dueOn: isoDateField,
  inReport: z.boolean().default(false),
});
export type FollowUpInput = z.infer<typeof followUpInput>;

const changed = { version: z.number().int().min(1) };

/** What is done with a follow-up: done with a word, handed on, put off, reopened. */
export const followUpChange = z.discriminatedUnion('what', [
  z.object({ what: z.literal('done'), word: wordField, ...changed }),
  z.object({ what: z.literal('handedOn'), forPerson: personField, word: wordField, ...changed }),
  z.object({ what: z.literal('putOff'), dueOn: isoDateField, word: wordField, ...changed }),
  z.object({ what: z.literal('reopened'), word: wordField, ...changed }),
]);
export type FollowUpChange = z.infer<typeof followUpChange>;

/**
 * The day on which something is due that is to be done in so many school days; 0 is the same day.
 *
 * @example dueAfter('2026-11-20', 1, everyWeekday) // '2026-11-23', the Monday after
 */
export function dueAfter(from: IsoDate, schoolDays: number, calendar: SchoolCalendar): IsoDate {
  let left = schoolDays;
  let date = from;
  // A calendar that is closed for good must not go on for ever.
  for (let tries = 0; left > 0 && tries < 400; tries++) {
    date = addDays(date, 1);
    if (isSchoolDay(date, calendar)) left--;
  }
  return date;
}

/**
 * A follow-up as the individual report says it, below the entry: without whom it is for.
 *
 * @example followUpSentence({ what: 'Call home', dueOn: '2026-11-25', isDone: false }) // 'Follow-up: Call home, due Nov 25.'
 */
export const followUpSentence = ({ what, dueOn, isDone }: { what: string; dueOn: IsoDate; isDone: boolean }): string =>
  `Follow-up: ${what}, ${isDone ? 'done' : `due ${shortDate(dueOn)}`}.`;
