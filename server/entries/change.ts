import type { WallTime } from '~/core/calendar/zone';
import { defined } from '~/core/defined';
import { type CorrectionInput, checkOutcome, type WithdrawalInput } from '~/core/entries/observation';
import { measureAt } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { Invalid } from '../platform/failures';
import type { Actor } from '../school/school';
import { checkSession } from './check-session';
import { type Changes, changeRecord } from './corrections';
import { takeApart } from './pairs';
import { type Observation, observationOf } from './read';

interface EntryChange {
  studentId: string;
  entryId: string;
  version: number;
  why: string;
  now: Date;
}

function changeEntry(
  db: Database,
  actor: Actor,
  { studentId, entryId, ...change }: EntryChange,
  changesTo: (entry: Observation, db: Database) => Promise<Changes>,
): Promise<Observation> {
  return changeRecord<Observation>(db, actor, {
    ...change,
    studentId,
    id: entryId,
    read: (trx, access, options) => observationOf(trx, access, entryId, options),
    changesTo,
    // Withdrawn, of another day or by another person it may be of another session: its partner counts by itself again.
    afterwards: async (
      entry,
      { observed_on: on = entry.on, observer_id: observer = entry.observerId, withdrawn },
      trx,
    ) => {
      if (withdrawn || on !== entry.on || observer !== entry.observerId) await takeApart(trx, actor, entry, change.now);
    },
  });
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
  const { version, why, outcome: raw, fidelity, ...session } = input;
  return changeEntry(db, actor, { studentId, entryId, version, why, now }, async (entry, trx) => {
    const goalIds = [entry.goalId];
    const { goals, messages } = await checkSession(trx, actor, { studentId, right: 'see', goalIds }, session, wall);
    const checked = checkOutcome(measureAt(defined(goals[entry.goalId]), entry.goalVersion), raw);
    if (!checked.ok) messages.outcome = checked.message;
    if (!checked.ok || Object.keys(messages).length > 0) throw new Invalid(messages);
    return {
      observed_on: session.on,
      observed_time: session.time,
      observer_id: session.observerId,
      location_id: session.locationId,
      data: checked.outcome.data,
      reason: checked.outcome.reason,
      note: session.note,
      ...(fidelity !== undefined && { fidelity: fidelity && JSON.stringify(fidelity) }),
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
