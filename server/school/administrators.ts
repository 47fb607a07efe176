import type { Database } from '../platform/db/database';
import { NotFound, nullIf } from '../platform/failures';
import type { Actor } from './school';

declare const admin: unique symbol;

/**
 * Somebody who has been found to be an administrator of the school they are at. What only administrators may do takes one in place of an
 * `Actor`, so that without asking `requireSchoolAdmin` it does not compile.
 */
export type SchoolAdmin = Actor & { readonly [admin]: true };

/**
 * Lets only administrators of the school go on that they are at.
 *
 * @throws NotFound for everyone else, and for who began with a PIN: for them there is nothing here
 * @example changesOf(db, await requireSchoolAdmin(db, actor), wanted)
 */
export async function requireSchoolAdmin(db: Database, actor: Actor): Promise<SchoolAdmin> {
  const { personId, schoolId, today, isByPin } = actor;
  if (isByPin) throw new NotFound('There is nothing to set up here.');
  const row = await db('school_staff')
    .where({ school_id: schoolId, person_id: personId, is_admin: true })
    .where('from_date', '<=', today)
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .first('person_id');
  if (!row) throw new NotFound('There is nothing to set up here.');
  // The one place where it is found out: a type has no trace at run time.
  return actor as SchoolAdmin;
}

/** Whether somebody administers the school they are at, where that only changes what they are offered. */
export const isSchoolAdmin = async (db: Database, actor: Actor): Promise<boolean> =>
  (await nullIf(NotFound, requireSchoolAdmin(db, actor))) !== null;
