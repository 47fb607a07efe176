import { checkOutcome, entryField, type Outcome, type SessionInput } from '~/core/observations/observation';
import type { WallTime } from '../clock';
import type { Database } from '../db/database';
import { Invalid, NotFound } from '../failures';
import type { Goal } from '../goals/goals';
import { type Actor, studentFor } from '../students/students';
import { checkSession } from './check-session';

/**
 * Records what was observed of one student in one go. Goals that were not touched are not in it and stay blank.
 * The ids come from the client: the same submission again changes nothing.
 *
 * @returns the ids of the entries that stand recorded
 * @throws NotFound for a student or goal that is not there for this person; Invalid with a message at each field
 */
export async function recordSession(
  db: Database,
  actor: Actor,
  studentId: string,
  input: SessionInput,
  { wall, now }: { wall: WallTime; now: Date },
): Promise<string[]> {
  const [, messages, measures] = await Promise.all([
    studentFor(db, actor, studentId, 'observe'),
    checkSession(db, studentId, input, wall),
    measuresOf(db, studentId, input),
  ]);
  const outcomes: Outcome[] = [];
  for (const entry of input.entries) {
    const measure = measures.get(entry.goalId);
    if (!measure) throw new NotFound('No such goal.');
    const checked = checkOutcome(measure, entry.outcome);
    if (checked.ok) outcomes.push(checked.outcome);
    else messages[entryField(entry.goalId)] = checked.message;
  }
  if (Object.keys(messages).length > 0) throw new Invalid(messages);

  const rows = input.entries.map((entry, i) => ({
    id: entry.id,
    goal_id: entry.goalId,
    student_id: studentId,
    observed_on: input.on,
    observed_time: input.time,
    observer_id: input.observerId,
    setting_id: input.settingId,
    data: (outcomes[i] as Outcome).data,
    reason: (outcomes[i] as Outcome).reason,
    note: entry.note,
    recorded_by: actor.personId,
    recorded_at: now,
  }));
  return db.transaction(async (trx) => {
    const written = await trx('observations').insert(rows).onConflict('id').ignore().returning('id');
    if (written.length < rows.length) await expectRepeat(trx, actor, rows);
    return rows.map((row) => row.id);
  });
}

async function measuresOf(db: Database, studentId: string, input: SessionInput): Promise<Map<string, Goal['measure']>> {
  const rows = await db('goals')
    .where({ student_id: studentId })
    .whereIn(
      'id',
      input.entries.map((entry) => entry.goalId),
    )
    .select<{ id: string; measure: Goal['measure'] }[]>('id', 'measure');
  return new Map(rows.map((row) => [row.id, row.measure]));
}

/** An id that is there already must be this person's own entry of the same goal, sent again; else it is not theirs to use. */
async function expectRepeat(db: Database, actor: Actor, rows: { id: string; goal_id: string }[]): Promise<void> {
  const known = await db('observations')
    .whereIn(
      'id',
      rows.map((row) => row.id),
    )
    .where({ recorded_by: actor.personId })
    .select<{ id: string; goal_id: string }[]>('id', 'goal_id');
  const goals = new Map(known.map((row) => [row.id, row.goal_id]));
  if (!rows.every((row) => goals.get(row.id) === row.goal_id)) throw new NotFound('No such entry.');
}
