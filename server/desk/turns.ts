import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { hashToken, newToken } from '../people/tokens';
import { asking, database } from '../platform/db/current';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import { requireStudent } from '../students/students';
import { beginSession } from './cards';

const MINUTE = 60_000;

/** For how many minutes a shared tablet may be opened. */
export const TURN_MINUTES = [30, 60, 120, 360] as const;

const atTurnRow = z.object({
  studentId: z.string(),
  firstName: z.string(),
  initials: z.string(),
  cardId: z.string(),
  isDemo: z.boolean(),
});
/** Somebody who may sit down at a shared tablet. */
export type AtTurn = z.infer<typeof atTurnRow>;

/**
 * Opens a shared tablet for some students and a time: they sit down at it by their initials.
 *
 * @returns the token that the tablet keeps
 * @throws NotFound for a student whose report this person may not share
 */
export async function openTurn(
  db: Database,
  actor: Actor,
  { studentIds, minutes }: { studentIds: readonly string[]; minutes: number },
  now: Date,
): Promise<string> {
  return db.transaction(async (trx) => {
    const token = newToken();
    const turn = { id: randomUUID(), token_hash: hashToken(token), opened_by: actor.personId, opened_at: now };
    await trx('desk_turns').insert({ ...turn, ends_at: new Date(now.getTime() + minutes * MINUTE) });
    for (const studentId of new Set(studentIds)) {
      const { id } = await requireStudent(trx, actor, studentId, 'share');
      await trx('desk_turn_students').insert({ turn_id: turn.id, student_id: id });
      const change = { what: 'card' as const, studentId: id, before: null };
      await writeChange(trx, actor.personId, { ...change, after: { 'shared tablet': `${minutes} minutes` } }, now);
    }
    return token;
  });
}

/** Who may sit down at the tablet that keeps this token, in order of initials; nobody when its time is over. */
export async function turnOf(db: Database, token: string, now: Date): Promise<AtTurn[]> {
  return rowsOf(
    db,
    atTurnRow,
    `select student_id as "studentId", first_name as "firstName", initials, card_id as "cardId", is_demo as "isDemo"
       from students_at_turn(:hash, :now) order by initials, first_name, student_id`,
    { hash: hashToken(token), now },
  );
}

/**
 * Opens the desk of one of them.
 *
 * @returns the token of the desk's session; null for somebody who may not sit down here
 */
export async function takeTurn(db: Database, token: string, studentId: string, now: Date): Promise<string | null> {
  const found = (await turnOf(db, token, now)).find((one) => one.studentId === studentId);
  if (!found) return null;
  return asking({ doorTo: found.studentId }, () => beginSession(database(), found, now));
}
