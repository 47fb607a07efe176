import { randomUUID } from 'node:crypto';
import type { Database } from '../platform/db/database';
import { writeChange } from '../school/changes';
import { namesOf } from './people';

interface AnAccount {
  /** Who has one with this address; null when nobody. */
  accountId: string | null;
  email: string;
  /** Whether whoever answers has shown that the address is theirs. */
  isReadOut: boolean;
}

/**
 * Makes the account of an address, or hands one that was never proven to be its over to it: then whoever used it before is out.
 *
 * @param of  what the change is written down with: the student to whose team they were asked, or the school
 * @returns the person
 */
export async function ownAccount(
  db: Database,
  { accountId, email, isReadOut }: AnAccount,
  { name, work, passwordHash }: { name: string; work: string; passwordHash: string },
  { of, now }: { of: { studentId: string } | { schoolId: string }; now: Date },
): Promise<string> {
  const content = {
    ...{ name, work, ...namesOf(name), password_hash: passwordHash },
    email_proven_at: isReadOut ? null : now,
  };
  if (accountId) {
    const before = await db('people').where({ id: accountId }).first('name');
    await db('people').where({ id: accountId }).update(content);
    await db('sign_in_sessions').where({ person_id: accountId }).delete();
    await db('known_devices').where({ person_id: accountId }).delete();
    const taken = {
      before: { name: before?.name, email, password: 'before' },
      after: { name, email, password: 'anew' },
    };
    await writeChange(db, accountId, { what: 'account', ...of, personId: accountId, ...taken }, now);
    return accountId;
  }
  const id = randomUUID();
  await db('people').insert({ id, email, ...content });
  const after = { name, work, email };
  await writeChange(db, id, { what: 'account', ...of, personId: id, before: null, after }, now);
  return id;
}
