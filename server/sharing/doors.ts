import { hashToken } from '../people/tokens';
import type { Database } from '../platform/db/database';
import { type School, schoolJson } from '../school/school';

/** Where a link from outside leads: a student, and the school that they go to. */
export interface Door {
  studentId: string;
  school: School;
}

/**
 * Where the token of a link leads, be it a share link, an invitation, a request to rate, or the end of messages. It says nothing of
 * whether the link still opens anything.
 *
 * @returns null for a token that was never given out
 */
export async function doorOf(db: Database, token: string): Promise<Door | null> {
  const found = await db.raw<{ rows: Door[] }>(
    `select d.student_id as "studentId", ${schoolJson('c')} as school from student_behind(:hash) d join schools c on c.id = d.school_id`,
    { hash: hashToken(token) },
  );
  return found.rows[0] ?? null;
}
