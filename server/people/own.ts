import { z } from 'zod';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { existing, Invalid, NotFound } from '../platform/failures';
import { writeChange } from '../school/changes';
import { findAccountLink, makeAccountLink, withdrawLinks } from './account-links';
import { countTry } from './attempts';
import { expectOwnPassword } from './own-password';
import { expectStrong, hashPassword } from './passwords';
import { namesOf } from './people';

interface Own {
  personId: string;
  schoolId: string;
}

/** Says what one is called, and what one does. What was recorded carries the new name: it is the same person. */
export async function changeOwnName(
  db: Database,
  { personId }: Own,
  { name, work }: { name: string; work: string },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const before = existing(await trx('people').where({ id: personId }).forUpdate().first('name', 'work'));
    await trx('people')
      .where({ id: personId })
      .update({ name, work, ...namesOf(name) });
    await writeChange(trx, personId, { what: 'account', personId, before, after: { name, work } }, now);
  });
}

/**
 * Chooses another password, with the one there was. All other sign-ins end.
 *
 * @param keep  the session in which it is done
 * @throws Invalid for a wrong password, or a new one that is guessed soon
 */
export async function changePassword(
  db: Database,
  { personId, keep }: { personId: string; keep: string },
  { current, password }: { current: string; password: string },
  now: Date,
): Promise<void> {
  await expectOwnPassword(db, personId, current, 'current');
  const owner = existing(await db('people').where({ id: personId }).first('name', 'email'));
  await expectStrong(owner, password);
  await setPassword(db, personId, password, { by: personId, how: 'changed', keep, now });
}

async function setPassword(
  db: Database,
  personId: string,
  password: string,
  { by, how, keep, now }: { by: string; how: string; keep: string | null; now: Date },
): Promise<void> {
  const password_hash = await hashPassword(password);
  await db.transaction(async (trx) => {
    await trx('people').where({ id: personId }).update({ password_hash });
    await trx('sign_in_sessions')
      .where({ person_id: personId })
      .modify((query) => keep && query.whereNot({ id: keep }))
      .delete();
    await trx('half_sign_ins').where({ person_id: personId }).delete();
    // Whoever knew the old one may have signed in from anywhere.
    await trx('known_devices').where({ person_id: personId }).delete();
    await withdrawLinks(trx, { kind: 'password', person_id: personId }, now);
    const change = { before: { password: 'before' }, after: { password: how } };
    await writeChange(trx, by, { what: 'account', personId, ...change }, now);
  });
}

/**
 * Asks for another address to sign in with: a message there proves it, and until then the old one stays.
 *
 * @throws Invalid for a wrong password, for an address that somebody has, and where no mail leaves: there nothing would prove it
 */
export async function askForEmail(
  db: Database,
  { personId, schoolId }: Own,
  { email, current }: { email: string; current: string },
  { now, readsOut }: { now: Date; readsOut: boolean },
): Promise<void> {
  if (readsOut) throw new Invalid({ email: 'No mail leaves this installation: nothing would prove that it is yours.' });
  await expectOwnPassword(db, personId, current, 'current');
  const { name } = existing(await db('people').where({ id: personId }).first('name'));
  const taken = await db('people').whereRaw('lower(email) = lower(?)', [email]).first('id');
  if (taken) {
    throw new Invalid({
      email: taken.id === personId ? 'You sign in with this address already.' : 'This address has an account.',
    });
  }
  await db.transaction(async (trx) => {
    await withdrawLinks(trx, { kind: 'email', person_id: personId }, now);
    await makeAccountLink(
      trx,
      { kind: 'email', schoolId, personId, name, email, madeBy: personId },
      { now, readsOut: false },
    );
  });
}

/**
 * Takes the address over that a message has proven.
 *
 * @returns the address
 * @throws NotFound for a link that is over or used; Invalid where somebody has the address by now
 */
export async function proveEmail(db: Database, token: string, now: Date): Promise<string> {
  return db.transaction(async (trx) => {
    const found = await findAccountLink(trx, token, now, { lock: true });
    if (found?.kind !== 'email' || !found.personId || found.isReadOut) throw new NotFound('No such link.');
    if (found.accountId) throw new Invalid({ email: 'This address has an account by now.' });
    const { email, personId } = found;
    const before = existing(await trx('people').where({ id: personId }).forUpdate().first('email'));
    await trx('people').where({ id: personId }).update({ email, email_proven_at: now });
    await trx('account_links').where({ id: found.id }).update({ used_at: now });
    await writeChange(trx, personId, { what: 'account', personId, before, after: { email } }, now);
    return email;
  });
}

