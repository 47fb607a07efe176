import type { Database } from '../platform/db/database';
import { NotFound } from '../platform/failures';

/**
 * Makes sure that a student has an entry of this id, of whatever kind, that stands.
 *
 * @returns its version
 * @throws NotFound
 */
export async function mustStand(db: Database, studentId: string, entryId: string): Promise<number> {
  const entry = await db('entries').where({ id: entryId, student_id: studentId, withdrawn: false }).first('version');
  if (!entry) throw new NotFound('No such entry.');
  return entry.version;
}
