import type { WallTime } from '~/core/calendar/zone';
import { defined } from '~/core/defined';
import { checkOutcome, type TableInput } from '~/core/entries/observation';
import { goalOf } from '../goals/goals';
import type { Database } from '../platform/db/database';
import { Invalid } from '../platform/failures';
import type { Actor } from '../school/school';
import { requireStudent } from '../students/students';
import { aheadWords, isAhead, notOnTeamWords, tooEarlyWords } from './check-session';
import { photographsFrom } from './evidence/add';
import { type NewRow, versionOf, writeEntries } from './record';

/**
 * Records several sessions of one goal, all or none. The ids come from the client: the same table again changes nothing.
 *
 * @returns the ids of the entries
 * @throws NotFound for a student or goal that is not there for this person; Invalid with messages under `rows.<at>.<field>`
 */
export async function recordTable(
  db: Database,
  actor: Actor,
  { studentId, goalId }: { studentId: string; goalId: string },
  { goalVersion, observerId, locationId, rows, photographs }: TableInput,
  { wall, now }: { wall: WallTime; now: Date },
): Promise<string[]> {
  const student = await requireStudent(db, actor, studentId, 'observe');
  const [goal, stays, location] = await Promise.all([
    goalOf(db, student.id, goalId),
    db('team_members').where({ student_id: studentId, person_id: observerId }).select('from_date', 'until_date'),
    locationId === null
      ? { id: null }
      : db('locations').where({ id: locationId, school_id: actor.schoolId }).first('id'),
  ]);
  const measure = versionOf(goal, goalVersion);
  const messages: Record<string, string> = {};
  if (!location) messages.locationId = 'Choose a location from the list.';
  const begins = [goal.startsOn, goal.baseline?.on ?? null, goal.phases[0]?.startsOn ?? null];
  const written = rows.map(({ id, on, time, outcome, note }, at): NewRow => {
    const refuse = (field: string, message: string) => {
      messages[`rows.${at}.${field}`] ??= message;
    };
    const checked = checkOutcome(measure, outcome);
    if (!checked.ok) refuse('outcome', checked.message);
    if (isAhead({ on, time }, wall)) refuse(on > wall.on ? 'on' : 'time', aheadWords);
    const early = tooEarlyWords(on, student.plan?.startsOn ?? null, begins);
    if (early) refuse('on', early);
    const isOnTeam = stays.some((stay) => stay.from_date <= on && (stay.until_date ?? on) >= on);
    if (!isOnTeam) refuse('on', notOnTeamWords);
    return {
      id,
      goal_id: goalId,
      measure_version: goalVersion,
      student_id: studentId,
      observed_on: on,
      observed_time: time,
      observer_id: observerId,
      location_id: locationId,
      data: checked.ok ? checked.outcome.data : null,
      reason: checked.ok ? checked.outcome.reason : null,
      note,
      fidelity: null,
      recorded_by: actor.personId,
      recorded_at: now,
    };
  });
  if (Object.keys(messages).length > 0) throw new Invalid(messages);
  const taken = await photographsFrom(defined(rows[0]).id, photographs, 'photographs');
  await writeEntries(db, actor, written, taken);
  return written.map(({ id }) => id);
}
