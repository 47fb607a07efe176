import type { Database } from '../db/database';
import { type School, schoolJson } from '../school/school';
import { hashToken } from './tokens';

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
    `select s.id as "studentId", ${schoolJson('c')} as school
       from (select l.student_id from share_link_tokens t join share_links l on l.id = t.link_id where t.token_hash = :hash
             union all
             select i.student_id from invitation_tokens t join invitations i on i.id = t.invitation_id where t.token_hash = :hash
             union all
             select w.student_id from rating_links t join work_samples w on w.id = t.work_sample_id where t.token_hash = :hash
             union all
             select m.student_id from message_stops t join messages m on m.id = t.message_id where t.token_hash = :hash) as door
       join students s on s.id = door.student_id join schools c on c.id = s.school_id`,
    { hash: hashToken(token) },
  );
  return found.rows[0] ?? null;
}
