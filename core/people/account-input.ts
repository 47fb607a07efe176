import { z } from 'zod';

/** An email address as it is typed. */
export const emailField = z
  .string({ error: 'Type an email address.' })
  .trim()
  .max(200, { error: 'Keep the address to 200 characters.' })
  .pipe(z.email({ error: 'This does not look like an email address.' }));

/** What is asked for of an account. */
export const accountFields = {
  name: z
    .string({ error: 'Type your name.' })
    .trim()
    .min(1, { error: 'Type your name.' })
    .max(120, { error: 'Keep the name to 120 characters.' }),
  work: z.string().trim().max(80, { error: 'Keep it to 80 characters.' }).default(''),
  password: z
    .string({ error: 'Choose a password.' })
    .min(12, { error: 'A password has 12 characters or more.' })
    .max(200, { error: 'Keep the password to 200 characters.' }),
  again: z.string({ error: 'Type it once more.' }),
};

export type AccountFieldsInput = { name: string; work: string; password: string };

export const isSameTwice = [
  ({ password, again }: { password: string; again: string }): boolean => password === again,
  // Zod wants a path that may be added to.
  { error: 'The two are not the same.', path: ['again'] as string[] },
] as const;

/** What it takes to make an account. */
export const accountInput = z.object(accountFields).refine(...isSameTwice);

/** A password that somebody chooses who forgot theirs, or was given a code. */
export const newPasswordInput = z
  .object({ password: accountFields.password, again: accountFields.again })
  .refine(...isSameTwice);

const currentPassword = z.string({ error: 'Type your password.' }).min(1, { error: 'Type your password.' }).max(200);

/** Another password, with the one there was. */
export const passwordChangeInput = z
  .object({ current: currentPassword, password: accountFields.password, again: accountFields.again })
  .refine(...isSameTwice);

/** What somebody is called, and what they do. */
export const ownNameInput = z.object({ name: accountFields.name, work: accountFields.work });

/** Another address to sign in with; a message there proves it. */
export const emailChangeInput = z.object({ email: emailField, current: currentPassword });

/** Whom one asks to join. */
export const whoField = z
  .string({ error: 'Say who it is.' })
  .trim()
  .min(1, { error: 'Say who it is.' })
  .max(120, { error: 'Keep the name to 120 characters.' });

/** Somebody whom an administrator asks to join the school. */
export const joinInput = z.object({
  id: z.uuid(),
  name: whoField,
  email: emailField,
  isAdmin: z.boolean().default(false),
});
export type JoinInput = z.infer<typeof joinInput>;
