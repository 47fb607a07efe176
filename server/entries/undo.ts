import type { Database } from '../platform/db/database';
import { NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { requireStudent } from '../students/students';
import { withdrawObservation } from './change';
import { withdrawNote } from './forms/notes';
import { withdrawCount } from './incidents/counts';
import { withdrawIncident } from './incidents/record-incident';

/** So long after saving it can be taken back with one tap, in milliseconds: the tap itself may wait a little for a network. */
const UNDO_WITHIN = 2 * 60_000;

/** At most so many are taken back at once. */
export const MOST_UNDONE = 20;

const WHY = 'Undone right after saving.';

/**
 * Takes back what one has saved a moment ago: it is withdrawn, and stays readable on its own page like anything that is. What was changed
 * since, or is another's, or older, stays. Asked twice, it is undone once.
 *
 * @returns how many were taken back
 * @throws NotFound for somebody who may not observe, and where there was nothing to take back
 */
export async function undoSaved(
  db: Database,
  actor: Actor,
  studentId: string,
  ids: readonly string[],
  now: Date,
): Promise<number> {
  return db.transaction(async (trx) => {
    await requireStudent(trx, actor, studentId, 'observe');
    const saved = await trx('entries')
      .whereIn('id', [...ids])
      .where({ student_id: studentId, recorded_by: actor.personId, self_recorded: false })
      .where('recorded_at', '>=', new Date(now.getTime() - UNDO_WITHIN))
      .select('id', 'kind', 'version', 'withdrawn');
    if (saved.length === 0) throw new NotFound('Nothing of yours was saved here just now.');
    const change = { version: 1, why: WHY };
    const undone = saved.filter(({ version, withdrawn }) => version === 1 && !withdrawn);
    for (const { id, kind } of undone) {
      if (kind === 'goal') await withdrawObservation(trx, actor, { studentId, entryId: id }, change, now);
      else if (kind === 'incident') await withdrawIncident(trx, actor, { studentId, noteId: id }, change, now);
      else if (kind === 'count') await withdrawCount(trx, actor, { studentId, tallyId: id }, change, now);
      else await withdrawNote(trx, actor, { studentId, noteId: id }, change, now);
    }
    return undone.length;
  });
}
