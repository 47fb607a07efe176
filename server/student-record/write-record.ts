import { randomBytes } from 'node:crypto';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { StudentRecord, TablesOfRecord } from '~/core/student-record/record';
import { type RecordTable, recordTableNames, recordTables } from '~/core/student-record/tables';
import { preparedElsewhere } from '../entries/evidence/add';
import { hashPassword } from '../people/passwords';
import type { Database } from '../platform/db/database';
import { existing, Invalid } from '../platform/failures';
import type { SchoolAdmin } from '../school/administrators';
import type { Arrived } from './archive';
import { whose } from './whose';

interface Receiving {
  admin: SchoolAdmin;
  now: Date;
  /** The last day of who was on the team before. */
  until: IsoDate;
  caseManagerId: string;
}

type Rows = { [T in RecordTable]: Record<string, unknown>[] };

/**
 * Writes a record's rows down for a student who is on the roster already, under ids that nobody else has. Call it at the student's door.
 *
 * @throws Invalid at `form` where the database finds that it contradicts itself
 */
export async function writeRecord(trx: Database, receiving: Receiving, { record, files }: Arrived): Promise<void> {
  const { admin } = receiving;
  const owner = { student_id: record.student.id, school_id: admin.schoolId };
  await writePeople(trx, record.people);
  await writeLocations(trx, admin, record.locations);
  const rows = received(record, receiving);
  for (const table of recordTableNames) {
    const own = Object.fromEntries(whose[table].owner.map((column) => [column, owner[column]]));
    await naming(table, async () => {
      if (table === 'evidence') return writeEvidence(trx, record.student.id, record.tables.evidence, files);
      if (table === 'work_sample_files') return writeWorkFiles(trx, record.tables.work_sample_files, files);
      return writeRows(
        trx,
        table,
        rows[table].map((row) => ({ ...row, ...own })),
      );
    });
  }
  // What is held at the end of a transaction is held here, so that what is wrong is said to the one who reads it in.
  await naming('its rows together', () => trx.raw('set constraints all immediate'));
}

/** Rows as this school keeps them: who was on the team has left, what was open to others is closed. */
function received({ tables }: StudentRecord, { admin, now, until, caseManagerId }: Receiving): Rows {
  const at = now.toISOString();
  const token = () => `\\x${randomBytes(32).toString('hex')}`;
  const changed: Partial<Rows> = {
    team_members: tables.team_members
      .filter(({ from_date }) => from_date <= until)
      .map((one) => ({ ...one, until_date: one.until_date && one.until_date < until ? one.until_date : until })),
    forms: tables.forms.map((one) => ({ ...one, closed_at: one.closed_at ?? at })),
    rating_links: tables.rating_links.map((one) => ({
      ...{ ...one, withdrawn_at: one.withdrawn_at ?? at, token_hash: token() },
    })),
    share_links: tables.share_links.map((one) =>
      one.withdrawn_at ? one : { ...one, withdrawn_at: at, withdrawn_by: admin.personId },
    ),
    rules: tables.rules.map((one) => ({ ...one, switched_off_at: one.switched_off_at ?? at })),
    follow_ups: tables.follow_ups.map((one) => (one.done_at ? one : { ...one, for_person: caseManagerId })),
    cards: tables.cards.map((one) => ({
      ...{ ...one, ended_at: one.ended_at ?? at, token_hash: token(), code_hash: token() },
    })),
    // Whoever has none of the students of a piece of work is not shown it, unless they made it.
    works: tables.works.map((one) => ({ ...one, made_by: admin.personId, closed_at: one.closed_at ?? at })),
  };
  return { ...(tables as unknown as Rows), ...changed };
}

/** Those of a record are names here: an address that reaches nobody (RFC 2606), and a password that nobody has. */
async function writePeople(trx: Database, people: StudentRecord['people']): Promise<void> {
  if (people.length === 0) return;
  const password_hash = await hashPassword(randomBytes(32).toString('hex'));
  await trx('people').insert(
    people.map(({ id, name, shortName, initials, work }) => ({
      ...{ id, name, short_name: shortName, initials, work, email: `${id}@elsewhere.invalid`, password_hash },
    })),
  );
}

async function writeLocations(trx: Database, { schoolId }: SchoolAdmin, locations: StudentRecord['locations']) {
  const there = await trx('locations').where({ school_id: schoolId }).select('id', 'position');
  const known = new Set(there.map(({ id }) => id));
  const first = Math.max(-1, ...there.map(({ position }) => position)) + 1;
  const rows = locations
    .filter(({ id }) => !known.has(id))
    .map(({ id, name }, at) => ({ id, name, school_id: schoolId, position: first + at }));
  if (rows.length > 0) await trx('locations').insert(rows);
}

/** All rows of a table in one statement: they may point at each other in any order. */
async function writeRows(trx: Database, table: RecordTable, rows: Record<string, unknown>[]): Promise<void> {
  const [first] = rows;
  if (!first) return;
  const columns = [...new Set([...Object.keys(recordTables[table].shape), ...Object.keys(first)])].join(', ');
  await trx.raw(
    `insert into ${table} (${columns}) select ${columns} from jsonb_populate_recordset(null::${table}, cast(? as jsonb))`,
    [JSON.stringify(rows)],
  );
}

async function writeEvidence(
  trx: Database,
  student_id: string,
  rows: TablesOfRecord['evidence'],
  files: Arrived['files'],
): Promise<void> {
  for (const { file, type: _, added_at, withdrawn_at, ...row } of rows) {
    const { content, ...prepared } = await preparedElsewhere(existing(files.get(file)));
    await trx('evidence').insert({
      ...{ ...row, ...prepared, student_id, content, bytes: content.length },
      ...{ added_at: new Date(added_at), withdrawn_at: withdrawn_at === null ? null : new Date(withdrawn_at) },
    });
  }
}

async function writeWorkFiles(trx: Database, rows: TablesOfRecord['work_sample_files'], files: Arrived['files']) {
  for (const { file, work_sample_id, added_by, added_at } of rows) {
    const { content, type } = await preparedElsewhere(existing(files.get(file)));
    await trx('work_sample_files').insert({
      ...{ work_sample_id, added_by, added_at: new Date(added_at), content, type, bytes: content.length },
    });
  }
}

/** What a column cannot hold, or a rule of the tables forbids. */
const CONTRADICTS = /^2[23]/;

async function naming(what: string, write: () => Promise<unknown>): Promise<void> {
  try {
    await write();
  } catch (error) {
    if (error instanceof Invalid) throw new Invalid({ form: `${what}: ${error.fields.file ?? error.message}` });
    const { code, constraint } = (error ?? {}) as { code?: unknown; constraint?: unknown };
    if (typeof code !== 'string' || !CONTRADICTS.test(code)) throw error;
    throw new Invalid({
      form: `The record contradicts itself in ${what}${constraint ? ` (${constraint})` : ''}. Nothing was read in.`,
    });
  }
}
