import { z } from 'zod';
import { addDays } from '~/core/calendar/iso-date';
import {
  type ArrivalUpload,
  MOST_RECORD_BYTES,
  type ReadInInput,
  recordTooLargeWords,
} from '~/core/student-record/arrival';
import { quietly } from '../imports/imports';
import { throughDoor } from '../platform/db/asking';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import type { SchoolAdmin } from '../school/administrators';
import { writeChange } from '../school/changes';
import { addStudent } from '../students/roster';
import { briefOf, openArchive, type RecordBrief } from './archive';
import { writeRecord } from './write-record';

/** Records that wait to be read in, of a school. */
const MOST_OPEN = 10;

const arrivalRow = z.object({
  ...{ id: z.string(), fileName: z.string(), madeBy: z.string(), madeAt: z.date(), doneAt: z.date().nullable() },
  studentName: z.string().nullable(),
});
export type Arrival = z.infer<typeof arrivalRow>;

const query = `
  select a.id, a.file_name as "fileName", p.name as "madeBy", a.made_at as "madeAt", a.done_at as "doneAt",
         s.first_name || ' ' || s.last_name as "studentName"
    from record_arrivals a join people p on p.id = a.made_by left join students s on s.id = a.student_id`;

/** The records that arrived at a school, newest first. */
export const arrivalsOf = (db: Database, { schoolId }: SchoolAdmin): Promise<Arrival[]> =>
  rowsOf(db, arrivalRow, `${query} where a.school_id = :schoolId order by a.made_at desc limit 100`, { schoolId });

/**
 * Takes a record in to be looked at: nothing of it is read in yet. Sent twice, it is taken in once.
 *
 * @throws Invalid at `file` where it is none, is not whole, or does not fit itself
 */
export async function receiveRecord(
  db: Database,
  admin: SchoolAdmin,
  { id }: ArrivalUpload,
  { name, bytes }: { name: string; bytes: Buffer },
  now: Date,
): Promise<void> {
  if (bytes.length > MOST_RECORD_BYTES) throw new Invalid({ file: recordTooLargeWords });
  const open = await db('record_arrivals')
    .where({ school_id: admin.schoolId, done_at: null })
    .whereNot({ id })
    .select('id');
  if (open.length >= MOST_OPEN)
    throw new Invalid({ file: `${MOST_OPEN} records wait to be read in: read them in first, or forget them.` });
  const { student } = await briefOf(bytes);
  await db('record_arrivals')
    .insert({
      ...{ id, school_id: admin.schoolId, file_name: name.slice(-200) || 'record.zip', archive: bytes },
      ...{ source_id: student.id, made_by: admin.personId, made_at: now },
    })
    .onConflict('id')
    .ignore();
}

interface Waiting {
  archive: Buffer | null;
  sourceId: string;
  studentId: string | null;
}
async function waiting(db: Database, { schoolId }: SchoolAdmin, id: string, { lock = false } = {}): Promise<Waiting> {
  const asked = db('record_arrivals').where({ id, school_id: schoolId });
  const row = await (lock ? asked.forUpdate() : asked).first('archive', 'source_id', 'student_id');
  if (!row) throw new NotFound('No such record.');
  return { archive: row.archive, sourceId: row.source_id, studentId: row.student_id };
}

/** What the page of a record shows before it is read in. */
export interface ShownArrival {
  listed: Arrival;
  /** Null once it was read in. */
  open:
    | (Omit<RecordBrief, 'locations'> & {
        /** Locations that the school does not have yet. */
        newLocations: string[];
        /** Whether the same student's record was read in before. */
        isAgain: boolean;
      })
    | null;
}

/** @throws NotFound */
export async function arrivalPage(db: Database, admin: SchoolAdmin, id: string): Promise<ShownArrival> {
  const { archive, sourceId } = await waiting(db, admin, id);
  const [listed] = await rowsOf(db, arrivalRow, `${query} where a.id = :id`, { id });
  if (!listed) throw new NotFound('No such record.');
  if (!archive) return { listed, open: null };
  const { locations, ...record } = await briefOf(archive);
  const there = await locationIds(db, admin);
  const before = await db('record_arrivals')
    .where({ school_id: admin.schoolId, source_id: sourceId })
    .whereNotNull('done_at')
    .first('id');
  return {
    listed,
    open: {
      ...record,
      newLocations: locations.flatMap((name) => (there.has(name.toLowerCase()) ? [] : name)),
      isAgain: before !== undefined,
    },
  };
}

async function locationIds(db: Database, { schoolId }: SchoolAdmin): Promise<Map<string, string>> {
  const rows = await db('locations').where({ school_id: schoolId }).select('id', 'name');
  return new Map(rows.map(({ id, name }) => [name.toLowerCase(), id]));
}

/**
 * Reads a record in: the student stands on the roster with a case manager of this school, and everything of the record stands in theirs,
 * as it was. Whoever is named in it comes as a name, without an account; who was on the team is not on it any more; share links are
 * withdrawn. In one transaction; asked twice, it is read in once.
 *
 * @returns the student's id
 * @throws NotFound; Invalid where the roster has somebody of that name, or the record contradicts itself
 */
export async function readIn(
  db: Database,
  admin: SchoolAdmin,
  id: string,
  input: ReadInInput,
  now: Date,
): Promise<string> {
  return db.transaction(async (trx) => {
    const { archive, studentId: done } = await waiting(trx, admin, id, { lock: true });
    if (done) return done;
    if (!archive) throw new NotFound('No such record.');
    const arrived = await openArchive(archive, id, await locationIds(trx, admin));
    const { student } = arrived.record;
    const { firstName, lastName, shortName, initials } = student;
    await addStudent(trx, admin, { id: student.id, firstName, lastName, shortName, initials, ...input }, now);
    await quietly(trx, true);
    await throughDoor(trx, { to: student.id, from: '' }, () =>
      writeRecord(trx, { admin, now, until: addDays(admin.today, -1), caseManagerId: input.caseManagerId }, arrived),
    );
    await quietly(trx, false);
    await trx('record_arrivals').where({ id }).update({ archive: null, done_at: now, student_id: student.id });
    const after = { record: arrived.record.school.name, madeAt: arrived.record.madeAt };
    await writeChange(trx, admin.personId, { what: 'import', studentId: student.id, before: null, after }, now);
    return student.id;
  });
}

/** Forgets a record that was not read in. @throws NotFound */
export async function forgetRecord(db: Database, admin: SchoolAdmin, id: string): Promise<void> {
  const gone = await db('record_arrivals').where({ id, school_id: admin.schoolId, done_at: null }).delete();
  if (gone === 0) throw new NotFound('No such record.');
}