/**
 * Sends somebody who forgot their password a link. Whether there is such an account is not told: to an address without one nothing goes.
 *
 * @param address  where the request came from
 * @returns how many minutes to wait, where it was asked too often; else null
 */
export async function forgotPassword(db: Database, email: string, address: string, now: Date): Promise<number | null> {
  const wait = (await countTry(db, 'forgotten', address)) ?? (await countTry(db, 'forgottenBy', email.toLowerCase()));
  if (wait !== null) return wait;
  const [person] = await rowsOf(
    db,
    z.object({ id: z.string(), name: z.string(), email: z.string(), schoolId: z.string() }),
    `select p.id, p.name, p.email, a.school_id as "schoolId" from people p
       join school_staff a on a.person_id = p.id join schools c on c.id = a.school_id
            and coalesce(a.until_date, 'infinity') >= cast(cast(:now as timestamptz) at time zone c.time_zone as date)
      where lower(p.email) = lower(:email) and p.email_proven_at is not null limit 1`,
    { email, now },
  );
  if (!person) return null;
  await db.transaction(async (trx) => {
    await withdrawLinks(trx, { kind: 'password', person_id: person.id }, now);
    await makeAccountLink(
      trx,
      {
        kind: 'password',
        schoolId: person.schoolId,
        personId: person.id,
        name: person.name,
        email: person.email,
        madeBy: null,
      },
      { now, readsOut: false },
    );
  });
  return null;
}

/**
 * Chooses a password by a link that came to the address, or by an administrator's code. All sign-ins of theirs end.
 *
 * @returns the person
 * @throws NotFound for a link that is over or used; Invalid for a password that is guessed soon
 */
export async function choosePassword(db: Database, token: string, password: string, now: Date): Promise<string> {
  const found = await findAccountLink(db, token, now);
  if (found?.kind !== 'password' || !found.personId) throw new NotFound('No such link.');
  const { personId, madeBy } = found;
  await expectStrong({ name: found.name, email: found.email, school: found.schoolName }, password);
  await db.transaction(async (trx) => {
    // Of two at once the second finds it used.
    if (!(await findAccountLink(trx, token, now, { lock: true }))) throw new NotFound('No such link.');
    await trx('account_links').where({ id: found.id }).update({ used_at: now });
    const how = found.isReadOut ? 'chosen anew with a code' : 'chosen anew by a message';
    await setPassword(trx, personId, password, { by: madeBy ?? personId, how, keep: null, now });
  });
  return personId;
}

const ownSessionRow = z.object({
  id: z.string(),
  isShared: z.boolean(),
  createdAt: z.date(),
  seenAt: z.date(),
  isThis: z.boolean(),
});

/** Where somebody is signed in, the last used first. */
export const sessionsOf = (db: Database, personId: string, thisId: string) =>
  rowsOf(
    db,
    ownSessionRow,
    `select id, is_shared as "isShared", created_at as "createdAt", seen_at as "seenAt", id = :thisId as "isThis"
       from sign_in_sessions where person_id = :personId order by seen_at desc`,
    { personId, thisId },
  );

/** Ends one of one's own sign-ins, wherever it is. */
export async function endOwnSession(db: Database, personId: string, id: string, now: Date): Promise<void> {
  const ended = await db('sign_in_sessions').where({ id, person_id: personId }).delete();
  if (ended === 0) return;
  await writeChange(
    db,
    personId,
    { what: 'sign-in', personId, before: null, after: { device: 'ended from elsewhere' } },
    now,
  );
}

/** Whether somebody still works anywhere: else there is nothing to sign in to. */
export async function worksSomewhere(db: Database, personId: string, now: Date): Promise<boolean> {
  const row = await db('school_staff as a')
    .join('schools as c', 'c.id', 'a.school_id')
    .where({ 'a.person_id': personId })
    .whereRaw(`coalesce(a.until_date, 'infinity') >= cast(cast(? as timestamptz) at time zone c.time_zone as date)`, [
      now,
    ])
    .first('a.school_id');
  return row !== undefined;
}
