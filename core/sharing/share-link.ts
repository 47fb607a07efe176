import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import { emailField } from '../people/account-input';
import { type OutsideKind, outsideKindField } from './reader-kind';

/** When a reader is told of new entries. */
export const frequencies = ['byHand', 'entry', 'daily', 'weekly'] as const;
export type Frequency = (typeof frequencies)[number];
export const frequencyWords: Record<Frequency, string> = {
  byHand: 'only by hand',
  entry: 'at each entry',
  daily: 'once a day',
  weekly: 'once a week',
};

/** What a reader of each kind usually needs a report for, as a record of disclosures names it. */
export const usualPurposes: Record<OutsideKind, string> = {
  family: 'To follow their child’s progress',
  student: 'To follow their own progress',
  specialist: 'To advise on the student’s services',
};

/** What it takes to make a share link. What it shows is said by the rule for its kind of reader. */
export const shareLinkInput = z.object({
  id: z.uuid(),
  readerName: z
    .string({ error: 'Say who will read.' })
    .trim()
    .min(1, { error: 'Say who will read.' })
    .max(120, { error: 'Keep the name to 120 characters.' }),
  kind: outsideKindField,
  /** What they need it for; the usual one where it is not said. */
  purpose: z.string().trim().max(200, { error: 'Keep the purpose to 200 characters.' }).optional(),
  endsOn: isoDateField,
  /** Told to the reader by another way than the link; none when empty. */
  passcode: z
    .string()
    .trim()
    .min(6, { error: 'A passcode has 6 characters or more.' })
    .max(60, { error: 'Keep the passcode to 60 characters.' })
    .optional(),
});
export type ShareLinkInput = z.infer<typeof shareLinkInput>;

/** A report shared in one go: the link, where messages go, and whether one leaves at once. */
export const shareNowInput = shareLinkInput
  .extend({ email: emailField.optional(), sendsNow: z.boolean().default(false) })
  .refine(({ email, sendsNow }) => email || !sendsNow, {
    error: 'To send it now, type an email address.',
    path: ['email'],
  });
export type ShareNowInput = z.infer<typeof shareNowInput>;

/** Wrong passcodes before a share link is locked, and the case manager told. */
export const LOCKS_AFTER = 8;
/** Wrong passcodes that may be slips: after these each one makes the next wait longer. */
const SLIPS = 3;

/**
 * How long after a wrong passcode the next may be tried: not at all for a few slips, then 5, 10, 20 … seconds.
 *
 * @param wrong  how many were wrong in a row
 * @returns seconds
 * @example waitAfter(4) // 5
 */
export function waitAfter(wrong: number): number {
  return wrong <= SLIPS ? 0 : 5 * 2 ** (wrong - SLIPS - 1);
}
