import { z } from 'zod';

/** An email address as it is typed. */
export const emailField = z
  .string({ error: 'Type an email address.' })
  .trim()
  .max(200, { error: 'Keep the address to 200 characters.' })
  .pipe(z.email({ error: 'This does not look like an email address.' }));

/** What it takes to make an account. */
export const accountFields = {
  name: z
    .string({ error: 'Type your name.' })
    .trim()
    .min(1, { error: 'Type your name.' })
    .max(120, { error: 'Keep the name to 120 characters.' }),
  work: z.string().trim().max(80, { error: 'Keep it to 80 characters.' }).default(''),
  password: z
    .string({ error: 'Choose a password.' })
    .min(10, { error: 'A password has 10 characters or more.' })
    .max(200, { error: 'Keep the password to 200 characters.' }),
  again: z.string({ error: 'Type it once more.' }),
};
export const isSameTwice = [
  ({ password, again }: { password: string; again: string }): boolean => password === again,
  // Zod wants a path that may be added to.
  { error: 'The two are not the same.', path: ['again'] as string[] },
] as const;
