import type { Database } from '../platform/db/database';
import { NotFound } from '../platform/failures';
import type { Actor } from './school';

/**
 * Lets only administrators of the school go on that they are at.
 *
 * @throws NotFound for everyone else: for them there is nothing here
 */
export async function requireSchoolAdmin(db: Database, { personId, schoolId, today }: Actor): Promise<void> {
  const row = await db('school_staff')
    .where({ school_id: schoolId, person_id: personId, is_admin: true })
    .where('from_date', '<=', today)
    .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today])
    .first('person_id');
  if (!row) throw new NotFound('There is nothing to set up here.');
}
