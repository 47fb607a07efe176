import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import { gradeField } from './grade';

const nameField = (what: string, longest: number) =>
  z
    .string({ error: `Type the ${what}.` })
    .trim()
    .min(1, { error: `Type the ${what}.` })
    .max(longest, { error: `Keep the ${what} to ${longest} characters.` });

const flag = z
  .boolean()
  .optional()
  .transform((value) => value === true);

/** A student as the roster has them. */
export const studentInput = z.object({
  id: z.uuid(),
  firstName: nameField('first name', 60),
  lastName: nameField('last name', 60),
  /** How the student is called on screens and in reports; “Ansel D.” unless it is given. */
  shortName: z.string().trim().max(60).optional(),
  initials: z.string().trim().max(4, { error: 'Initials have at most 4 letters.' }).optional(),
  grade: gradeField,
  groupIds: z.array(z.uuid()).max(20).default([]),
  caseManagerId: z.uuid({ error: 'Choose a case manager.' }),
  /** It was asked whether this is a namesake of somebody on the roster, and it is. */
  isSomeoneElse: flag,
});
export type StudentInput = z.infer<typeof studentInput>;

const firstLetter = (text: string) => (Array.from(text)[0] ?? '').toLocaleUpperCase();

/**
 * What a student is called where the roster gives no other.
 *
 * @example usualNames('Ansel', 'Dorsey') // { shortName: 'Ansel D.', initials: 'AD' }
 */
export function usualNames(firstName: string, lastName: string): { shortName: string; initials: string } {
  const last = firstLetter(lastName);
  return { shortName: `${firstName} ${last}.`, initials: firstLetter(firstName) + last };
}

/** The plan's dates, and the ends of its reporting periods. */
export const planInput = z
  .object({
    startsOn: isoDateField,
    endsOn: isoDateField,
    /** One that has an id is one that was there: what was written for it comes along when its end is moved. */
    periods: z
      .array(z.object({ id: z.uuid().optional(), label: nameField('name of the period', 40), endsOn: isoDateField }))
      .max(12)
      .default([]),
  })
  .superRefine(({ startsOn, endsOn, periods }, context) => {
    const refuse = (message: string, path: (string | number)[]) =>
      context.addIssue({ code: 'custom', message, path, input: periods });
    if (endsOn <= startsOn) refuse('The plan ends after it starts.', ['endsOn']);
    for (const [i, period] of periods.entries()) {
      if (period.endsOn < startsOn || period.endsOn > endsOn) {
        refuse('This lies outside of the plan.', ['periods', i, 'endsOn']);
      }
      if (periods.findIndex((other) => other.endsOn === period.endsOn) < i) {
        refuse('Another period ends on this day.', ['periods', i, 'endsOn']);
      }
    }
  });
export type PlanInput = z.infer<typeof planInput>;
