import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { type AccountLinkKind, accountLinkKinds } from '~/core/messages/account-letters';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { messageId } from '../platform/message-id';
import { newCode, plainCode } from './codes';
import { hashToken, newToken } from './tokens';

const HOUR = 3_600_000;
/** So long each kind of link opens something. */
const lasts: Record<AccountLinkKind, number> = { join: 14 * 24 * HOUR, password: HOUR, email: 24 * HOUR };

interface LinkWanted {
  id?: string;
  kind: AccountLinkKind;
  schoolId: string;
  personId: string | null;
  name: string;
  email: string;
  isAdmin?: boolean;
  /** Who makes it; null for somebody who has not signed in. */
  madeBy: string | null;
}

/**
 * Makes a link that opens something of an account, once, and the message that brings it. Made twice, it is one.
 *
 * @param readsOut  whether it is told to the one who makes it instead, as a code: where no mail leaves
 * @returns the code; null where a message brings it, or it was made before
 */
export async function makeAccountLink(
  db: Database,
  { id = randomUUID(), kind, schoolId, personId, name, email, isAdmin = false, madeBy }: LinkWanted,
  { now, readsOut }: { now: Date; readsOut: boolean },
): Promise<string | null> {
  const made = await db('account_links')
    .insert({
      ...{ id, kind, school_id: schoolId, person_id: personId, name, email, is_admin: isAdmin },
      ...{ made_by: madeBy, made_at: now, ends_at: new Date(now.getTime() + lasts[kind]) },
    })
    .onConflict('id')
    .ignore()
    .returning('id');
  if (made.length === 0) return null;
  if (readsOut) {
    const code = newCode(4);
    await db('account_link_tokens').insert({ token_hash: hashToken(plainCode(code)), link_id: id, is_read_out: true });
    return code;
  }
  await db('messages').insert({
    ...{ id: messageId(`account:${id}`), key: `account:${id}`, kind, student_id: null, account_link_id: id },
    ...{ to_name: name, to_email: email, state: 'waiting', not_before: now, made_by: madeBy, made_at: now },
  });
  return null;
}

/** A token for a link that leaves in a message: of it only the hash is kept. */
export async function newAccountToken(db: Database, linkId: string): Promise<string> {
  const token = newToken();
  await db('account_link_tokens').insert({ token_hash: hashToken(token), link_id: linkId });
  return token;
}

const foundLinkRow = z.object({
  id: z.string(),
  kind: z.enum(accountLinkKinds),
  schoolId: z.string(),
  schoolName: z.string(),
  timeZone: z.string(),
  personId: z.string().nullable(),
  name: z.string(),
  email: z.string(),
  isAdmin: z.boolean(),
  madeBy: z.string().nullable(),
  madeByName: z.string().nullable(),
  /** Who has an account with this address; null when nobody. */
  accountId: z.string().nullable(),
  /** Whether that account’s address was ever proven by a message that was answered from it. */
  isProven: z.boolean(),
  /** Whether it was told to the one who made it, and proves nothing of the address. */
  isReadOut: z.boolean(),
});
export type FoundLink = z.infer<typeof foundLinkRow>;

/**
 * The link of a token or a code; null when there is none, it is over, or it was used.
 *
 * @param lock  whether it is kept from others until the end of the transaction, to be used
 */
export async function findAccountLink(
  db: Database,
  token: string,
  now: Date,
  { lock = false } = {},
): Promise<FoundLink | null> {
  const [found] = await rowsOf(
    db,
    foundLinkRow,
    `select l.id, l.kind, l.school_id as "schoolId", c.name as "schoolName", c.time_zone as "timeZone", l.person_id as "personId",
            l.name, l.email, l.is_admin as "isAdmin", l.made_by as "madeBy", m.name as "madeByName",
            a.id as "accountId", a.email_proven_at is not null as "isProven", t.is_read_out as "isReadOut"
       from account_link_tokens t join account_links l on l.id = t.link_id join schools c on c.id = l.school_id
            left join people m on m.id = l.made_by left join people a on lower(a.email) = lower(l.email)
      where ((t.token_hash = :token and not t.is_read_out) or (t.token_hash = :code and t.is_read_out))
            and l.used_at is null and l.withdrawn_at is null and l.ends_at > :now
      ${lock ? 'for update of l' : ''}`,
    { token: hashToken(token), code: hashToken(plainCode(token)), now },
  );
  return found ?? null;
}

/** Links of the same kind to somebody that were not used yet open nothing any more. */
export const withdrawLinks = (
  db: Database,
  of: { kind: AccountLinkKind; person_id: string } | { kind: AccountLinkKind; school_id: string; email: string },
  now: Date,
) => db('account_links').where(of).where({ used_at: null, withdrawn_at: null }).update({ withdrawn_at: now });
