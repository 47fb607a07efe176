import { z } from 'zod';
import { emailField } from '../people/account-input';
import { frequencies } from '../sharing/share-link';

export const messageKinds = [
  'entry',
  'digest',
  'byHand',
  'invitation',
  'locked',
  'issued',
  'rule',
  'reminder',
] as const;
export type MessageKind = (typeof messageKinds)[number];
export const kindWords: Record<MessageKind, string> = {
  entry: 'A new entry',
  digest: 'Entries of a day or a week',
  byHand: 'By hand',
  invitation: 'An invitation to a team',
  locked: 'A share link that was locked',
  issued: 'A report that was issued',
  rule: 'A rule that was fulfilled',
  reminder: 'A follow-up that is due',
};

export const messageStates = [
  'waiting',
  'held',
  'sending',
  'sent',
  'bounced',
  'uncertain',
  'stopped',
  'failed',
  'notSetUp',
] as const;
export type MessageState = (typeof messageStates)[number];
export const stateWords: Record<MessageState, { label: string; about: string }> = {
  waiting: { label: 'Waiting', about: 'leaves shortly' },
  held: { label: 'Held for tomorrow', about: 'the daily limit is reached' },
  sending: { label: 'On its way', about: 'handed to the mail server just now' },
  sent: { label: 'Sent', about: 'the mail server has taken it' },
  bounced: { label: 'Bounced', about: 'the mail server would not take it' },
  uncertain: { label: 'Delivery unknown', about: 'we stopped while it was being handed over' },
  stopped: { label: 'Not sent', about: 'it was stopped before it left' },
  notSetUp: { label: 'Not sent: email is not set up', about: 'no mail server is set up, so it was not sent' },
  failed: { label: 'Failed', about: 'we could not hand it over, however often we tried' },
};

/** How often a reader by a share link is told. */
export const frequencyInput = z
  .object({ id: z.uuid(), email: emailField.optional(), frequency: z.enum(frequencies) })
  .refine(({ email, frequency }) => frequency === 'byHand' || email, {
    error: 'Without an address nothing can be sent.',
    path: ['email'],
  });
export type FrequencyInput = z.infer<typeof frequencyInput>;

/** A message written by hand. */
export const letterInput = z.object({
  id: z.uuid(),
  linkId: z.uuid({ error: 'Choose to whom.' }),
  subject: z
    .string({ error: 'Write a subject.' })
    .trim()
    .min(1, { error: 'Write a subject.' })
    .max(150, { error: 'Keep the subject to 150 characters.' }),
  body: z
    .string({ error: 'Write something first.' })
    .trim()
    .min(1, { error: 'Write something first.' })
    .max(5000, { error: 'Keep it to 5,000 characters.' }),
});
export type LetterInput = z.infer<typeof letterInput>;

/** After these waits, in minutes, a message that could not be handed over is tried again; then it comes back. */
const RETRY_MINUTES = [1, 5, 15, 60, 240];

/**
 * How long to wait after a try that failed for a reason that may pass.
 *
 * @param attempts  how many there were, at least 1
 * @returns minutes; null when it is time to give up
 */
export const retryAfter = (attempts: number): number | null => RETRY_MINUTES[attempts - 1] ?? null;
