import { isDeepStrictEqual } from 'node:util';
import type { WallTime } from '~/core/calendar/zone';
import { type CorrectionInput, checkOutcome, type WithdrawalInput } from '~/core/observations/observation';
import { mayChange } from '../access/rights';
import type { Database } from '../db/database';
import { Conflict, Invalid, NotAllowed } from '../failures';
import { measureAt } from '../goals/goals';
import { type Actor, type Student, studentFor } from '../students/students';
import { checkSession, type MeasuredGoal } from './check-session';
import { type Observation, observationOf } from './read';

const MS_PER_DAY = 86_400_000;

/** Whether the one who asks may correct or withdraw this entry. */
export function mayChangeEntry(student: Student, actor: Actor, entry: Observation, now: Date): boolean {
  return mayChange(student.role, {
    isOwn: entry.recordedById === actor.personId || entry.observerId === actor.personId,
    ageInDays: (now.getTime() - entry.recordedAt.getTime()) / MS_PER_DAY,
  });
}

type Changes = Record<string, unknown>;

/**
 * Changes an entry under lock: what it said goes to its history, the new content takes its place in every view.
 *
 * @throws Conflict with what stands now, when someone else changed it since `version`
 */
async function changeEntry(
  db: Database,
  actor: Actor,
  {
    studentId,
    entryId,
    version,
    why,
    now,
  }: { studentId: string; entryId: string; version: number; why: string; now: Date },
  changesTo: (entry: Observation) => Promise<Changes>,
): Promise<Observation> {
  return db.transaction(async (trx) => {
    const student = await studentFor(trx, actor, studentId, 'see');
    const entry = await observationOf(trx, studentId, entryId, { lock: true });
    if (!mayChangeEntry(student, actor, entry, now)) throw new NotAllowed('This entry is not yours to change.');
    const changes = await changesTo(entry);
    if (entry.version !== version || entry.isWithdrawn) {
      if (entry.version === version + 1 && (await isRepeat(trx, actor, entryId, why, changes))) return entry;
      throw new Conflict(entry);
    }
    await trx('observation_history').insert({ observation_id: entryId, version, content: JSON.stringify(entry) });
    await trx('observations')
      .where({ id: entryId })
      .update({ ...changes, version: version + 1, changed_by: actor.personId, changed_at: now, change_reason: why });
    return observationOf(trx, studentId, entryId);
  });
}

/** Whether the change that stands is this very one, sent twice. */
async function isRepeat(db: Database, actor: Actor, entryId: string, why: string, changes: Changes): Promise<boolean> {
  const row = await db('observations').where({ id: entryId, changed_by: actor.personId, change_reason: why }).first();
  return row !== undefined && Object.entries(changes).every(([column, value]) => isDeepStrictEqual(row[column], value));
}

/**
 * Replaces what an entry says. Its history is kept, with the reason.
 *
 * @throws NotFound, NotAllowed, Invalid (messages by field), Conflict (what stands now)
 */
export async function correctObservation(
  db: Database,
  actor: Actor,
  { studentId, entryId }: { studentId: string; entryId: string },
  input: CorrectionInput,
  { wall, now }: { wall: WallTime; now: Date },
): Promise<Observation> {
  const { version, why, outcome: raw, ...session } = input;
  return changeEntry(db, actor, { studentId, entryId, version, why, now }, async (entry) => {
    const goalIds = [entry.goalId];
    const { goals, messages } = await checkSession(db, actor, { studentId, right: 'see', goalIds }, session, wall);
    const checked = checkOutcome(measureAt(goals[entry.goalId] as MeasuredGoal, entry.goalVersion), raw);
    if (!checked.ok) messages.outcome = checked.message;
    if (!checked.ok || Object.keys(messages).length > 0) throw new Invalid(messages);
    return {
      observed_on: session.on,
      observed_time: session.time,
      observer_id: session.observerId,
      setting_id: session.settingId,
      data: checked.outcome.data,
      reason: checked.outcome.reason,
      note: session.note,
    };
  });
}

/**
 * Takes an entry out of every figure and view. It stays readable on its own page, with the reason.
 *
 * @throws NotFound, NotAllowed, Conflict (what stands now)
 */
export async function withdrawObservation(
  db: Database,
  actor: Actor,
  { studentId, entryId }: { studentId: string; entryId: string },
  { version, why }: WithdrawalInput,
  now: Date,
): Promise<Observation> {
  return changeEntry(db, actor, { studentId, entryId, version, why, now }, async () => ({ withdrawn: true }));
}
