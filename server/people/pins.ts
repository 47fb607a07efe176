import { z } from 'zod';
import { ADMIN_PIN_DIGITS } from '~/core/people/pin-input';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { existing, Invalid } from '../platform/failures';
import { writeChange } from '../school/changes';
import { expectOwnPassword } from './own-password';
import { hashPassword, passwordIsRight } from './passwords';

/** So many wrong tries cost nothing but time to type … */
const FREE_TRIES = 5;
/** … then each waits twice as long as the one before, in minutes, up to this. */
const LONGEST_WAIT = 60;
/** After so many in a row the PIN is locked, until an administrator lifts it or its owner chooses another. */
export const TRIES_UNTIL_LOCKED = 20;

/** Whether somebody has a PIN. */
export async function hasPin(db: Database, personId: string): Promise<boolean> {
  return existing(await db('people').where({ id: personId }).first('pin_hash')).pin_hash !== null;
}

/**
 * Gives somebody a PIN in place of the one before. Who asks for it says their password: whoever merely finds a device open does not.
 *
 * @throws Invalid where the password is wrong, or was too often; for one that is too short for who sets up a school
 */
export async function savePin(
  db: Database,
  personId: string,
  { pin, password }: { pin: string; password: string },
  now: Date,
): Promise<void> {
  await expectOwnPassword(db, personId, password);
  const isAdmin = await db('school_staff').where({ person_id: personId, is_admin: true }).first('person_id');
  if (isAdmin && pin.length < ADMIN_PIN_DIGITS)
    throw new Invalid({ pin: `Type ${ADMIN_PIN_DIGITS} to 8 digits: you set up the school.` });
  const { pin_hash } = existing(await db('people').where({ id: personId }).first('pin_hash'));
  const hash = await hashPassword(pin);
  await db.transaction(async (trx) => {
    await trx('people')
      .where({ id: personId })
      .update({ pin_hash: hash, pin_digits: pin.length, pin_tries: 0, pin_tried_at: null, pin_locked_at: null });
    const [before, after] = [{ pin: pin_hash === null ? 'none' : 'one' }, { pin: 'a new one' }];
    await writeChange(trx, personId, { what: 'sign-in', personId, before, after }, now);
  });
}

/** Takes somebody's PIN away, who is to choose a longer one. */
export async function removePin(db: Database, personId: string): Promise<void> {
  await db('people')
    .where({ id: personId })
    .update({ pin_hash: null, pin_digits: null, pin_tries: 0, pin_tried_at: null, pin_locked_at: null });
}

const waitOf = (tries: string) =>
  `make_interval(mins => least(${LONGEST_WAIT}, cast(power(2, least(10, ${tries} - ${FREE_TRIES})) as int)))`;

/** A try is open: from now on it counts. Otherwise for how many minutes none is, null for until somebody lifts it. */
type Try = { isOpen: true } | { isOpen: false; waitMinutes: number | null };

/**
 * Counts a try at somebody's PIN, before it is looked at: on all devices together, so that more devices are no more tries. Of a hundred at
 * the same moment no more are looked at than one after the other.
 */
export async function tryPin(db: Database, personId: string, now: Date): Promise<Try> {
  const counted = await db.raw(
    `update people set pin_tries = pin_tries + 1, pin_tried_at = :now,
            pin_locked_at = case when pin_tries + 1 >= ${TRIES_UNTIL_LOCKED} then cast(:now as timestamptz) end
      where id = :personId and pin_locked_at is null
        and (pin_tries < ${FREE_TRIES} or pin_tried_at + ${waitOf('pin_tries')} <= :now)`,
    { personId, now },
  );
  if (counted.rowCount === 1) return { isOpen: true };
  const [row] = await rowsOf(
    db,
    z.object({ minutes: z.number().nullable() }),
    `select case when pin_locked_at is null then
              greatest(1, ceil(extract(epoch from pin_tried_at + ${waitOf('pin_tries')} - :now) / 60))::int end as minutes
       from people where id = :personId`,
    { personId, now },
  );
  return { isOpen: false, waitMinutes: row?.minutes ?? null };
}

/** Forgets wrong tries: it was right, or an administrator lifts the lock. */
export async function forgetPinTries(db: Database, personId: string): Promise<void> {
  await db('people').where({ id: personId }).update({ pin_tries: 0, pin_tried_at: null, pin_locked_at: null });
}

/** Whether this is somebody's PIN. */
export async function pinIsRight(db: Database, personId: string, pin: string): Promise<boolean> {
  const row = await db('people').where({ id: personId }).first('pin_hash');
  return passwordIsRight(row?.pin_hash ?? null, pin);
}

/** Whether this is somebody's password: it opens a locked device too. */
export async function passwordOpens(db: Database, personId: string, secret: string): Promise<boolean> {
  const row = await db('people').where({ id: personId }).first('password_hash');
  return passwordIsRight(row?.password_hash ?? null, secret);
}
