import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import type { Database } from '../platform/db/database';
import { Conflict, NotAllowed } from '../platform/failures';
import type { Actor } from '../school/school';
import { readStudent, type StudentAccess } from '../students/access';
import { can, canChange, type Membership, type Right } from '../students/rights';
import { requireStudent } from '../students/students';

/** What every entry has: whose it is, and which version of it stands. */
export const recordedRow = z.object({
  id: z.string(),
  studentId: readStudent,
  observerId: z.string(),
  observerName: z.string(),
  recordedById: z.string(),
  recordedByName: z.string(),
  recordedAt: z.date(),
  version: z.number(),
  changedByName: z.string().nullable(),
  changedAt: z.date().nullable(),
  changeReason: z.string().nullable(),
  isWithdrawn: z.boolean(),
  isSelfRecorded: z.boolean(),
});
export type Recorded = z.infer<typeof recordedRow>;

/** What an entry that a student made at their own desk, or a classmate of theirs, says of who it was. */
const bySelf = (row: string) =>
  `case when exists (select from forms f where f.id = ${row}.form_id and f.side = 'classmates') then 'Classmate' else 'Student' end`;
/** Why an entry was changed, where the student did it themselves. */
export const CHANGED_BY_STUDENT = 'The student changed it, the same day.';

/** The observer's name: an entry that the student made names them, and not the adult whose card opened the desk. */
export const observerName = (row: string, person: string) =>
  `case when ${row}.self_recorded then ${bySelf(row)} else ${person}.short_name end`;

/** The same as columns of an entry’s row, with the names that belong to it: see `recordedNames`. */
export const recordedColumns = (row: string) => `
  ${row}.id, ${row}.student_id as "studentId", ${row}.observer_id as "observerId", ${observerName(row, 'observer')} as "observerName",
  ${row}.recorded_by as "recordedById", ${observerName(row, 'recorder')} as "recordedByName", ${row}.recorded_at as "recordedAt",
  ${row}.version, case when ${row}.self_recorded and ${row}.change_reason = '${CHANGED_BY_STUDENT}' then ${bySelf(row)} else changer.short_name end as "changedByName",
  ${row}.self_recorded as "isSelfRecorded", ${row}.changed_at as "changedAt",
  ${row}.change_reason as "changeReason", ${row}.withdrawn as "isWithdrawn"`;

/** The people named by `recordedColumns`. */
export const recordedNames = (row: string) => `
  join people observer on observer.id = ${row}.observer_id
  join people recorder on recorder.id = ${row}.recorded_by
  left join people changer on changer.id = ${row}.changed_by`;

const MS_PER_DAY = 86_400_000;

/** Whether the one who asks may correct or withdraw this record. */
export function canChangeEntry(student: Membership, actor: Actor, entry: Recorded, now: Date): boolean {
  return canChange(student, {
    isOwn: !entry.isSelfRecorded && (entry.recordedById === actor.personId || entry.observerId === actor.personId),
    ageInDays: (now.getTime() - entry.recordedAt.getTime()) / MS_PER_DAY,
  });
}

/** Columns with their new content. */
export type Changes = Record<string, unknown>;

interface Change<Entry> {
  studentId: string;
  id: string;
  /** The version that the change was made from. */
  version: number;
  why: string;
  now: Date;
  /** What it takes to make this change; else it must be one’s own, or one must be allowed to change any. */
  right?: Right;
  read: (db: Database, access: StudentAccess<'see'>, options: { lock: boolean }) => Promise<Entry>;
  changesTo: (entry: Entry, db: Database) => Promise<Changes>;
  /** What follows from the change, in the same transaction; `entry` is what stood before. */
  afterwards?: (entry: Entry, changes: Changes, db: Database) => Promise<void>;
  /** Whether an entry says in its other rows too what this change says: then it was sent twice. */
  isSame?: (entry: Entry) => boolean;
}

/**
 * Changes an entry under lock: the database keeps its row as it was, the new content takes its place in every view.
 *
 * @throws NotFound, NotAllowed; Conflict with what stands now, when someone else changed it since `version`
 */
export async function changeRecord<Entry extends Recorded>(
  db: Database,
  actor: Actor,
  { studentId, id, version, why, now, right, read, changesTo, afterwards, isSame }: Change<Entry>,
): Promise<Entry> {
  return db.transaction(async (trx) => {
    const student = await requireStudent(trx, actor, studentId, 'see');
    const entry = await read(trx, student.id, { lock: true });
    const isAllowed = right ? can(student, right) : canChangeEntry(student, actor, entry, now);
    if (!isAllowed) throw new NotAllowed('This entry is not yours to change.');
    const changes = await changesTo(entry, trx);
    if (entry.version !== version || entry.isWithdrawn) {
      const isNext = entry.version === version + 1;
      const said = { id, changed_by: actor.personId, change_reason: why };
      if (isNext && (await isRepeat(trx, said, changes)) && (isSame?.(entry) ?? true)) return entry;
      throw new Conflict(entry);
    }
    await trx('entries')
      .where({ id })
      .update({ ...changes, version: version + 1, changed_by: actor.personId, changed_at: now, change_reason: why });
    await afterwards?.(entry, changes, trx);
    return read(trx, student.id, { lock: false });
  });
}

/** Whether the change that stands is this very one, sent twice. */
async function isRepeat(db: Database, by: Changes, changes: Changes): Promise<boolean> {
  const row = await db('entries').where(by).first();
  const said: Changes = { ...row };
  return (
    row !== undefined && Object.entries(changes).every(([column, value]) => isDeepStrictEqual(said[column], value))
  );
}

/**
 * The rows of an entry as they were before each change, in the shape of the table, for the query that reads what stands. Oldest
 * first where that query orders by version. `:id` is the entry.
 */
export const revisedEntries = `(
  select was.* from entry_revisions r cross join lateral jsonb_populate_record(null::entries, r.row) as was
   where r.entry_id = :id)`;
