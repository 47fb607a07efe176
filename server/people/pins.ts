import type { Database } from '../platform/db/database';
import { existing } from '../platform/failures';
import { writeChange } from '../school/changes';
import { expectOwnPassword } from './own-password';
import { hashPassword, passwordIsRight } from './passwords';

/** Whether somebody has a PIN. */
export async function hasPin(db: Database, personId: string): Promise<boolean> {
  return existing(await db('people').where({ id: personId }).first('pin_hash')).pin_hash !== null;
}

/**
 * Gives somebody a PIN in place of the one before. Who asks for it says their password: whoever merely finds a device open does not.
 *
 * @throws Invalid where the password is wrong, or was too often
 */
export async function savePin(
  db: Database,
  personId: string,
  { pin, password }: { pin: string; password: string },
  now: Date,
): Promise<void> {
  await expectOwnPassword(db, personId, password);
  const { pin_hash } = existing(await db('people').where({ id: personId }).first('pin_hash'));
  const hash = await hashPassword(pin);
  await db.transaction(async (trx) => {
    await trx('people').where({ id: personId }).update({ pin_hash: hash });
    const [before, after] = [{ pin: pin_hash === null ? 'none' : 'one' }, { pin: 'a new one' }];
    await writeChange(trx, personId, { what: 'sign-in', personId, before, after }, now);
  });
}

/** Whether this is somebody's PIN. */
export async function pinIsRight(db: Database, personId: string, pin: string): Promise<boolean> {
  const row = await db('people').where({ id: personId }).first('pin_hash');
  return passwordIsRight(row?.pin_hash ?? null, pin);
}

/** Whether this is somebody's PIN, or their password: who has no PIN opens a locked device by that. */
export async function opensWith(db: Database, personId: string, secret: string): Promise<boolean> {
  if (await pinIsRight(db, personId, secret)) return true;
  const row = await db('people').where({ id: personId }).first('password_hash');
  return passwordIsRight(row?.password_hash ?? null, secret);
}
