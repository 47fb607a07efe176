import { hash, verify } from '@node-rs/argon2';
import { Invalid } from '../platform/failures';

// OWASP's smallest recommended setting for argon2id, from memory: 19 MiB, 2 passes, 1 lane.
const settings = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };

/** Hashes a password with argon2id and a salt of its own. */
export function hashPassword(password: string): Promise<string> {
  return hash(password, settings);
}

/** From 0, guessed at once, to 4; from 3 on it takes more than a hundred million guesses (from the package’s own words). */
const STRONG = 3;

/**
 * Refuses a password that is guessed soon: one of the most common ones, one made of them, or of what its owner is called.
 *
 * @param owner  what it must not be made of
 * @throws Invalid at `password`
 */
export async function expectStrong(
  { name, email, school }: { name?: string; email?: string; school?: string },
  password: string,
): Promise<void> {
  // Its lists are large, and are loaded when the first password is chosen.
  const [{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }] = await Promise.all([
    import('@zxcvbn-ts/core'),
    import('@zxcvbn-ts/language-common'),
  ]);
  const own = [name, email, school].flatMap((text) =>
    (text ? [text, ...text.split(/[\s@.]+/)] : []).map((word) => word.toLowerCase()),
  );
  const { score } = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs }).check(password, own);
  if (score < STRONG) {
    throw new Invalid({
      password: 'This is guessed soon. Choose a longer one: four words that do not belong together.',
    });
  }
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
