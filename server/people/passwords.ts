import { hash, verify } from '@node-rs/argon2';

// OWASP's smallest recommended setting for argon2id, from memory: 19 MiB, 2 passes, 1 lane.
const settings = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Hashes a password with argon2id and a salt of its own. */
export function hashPassword(password: string): Promise<string> {
  return hash(password, settings);
}

let nobody: Promise<string> | undefined;

/**
 * Whether a password is right. For an unknown account it does the same work, so that the time taken tells nothing.
 *
 * @param stored  the stored hash, or null when there is no such account
 */
export async function passwordIsRight(stored: string | null, password: string): Promise<boolean> {
  nobody ??= hashPassword('no account has this password');
  const isRight = await verify(stored ?? (await nobody), password);
  return stored !== null && isRight;
}
