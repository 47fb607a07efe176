import type { IsoDate } from '~/core/calendar/iso-date';
import type { PhaseInput } from '~/core/entries/incidents/incident-input';
import type { Database } from '../platform/db/database';
import { Invalid, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';
import { requireStudent } from '../students/students';

export interface StoredPhase {
  id: string;
  /** Null: for every behavior of the student. */
  behaviorId: string | null;
  label: string;
  startsOn: IsoDate;
}

/** What changed for a student’s behaviors, in order. */
export async function phasesOf(db: Database, studentId: StudentAccess<'see'>): Promise<StoredPhase[]> {
  return db('behavior_phases')
    .where({ student_id: studentId })
    .whereNull('removed_at')
    .orderBy('starts_on')
    .select<StoredPhase[]>('id', 'target_id as behaviorId', 'label', 'starts_on as startsOn');
}

/**
 * Begins a phase: from that day on, figures are held against those before. Sent twice, it is one.
 *
 * @throws NotFound; Invalid for a day that already begins one
 */
export async function addPhase(db: Database, actor: Actor, studentId: string, input: PhaseInput): Promise<void> {
  await db.transaction(async (trx) => {
    const access = (await requireStudent(trx, actor, studentId, 'editGoals')).id;
    const { id, behaviorId, label, startsOn } = input;
    if (behaviorId !== null) {
      const known = await trx('behavior_targets').where({ id: behaviorId, student_id: studentId }).first('id');
      if (!known) throw new Invalid({ behaviorId: 'Choose a behavior from the list.' });
    }
    const others = (await phasesOf(trx, access)).filter((phase) => phase.id !== id);
    const meets = others.some(
      (other) =>
        other.startsOn === startsOn &&
        (other.behaviorId === behaviorId || other.behaviorId === null || behaviorId === null),
    );
    if (meets) throw new Invalid({ startsOn: 'Something else changed on this day already. Say both in one.' });
    const row = {
      id,
      student_id: studentId,
      target_id: behaviorId,
      label,
      starts_on: startsOn,
      made_by: actor.personId,
    };
    await trx('behavior_phases').insert(row).onConflict('id').ignore();
  });
}

/**
 * Takes a phase line out of the graphs; the incidents stay what they are.
 *
 * @throws NotFound
 */
export async function removePhase(db: Database, actor: Actor, studentId: string, id: string, now: Date): Promise<void> {
  await requireStudent(db, actor, studentId, 'editGoals');
  const found = await db('behavior_phases').where({ id, student_id: studentId }).first('id');
  if (!found) throw new NotFound('No such change.');
  await db('behavior_phases').where({ id }).whereNull('removed_at').update({ removed_at: now });
}
