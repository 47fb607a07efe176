import { z } from 'zod';
import { hashToken } from '../people/tokens';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { type School, schoolColumn, schoolJson } from '../school/school';

/** Where a link from outside leads: a student, and the school that they go to. */
export interface Door {
  studentId: string;
  school: School;
}

const doorRow = z.object({ studentId: z.string(), school: schoolColumn });

/**
 * Where the token of a link leads, be it a share link, an invitation, a request to rate, or the end of messages. It says nothing of
 * whether the link still opens anything.
 *
 * @returns null for a token that was never given out
 */
export async function doorOf(db: Database, token: string): Promise<Door | null> {
  const found = await rowsOf(
    db,
    doorRow,

    `select d.student_id as "studentId", ${schoolJson('c')} as school from student_behind(:hash) d join schools c on c.id = d.school_id`,
    { hash: hashToken(token) },
  );
  return found[0] ?? null;
}
