import type { Database } from '../platform/db/database';
import { countTry, type Limit, uncountTry } from './attempts';
import { type Account, personByPassword } from './people';
import { hashToken, newToken } from './tokens';

export interface Credentials {
  email: string;
  password: string;
  /** Where the request came from. */
  address: string;
  /** What the browser carries that somebody has signed in from before; null when it carries nothing. */
  device: string | null;
}

export type SignInAnswer = { person: Account } | { waitMinutes: number } | { wrong: true };

/**
 * Holds an email address and a password against the accounts. Each try is counted before the password is looked at: of a hundred
 * at the same moment no more are looked at than one after the other. A browser that this person has signed in from before has
 * tries of its own, so that nobody else can shut them out.
 */
export async function signIn(
  db: Database,
  { email, password, address, device }: Credentials,
  now: Date,
): Promise<SignInAnswer> {
  const account = email.toLowerCase();
  const isKnown = device !== null && (await isKnownDevice(db, account, device));
  const tries: [Limit, ...string[]][] = isKnown
    ? [['signInDevice', account, device]]
    : [
        ['signInPair', account, address],
        ['signInAccount', account],
        ['signInAddress', address],
      ];
  for (const [limit, ...of] of tries) {
    const waitMinutes = await countTry(db, limit, ...of);
    if (waitMinutes !== null) return { waitMinutes };
  }
  const person = await personByPassword(db, email, password);
  if (!person) return { wrong: true };
  for (const [limit, ...of] of tries) await uncountTry(db, limit, ...of);
  if (isKnown)
    await db('known_devices')
      .where({ token_hash: hashToken(device), person_id: person.id })
      .update({ seen_at: now });
  return { person };
}

async function isKnownDevice(db: Database, account: string, device: string): Promise<boolean> {
  const row = await db('known_devices as d')
    .join('people as p', 'p.id', 'd.person_id')
    .where({ 'd.token_hash': hashToken(device) })
    .whereRaw('lower(p.email) = ?', [account])
    .first('p.id');
  return row !== undefined;
}

/**
 * Remembers a browser in which somebody has signed in.
 *
 * @returns what the browser is to carry from now on: what it carried, where somebody is known by that
 */
export async function rememberDevice(
  db: Database,
  personId: string,
  device: string | null,
  now: Date,
): Promise<string> {
  // On a shared tablet several people are known by one token; a token that nobody is known by is not taken over.
  const isOurs =
    device !== null &&
    (await db('known_devices')
      .where({ token_hash: hashToken(device) })
      .first('person_id'));
  const token = isOurs ? device : newToken();
  await db('known_devices')
    .insert({ token_hash: hashToken(token), person_id: personId, seen_at: now })
    .onConflict(['token_hash', 'person_id'])
    .merge(['seen_at']);
  return token;
}
