import type { Database } from '../db/database';
import { NotFound } from '../failures';

/**
 * Makes sure that a student has an entry of this id, of whatever kind, that stands.
 *
 * @returns its version
 * @throws NotFound
 */
export async function mustStand(db: Database, studentId: string, entryId: string): Promise<number> {
  const of = (table: string) =>
    `select version from ${table} where id = :entryId and student_id = :studentId and not withdrawn`;
  const found = await db.raw<{ rows: { version: number }[] }>(
    ['observations', 'abc_notes', 'tallies'].map(of).join(' union all '),
    { entryId, studentId },
  );
  const entry = found.rows[0];
  if (!entry) throw new NotFound('No such entry.');
  return entry.version;
}
