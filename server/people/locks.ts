import type { Database } from '../platform/db/database';
import { countTry, uncountTry } from './attempts';
import { forgetPinTries, passwordOpens, pinIsRight, tryPin } from './pins';
import type { SignedIn } from './sessions';

/** Locks a sign-in: nothing is shown or taken in it until whose it is has opened it again. */
export async function lockSession(db: Database, sessionId: string, now: Date): Promise<void> {
  await db('sign_in_sessions').where({ id: sessionId, locked_at: null }).update({ locked_at: now });
}

/**
 * Opens a locked sign-in by its person's PIN, or their password. Each try is counted first; after a few wrong ones the sign-in ends,
 * and only the password on the sign-in page leads in.
 */
export async function unlockSession(
  db: Database,
  { sessionId, person }: Pick<SignedIn, 'sessionId' | 'person'>,
  secret: string,
  now: Date,
): Promise<'open' | 'wrong' | 'over'> {
  if ((await countTry(db, 'pin', sessionId)) !== null) {
    await db('sign_in_sessions').where({ id: sessionId }).delete();
    return 'over';
  }
  // A PIN is tried as often as it may be on all devices together; a password opens all the same.
  const isPin = (await tryPin(db, person.id, now)).isOpen && (await pinIsRight(db, person.id, secret));
  if (!isPin && !(await passwordOpens(db, person.id, secret))) return 'wrong';
  await forgetPinTries(db, person.id);
  await uncountTry(db, 'pin', sessionId);
  await db('sign_in_sessions').where({ id: sessionId }).update({ locked_at: null, seen_at: now });
  return 'open';
}
