import { wallTime } from '~/core/calendar/zone';
import type { AccountFieldsInput } from '~/core/people/account-input';
import type { Database } from '../platform/db/database';
import { Invalid, NotAllowed, NotFound } from '../platform/failures';
import { writeChange } from '../school/changes';
import { type FoundLink, findAccountLink } from './account-links';
import { ownAccount } from './own-account';
import { expectStrong, hashPassword } from './passwords';

/** What was asked, as far as joining needs it. */
type Asked = Pick<FoundLink, 'id' | 'schoolId' | 'timeZone' | 'name' | 'email' | 'isAdmin'>;

/**
 * Joins the staff of a school, once. Whoever has an account signs in first: the address alone makes nobody its owner. Where there is none
 * it is made; where its address was never proven, and this link came to the address, its owner takes it over with a password of their own.
 *
 * @param account  what it takes to make an account; null for someone who has one
 * @param signedIn  who is signed in; null when nobody is
 * @returns the person
 * @throws NotFound for a link that is over or used; NotAllowed while they are not signed in; Invalid
 */
export async function joinSchool(
  db: Database,
  token: string,
  { account, signedIn }: { account: AccountFieldsInput | null; signedIn: string | null },
  now: Date,
): Promise<string> {
  const asked = await findAccountLink(db, token, now);
  if (asked?.kind !== 'join') throw new NotFound('No such link.');
  if (account) await expectStrong({ ...account, email: asked.email, school: asked.schoolName }, account.password);
  const passwordHash = account && (await hashPassword(account.password));
  return db.transaction(async (trx) => {
    const found = await findAccountLink(trx, token, now, { lock: true });
    if (!found) throw new NotFound('No such link.');
    const { schoolId } = found;
    const isSignedIn = signedIn !== null && signedIn === found.accountId;
    let personId = found.accountId;
    if (!personId || (!found.isProven && !found.isReadOut && !isSignedIn)) {
      if (!account || !passwordHash) throw new Invalid({ password: 'Choose a password.' });
      personId = await ownAccount(trx, found, { ...account, passwordHash }, { of: { schoolId }, now });
    } else if (!isSignedIn) throw new NotAllowed('Sign in with this account first.');
    await enterSchool(trx, found, personId, now);
    return personId;
  });
}

/** Makes somebody who was asked to join one of the school's staff, in the caller's transaction: what was asked is answered. */
export async function enterSchool(trx: Database, found: Asked, personId: string, now: Date): Promise<void> {
  const { schoolId, isAdmin } = found;
  // Whoever answers from the mailbox has shown that the address is theirs; so has whom an administrator handed a code to, where no mail leaves.
  await trx('people').where({ id: personId, email_proven_at: null }).update({ email_proven_at: now });
  const { on: today } = wallTime(now, found.timeZone);
  const before = await trx('school_staff').where({ school_id: schoolId, person_id: personId }).first();
  const isThere = before && (before.until_date === null || before.until_date >= today);
  await trx('school_staff')
    .insert({ school_id: schoolId, person_id: personId, from_date: today, is_admin: isAdmin })
    .onConflict(['school_id', 'person_id'])
    .merge({
      until_date: null,
      is_admin: isAdmin || (isThere ? before.is_admin : false),
      from_date: before?.from_date ?? today,
    });
  await trx('account_links').where({ id: found.id }).update({ person_id: personId, used_at: now });
  const after = { name: found.name, email: found.email, state: 'joined', isAdmin };
  await writeChange(trx, personId, { what: 'account', schoolId, personId, before: null, after }, now);
}
