import type { Database } from '../platform/db/database';
import { existing, Invalid } from '../platform/failures';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';
import { requireStudent } from '../students/students';
import { type Observation, observationOf, observationsOf } from './read';

/** The other entry of a pair, if this one is in a pair. */
export async function partnerOf(db: Database, entry: Observation): Promise<Observation | null> {
  const id = entry.pairsWith ?? (await db('entries').where({ pairs_with: entry.id }).first('id'))?.id;
  return id ? observationOf(db, entry.studentId, id) : null;
}

/** Entries that may be a second observer's of the same session: same goal and day, somebody else's, in no pair yet. */
export async function pairable(db: Database, entry: Observation): Promise<Observation[]> {
  const all = await observationsOf(db, [entry.studentId], { goalId: entry.goalId });
  const taken = new Set(all.flatMap(({ id, pairsWith }) => (pairsWith === null ? [] : [id, pairsWith])));
  // A student at their own desk is no observer.
  if (taken.has(entry.id) || entry.isWithdrawn || entry.isSelfRecorded) return [];
  return all.filter(
    ({ id, on, observerId, goalVersion, isSelfRecorded }) =>
      on === entry.on &&
      observerId !== entry.observerId &&
      goalVersion === entry.goalVersion &&
      !isSelfRecorded &&
      !taken.has(id),
  );
}

/** The pairs among some entries, each as the entry that counts and the second observer's. */
export function pairsAmong<T extends Pick<Observation, 'id' | 'pairsWith'>>(entries: readonly T[]): [T, T][] {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  return entries.flatMap((second): [T, T][] => {
    const first = second.pairsWith === null ? undefined : byId.get(second.pairsWith);
    return first ? [[first, second]] : [];
  });
}

/**
 * Marks two entries as those of two observers of the same session. The one that was recorded first is the one that counts.
 *
 * @throws NotFound; Invalid when they cannot be of the same session
 */
export async function markPair(
  db: Database,
  actor: Actor,
  { studentId, entryId, otherId }: { studentId: string; entryId: string; otherId: string },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const access = (await requireStudent(trx, actor, studentId, 'observe')).id;
    // Locked in one order, whoever asks first.
    for (const id of [entryId, otherId].toSorted()) await observationOf(trx, access, id, { lock: true });
    const entry = await observationOf(trx, access, entryId);
    const other = await observationOf(trx, access, otherId);
    if (entry.pairsWith === otherId || other.pairsWith === entryId) return;
    if (!(await pairable(trx, entry)).some(({ id }) => id === otherId)) {
      throw new Invalid({ otherId: 'These two are not of one session, or one of them is in a pair already.' });
    }
    const [first, second] = entry.recordedAt <= other.recordedAt ? [entry, other] : [other, entry];
    await setPair(trx, actor, { studentId, first: first.id, second: second.id }, now);
  });
}

/** Takes a pair apart: both entries count again. */
export async function unmarkPair(
  db: Database,
  actor: Actor,
  { studentId, entryId }: { studentId: string; entryId: string },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const access = (await requireStudent(trx, actor, studentId, 'observe')).id;
    const entry = await observationOf(trx, access, entryId);
    await takeApart(trx, actor, entry, now);
  });
}

/** Frees an entry, and the one it is paired with. Ask first who may. */
export async function takeApart(
  db: Database,
  { personId }: Pick<Actor, 'personId'>,
  { id, studentId }: Pick<Observation, 'id' | 'studentId'>,
  now: Date,
): Promise<void> {
  const paired = await db('entries')
    .whereNotNull('pairs_with')
    .where((one) => one.where({ id }).orWhere({ pairs_with: id }))
    .select('id', 'pairs_with', 'observed_on');
  for (const { id: second, pairs_with: first, observed_on: on } of paired) {
    if (first === null) continue;
    await db('entries').where({ id: second }).update({ pairs_with: null, paired_by: null, paired_at: null });
    const before = pairSaid({ first, second, on });
    await writeChange(db, personId, { what: 'second observer', studentId, before, after: null }, now);
  }
}

const pairSaid = ({ first, second, on }: { first: string; second: string; on: string }) => ({
  ...{ firstId: first, secondId: second, entries: `two of ${on}` },
});

/**
 * Pairs what a second observer has just saved with the first one's entries of that day, each with the nearest in time.
 *
 * @returns how many found their partner; the others can be paired later
 */
export async function pairBeside(
  db: Database,
  actor: Actor,
  { studentId, ids, besideId }: { studentId: StudentAccess<'see'>; ids: readonly string[]; besideId: string },
  now: Date,
): Promise<number> {
  return db.transaction(async (trx) => {
    let paired = 0;
    for (const id of ids) {
      const entry = await observationOf(trx, studentId, id, { lock: true });
      if (entry.pairsWith !== null) paired++;
      const found = (await pairable(trx, entry)).filter(({ observerId }) => observerId === besideId);
      const [nearest] = found.toSorted((a, b) => apart(a, entry) - apart(b, entry));
      if (!nearest) continue;
      await setPair(trx, actor, { studentId, first: nearest.id, second: id }, now);
      paired++;
    }
    return paired;
  });
}

const minutesOf = (time: string) => 60 * Number(time.slice(0, 2)) + Number(time.slice(3, 5));
const apart = (a: Observation, b: Observation) => Math.abs(minutesOf(a.time) - minutesOf(b.time));

async function setPair(
  db: Database,
  actor: Actor,
  { studentId, first, second }: { studentId: string; first: string; second: string },
  now: Date,
) {
  const [row] = await db('entries')
    .where({ id: second })
    .update({ pairs_with: first, paired_by: actor.personId, paired_at: now })
    .returning('observed_on');
  const after = pairSaid({ first, second, on: existing(row).observed_on });
  await writeChange(db, actor.personId, { what: 'second observer', studentId, before: null, after }, now);
}
