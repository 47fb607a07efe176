import { z } from 'zod';

/** A PIN: short enough to be typed with one thumb. Tries are few, so that it cannot be guessed. */
export const pinField = z
  .string({ error: 'Type 4 to 8 digits.' })
  .trim()
  .regex(/^\d{4,8}$/, { error: 'Type 4 to 8 digits.' })
  .refine((pin) => !/^(\d)\1+$/.test(pin), { error: 'Not the same digit again and again.' });

/** Whoever sets up the school has one of so many digits. */
export const ADMIN_PIN_DIGITS = 6;

/** A new PIN, with the password of whose it is. */
export const pinInput = z.object({
  pin: pinField,
  password: z.string({ error: 'Type your password.' }).min(1, { error: 'Type your password.' }).max(200),
});
