import { z } from 'zod';
import { defined } from '~/core/defined';
import { toldOf } from '~/core/student-record/columns';
import { RECORD_FORMAT, RECORD_VERSION, type StudentRecord, type TablesOfRecord } from '~/core/student-record/record';
import { type RecordTable, recordTableNames, recordTables } from '~/core/student-record/tables';
import { withoutNames } from '~/core/students/names/other-children';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import type { School } from '../school/school';
import { rosterFinder } from '../sharing/other-children';
import type { StudentAccess } from '../students/access';
import { whose } from './whose';

const A_UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g;

const headRow = z.object({
  ...{ id: z.string(), firstName: z.string(), lastName: z.string(), shortName: z.string(), initials: z.string() },
  ...{ grade: z.string(), groups: z.array(z.string()) },
});
const personRow = z.object({
  ...{ id: z.string(), name: z.string(), shortName: z.string(), initials: z.string(), work: z.string() },
});
const locationRow = z.object({ id: z.string(), name: z.string() });
const row = z.record(z.string(), z.unknown());

/** What an entry says, in which a name may have been let stand. */
const letStand: ReadonlySet<string> = new Set(['note', 'answers', 'row']);

/**
 * Everything that is held of a student, as it leaves: other children are “a classmate” in what somebody wrote, unless the case manager let
 * a name stand; who is named is named, and nothing leads in. Files are named in it, and are read by `recordFile`.
 *
 * @param fileOf  where a file will stand in the archive, by its row and type
 */
export async function readOut(
  db: Database,
  studentId: StudentAccess<'carryOut'>,
  { school, now, fileOf }: { school: School; now: Date; fileOf: (id: string, type: string) => string },
): Promise<StudentRecord> {
  const find = await rosterFinder(db, studentId);
  const hide = (text: string) => withoutNames(text, find, studentId);
  const standing = new Set(
    (await db('kept_names').where({ student_id: studentId }).select('entry_id', 'version')).map(
      (one) => `${one.entry_id} ${one.version}`,
    ),
  );
  const tables: Partial<Record<RecordTable, unknown[]>> = {};
  for (const name of recordTableNames) {
    const { where, order, from, columns = {} } = whose[name];
    const wanted = Object.entries(recordTables[name].shape as Record<string, z.ZodType>);
    const list = wanted.map(([column]) => (columns[column] ? `${columns[column]} as ${column}` : column)).join(', ');
    const sql = `select ${list} from ${from ?? name} where ${where} order by ${order}`;
    const free = wanted.flatMap(([column, schema]) => (toldOf(schema).isFree ? [column] : []));
    tables[name] = (await rowsOf(db, row, sql, { student: studentId })).map((found) => {
      const at = `${found.entry_id ?? found.id} ${found.version}`;
      const stands = (name === 'entries' || name === 'entry_revisions') && standing.has(at);
      const names = stands ? free.filter((column) => !letStand.has(column)) : free;
      const told: Record<string, unknown> = { ...found };
      for (const column of names) told[column] = hideIn(told[column], hide);
      if ('file' in told) told.file = fileOf(String(found.id ?? found.work_sample_id), String(found.type));
      // Of a revision its whole row is kept: who gave feedback among classmates leaves as little as in the entry itself.
      if (name === 'entry_revisions') told.row = { ...(told.row as object), giver_id: null };
      return told;
    });
  }
  // As JSON says it: moments are texts.
  const plain = JSON.parse(JSON.stringify(tables)) as TablesOfRecord;
  const ids = [...new Set(JSON.stringify(plain).match(A_UUID) ?? [])];
  const [student] = await rowsOf(
    db,
    headRow,
    `select id, first_name as "firstName", last_name as "lastName", short_name as "shortName", initials, grade,
            array(select g.name from student_groups m join class_groups g on g.id = m.group_id
                   where m.student_id = s.id order by g.position) as groups
       from students s where id = :studentId`,
    { studentId },
  );
  const people = await rowsOf(
    db,
    personRow,
    `select id, name, short_name as "shortName", initials, work from people where id = any(:ids) order by name, id`,
    { ids },
  );
  const locations = await rowsOf(
    db,
    locationRow,
    `select id, name from locations where id = any(:ids) order by position, id`,
    { ids },
  );
  return {
    ...{ format: RECORD_FORMAT, version: RECORD_VERSION, madeAt: now.toISOString() },
    school: { name: school.name, timeZone: school.timeZone },
    ...{ student: defined(student), people, locations, tables: plain },
  };
}

/** A value with every text in it as a reader from outside may read it. */
export function hideIn<T>(value: T, hide: (text: string) => string): T {
  if (typeof value === 'string') return hide(value) as T;
  if (Array.isArray(value)) return value.map((one) => hideIn(one, hide)) as T;
  if (value === null || typeof value !== 'object' || value instanceof Date) return value;
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, hideIn(one, hide)])) as T;
}

/** The bytes of a file that a record names. */
export async function recordFile(db: Database, studentId: StudentAccess<'carryOut'>, id: string): Promise<Buffer> {
  const beside = await db('evidence').where({ id, student_id: studentId }).first('content');
  if (beside) return beside.content;
  const [work] = await rowsOf(
    db,
    z.object({ content: z.instanceof(Buffer) }),
    `select f.content from work_sample_files f join work_samples w on w.id = f.work_sample_id
      where f.work_sample_id = :id and w.student_id = :studentId`,
    { id, studentId },
  );
  return defined(work).content;
}
