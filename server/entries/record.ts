import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import type { WallTime } from '~/core/calendar/zone';
import { defined } from '~/core/defined';
import type { FidelityMarks } from '~/core/entries/fidelity';
import { checkOutcome, entryField, type Outcome, type SessionInput } from '~/core/entries/observation';
import type { MeasureDefinition } from '~/core/measures/measure';
import { measureAt } from '../goals/goals';
import { type Database, preparedRows } from '../platform/db/database';
import { Invalid, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { checkSession, type MeasuredGoal, type SessionFacts } from './check-session';
import { insertPhotographs, type PreparedPhotograph, photographsFrom } from './evidence/add';

/**
 * Records what was observed of one student in one go. Goals that were not touched are not in it and stay blank.
 * The ids come from the client: the same submission again changes nothing.
 *
 * @returns the ids of the entries that stand recorded, and whose they are
 * @throws NotFound for a student or goal that is not there for this person; Invalid with a message at each field
 */
export async function recordSession(
  db: Database,
  actor: Actor,
  studentId: string,
  input: SessionInput,
  { wall, now }: { wall: WallTime; now: Date },
): Promise<{ ids: string[]; student: SessionFacts['student'] }> {
  const goalIds = input.entries.map((entry) => entry.goalId);
  const { student, goals, messages } = await checkSession(
    db,
    actor,
    { studentId, right: 'observe', goalIds },
    input,
    wall,
  );
  const outcomes: Outcome[] = [];
  const versions: number[] = [];
  for (const entry of input.entries) {
    const goal = goals[entry.goalId];
    if (!goal) throw new NotFound('No such goal.');
    const version = entry.goalVersion ?? goal.version;
    const checked = checkOutcome(versionOf(goal, version), entry.outcome);
    versions.push(version);
    if (checked.ok) outcomes.push(checked.outcome);
    else messages[entryField(entry.goalId)] = checked.message;
  }
  if (Object.keys(messages).length > 0) throw new Invalid(messages);
  const photographs: PreparedPhotograph[] = [];
  for (const { id, goalId, photographs: taken } of input.entries)
    photographs.push(...(await photographsFrom(id, taken, entryField(goalId))));

  const rows = input.entries.map((entry, i) => ({
    id: entry.id,
    goal_id: entry.goalId,
    measure_version: defined(versions[i]),
    student_id: studentId,
    observed_on: input.on,
    observed_time: input.time,
    observer_id: input.observerId,
    location_id: input.locationId,
    data: defined(outcomes[i]).data,
    reason: defined(outcomes[i]).reason,
    note: entry.note,
    fidelity: entry.fidelity ?? null,
    recorded_by: actor.personId,
    recorded_at: now,
  }));
  await writeEntries(db, actor, rows, photographs);
  return { ids: rows.map((row) => row.id), student };
}

/**
 * Writes entries with their photographs, all or none. Those that this person has sent before are passed over.
 *
 * @throws NotFound, Invalid where an id is there already and says something else
 */
export async function writeEntries(
  db: Database,
  actor: Actor,
  rows: NewRow[],
  photographs: readonly PreparedPhotograph[] = [],
): Promise<void> {
  const write = async (trx: Database) => {
    const written = await insertOnce(trx, rows);
    const repeated = rows.filter((row) => !written.has(row.id));
    if (repeated.length > 0) await expectSame(trx, actor, repeated);
    const { student_id: studentId, recorded_at: now } = defined(rows[0]);
    if (photographs.length > 0) await insertPhotographs(trx, { studentId, by: actor.personId }, photographs, now);
  };
  // A single row is written or not: only several need to be held together.
  if (rows.length + photographs.length > 1) await db.transaction(write);
  else await write(db);
}

/**
 * How the goal was measured when the observer had it before them: it may have been changed while the entry waited.
 *
 * @throws NotFound for a version that there has not been
 */
export function versionOf(goal: MeasuredGoal, version: number): MeasureDefinition {
  if (version !== goal.version && !(version in goal.formerMeasures)) throw new NotFound('No such version of the goal.');
  return measureAt(goal, version);
}

const columns = `id, goal_id, measure_version, student_id, observed_on, observed_time, observer_id, location_id, data, reason, note,
  fidelity, recorded_by, recorded_at`;

export interface NewRow {
  id: string;
  goal_id: string;
  measure_version: number;
  student_id: string;
  observed_on: string;
  observed_time: string;
  observer_id: string;
  location_id: string | null;
  data: Outcome['data'];
  reason: Outcome['reason'];
  note: string;
  fidelity: FidelityMarks | null;
  recorded_by: string;
  recorded_at: Date;
}

/**
 * Writes all rows in one statement; a row whose id is there already is passed over.
 *
 * @returns the ids that were written now
 */
async function insertOnce(db: Database, rows: NewRow[]): Promise<Set<string>> {
  const written = await preparedRows(
    db,
    'insert-goal-entries',
    z.object({ id: z.string() }),
    `insert into entries (kind, ${columns})
     select 'goal', ${columns} from json_populate_recordset(null::entries, $1)
     on conflict (id) do nothing returning id`,
    [JSON.stringify(rows)],
  );
  return new Set(written.map(({ id }) => id));
}

/** All that an entry says. */
const content = (row: NewRow) => [
  row.measure_version,
  row.observed_on,
  row.observed_time,
  row.observer_id,
  row.location_id,
  row.data,
  row.reason,
  row.note,
  row.fidelity,
];

/**
 * What was sent before must have said the same: else a later change would be lost without a word.
 *
 * @throws NotFound for an id that is not this person's entry of this goal; Invalid where it says something else
 */
async function expectSame(db: Database, actor: Actor, rows: NewRow[]): Promise<void> {
  const ids = rows.map((row) => row.id);
  const known = await db('entries').whereIn('id', ids).where({ recorded_by: actor.personId }).select<NewRow[]>();
  const byId = new Map(known.map((row) => [row.id, row]));
  const messages: Record<string, string> = {};
  for (const row of rows) {
    const before = byId.get(row.id);
    if (before?.goal_id !== row.goal_id) throw new NotFound('No such entry.');
    if (!isDeepStrictEqual(content(before), content(row))) {
      messages[entryField(row.goal_id)] =
        'An earlier try was saved already, and says something else. Start over here, and correct that entry on its page.';
    }
  }
  if (Object.keys(messages).length > 0) throw new Invalid(messages);
}
