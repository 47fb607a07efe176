import { randomUUID } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import JSZip from 'jszip';
import Papa from 'papaparse';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import type { StudentRecord } from '~/core/student-record/record';
import { leftOut, otherTables, recordTableNames, recordTables } from '~/core/student-record/tables';
import { loadDemo } from '~/demo/load';
import { asPerson } from '~/tests/database/as-person';
import { freshDatabase } from '~/tests/database/fresh';
import { fillSmall } from '~/tests/database/small-data';
import {
  actorOf,
  addPerson,
  addStudent,
  makeAdmin,
  now,
  type SmallSchool,
  schoolId,
  sessionOf,
  today,
  wall,
} from '~/tests/database/small-school';
import { addEvidence, preparedElsewhere } from '../entries/evidence/add';
import { recordSession } from '../entries/record';
import { connect, type Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import { requireSchoolAdmin } from '../school/administrators';
import { schoolOf } from '../school/school';
import { letNamesStand } from '../sharing/other-children';
import { requireStudent } from '../students/students';
import { arrivalPage, arrivalsOf, forgetRecord, readIn, receiveRecord } from './arrivals';
import { carryOut } from './carry-out';
import { carryOutSchool } from './carry-out-school';
import { whose } from './whose';

/** Where records leave, where they arrive, and a school whose students have a little of everything. */
const here = freshDatabase();
const there = freshDatabase();
const demo = freshDatabase();
let school: SmallSchool;
let head: string;
const asApp = {} as Record<'here' | 'there', Database>;

beforeAll(async () => {
  school = await fillSmall(here.db);
  await there.db('schools').insert({
    ...{ id: schoolId, name: 'Elder Brook', time_zone: 'America/New_York', weekdays: [1, 2, 3, 4, 5] },
  });
  await there.db('locations').insert({ id: randomUUID(), school_id: schoolId, name: 'Kitchen', position: 0 });
  head = await addPerson(there.db, 'head');
  await makeAdmin(there.db, head);
  asApp.here = connect(here.url, { poolSize: 1, as: 'app' });
  asApp.there = connect(there.url, { poolSize: 1, as: 'app' });
});
afterAll(() => Promise.all(Object.values(asApp).map((db) => db.destroy())));

/** What the database answers to somebody, with nothing but what its policies let them see. */
const as = <Result>(at: 'here' | 'there', personId: string, work: (trx: Database) => Promise<Result>) =>
  asPerson(asApp[at], personId, work);

async function out(db: Database, student: string, personId: string, at = schoolId): Promise<Buffer> {
  const by = { personId, schoolId: at, today };
  const { id } = await requireStudent(db, by, student, 'carryOut');
  return carryOut(db, id, { personId, forWhom: 'the next school' }, { school: await schoolOf(db, at), now });
}

const textIn = async (bytes: Buffer, path: string) =>
  (await (await JSZip.loadAsync(bytes)).file(path)?.async('text')) ?? '';
const recordIn = async (bytes: Buffer): Promise<StudentRecord> => JSON.parse(await textIn(bytes, 'record.json'));

const input = (personId = head) => ({ grade: '5', groupIds: [], caseManagerId: personId, isSomeoneElse: true });

/** Reads a record in at the other school. */
async function into(bytes: Buffer, { id = randomUUID(), more = {} } = {}): Promise<string> {
  return as('there', head, async (trx) => {
    const admin = await requireSchoolAdmin(trx, actorOf(head));
    await receiveRecord(trx, admin, { id }, { name: 'record.zip', bytes }, now);
    return readIn(trx, admin, id, { ...input(), ...more }, now);
  });
}

const A_UUID = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/g;
/** What JSON says, but for its ids, and for the order of what has none. */
function withoutIds(value: unknown): string {
  if (typeof value === 'string') return value.replace(A_UUID, '#');
  if (Array.isArray(value)) return `[${value.map(withoutIds)}]`;
  if (value === null || typeof value !== 'object') return String(value);
  const pairs = Object.entries(value).map(([key, one]) => `${withoutIds(key)}: ${withoutIds(one)}`);
  return `{${pairs.sort()}}`;
}
const inAnyOrder = (rows: unknown[]) => rows.map(withoutIds).sort();

/** Every figure of every entry, as the tables have it; what a rule of the school marks is the school's. */
async function figuresIn(bytes: Buffer): Promise<string[]> {
  const { data } = Papa.parse<Record<string, string>>((await textIn(bytes, 'tables/Entries.csv')).slice(1), {
    header: true,
  });
  return data.map(({ answers: _, ...row }) => JSON.stringify(row)).sort();
}

/** What is another's at the school that reads it in; all else must be the same. */
const changedOnTheWay = {
  team_members: 'who was on the team has left, and there is a case manager',
  access_log: 'it left again',
  changes: 'it came in',
  share_links: 'they are withdrawn',
  works: 'they are closed',
  forms: 'they are closed',
  rules: 'they are switched off',
  cards: 'they are ended',
  follow_ups: 'open ones are the case manager’s',
  rating_links: 'they are withdrawn',
} as const;

function expectSame(first: StudentRecord, second: StudentRecord) {
  for (const table of recordTableNames) {
    if (table in changedOnTheWay) {
      expect(second.tables[table].length, table).toBeGreaterThanOrEqual(first.tables[table].length);
    } else expect(inAnyOrder(second.tables[table]), table).toEqual(inAnyOrder(first.tables[table]));
  }
  const { id: _, ...student } = first.student;
  expect(second.student).toMatchObject({ ...student, grade: '5', groups: [] });
}

describe('a record that leaves and is read in elsewhere', () => {
  it('says the same there, computes the same, and opens no door', async () => {
    const photograph = await sharp({ create: { width: 40, height: 30, channels: 3, background: 'teal' } })
      .jpeg()
      .toBuffer();
    const entry = await here.db('entries').where({ student_id: school.student, version: 1 }).first('id');
    const beside = { id: randomUUID(), entryId: entry?.id ?? '', name: 'bench.jpg', content: photograph };
    await addEvidence(here.db, actorOf(school.manager), school.student, beside, now);
    const bytes = await as('here', school.manager, (trx) => out(trx, school.student, school.manager));
    const first = await recordIn(bytes);
    expect(first.tables.issued_reports).toHaveLength(1);
    expect(first.tables.entry_revisions.length).toBeGreaterThan(1);
    // That it left, for whom, stands in the record itself.
    expect(first.tables.access_log.at(-1)).toMatchObject({ how: 'exported', person_id: school.manager });
    expect(first.tables.access_log.at(-1)?.what).toContain('the next school');
    expect((await JSZip.loadAsync(bytes)).file('progress-reports/1.pdf')).not.toBeNull();

    const id = randomUUID();
    const student = await into(bytes, { id });
    const again = await as('there', head, async (trx) =>
      readIn(trx, await requireSchoolAdmin(trx, actorOf(head)), id, input(), now),
    );
    expect(again).toBe(student);
    expect(await there.db('students')).toHaveLength(1);
    const back = await as('there', head, (trx) => out(trx, student, head));
    expectSame(first, await recordIn(back));
    // Every figure, as the report and its tables have it.
    const figures = await figuresIn(bytes);
    expect(figures.length).toBeGreaterThan(4);
    expect(await figuresIn(back)).toEqual(figures);
    const file = (record: StudentRecord) => record.tables.evidence[0]?.file ?? '';
    const [sent, kept] = await Promise.all(
      [bytes, back].map(async (zip) => (await JSZip.loadAsync(zip)).file(file(first))?.async('nodebuffer')),
    );
    expect(kept).toEqual(sent);

    // The location of the same name is the school's own; nobody who is named can sign in, and nobody of them is on the team.
    expect(await there.db('locations').pluck('name')).toContain('Kitchen');
    const named = await there.db('people').whereNot({ id: head });
    expect(named.length).toBeGreaterThan(0);
    for (const { email, email_proven_at } of named) {
      expect(email).toMatch(/@elsewhere\.invalid$/);
      expect(email_proven_at).toBeNull();
    }
    expect(await there.db('school_staff').pluck('person_id')).toEqual([head]);
    const onTeam = await there.db('team_members').whereRaw(`coalesce(until_date, 'infinity') >= ?`, [today]);
    expect(onTeam.map(({ person_id }) => person_id)).toEqual([head]);
    expect(await there.db('share_links').whereNull('withdrawn_at')).toEqual([]);
    expect(await there.db('share_link_tokens')).toEqual([]);
    expect([...(await there.db('entry_events')), ...(await there.db('messages'))]).toEqual([]);
  });

  it('holds for every student of the demo', async () => {
    await loadDemo(demo.db, now);
    const students = await demo
      .db('students as s')
      .join('team_members as m', 'm.student_id', 's.id')
      .where({ 'm.role': 'caseManager' })
      .orderByRaw(
        `(select count(distinct e.kind) from entries e where e.student_id = s.id)
           + (select count(distinct (g.stack_rater_id is null, g.card_id is null)) from work_sample_ratings g
                join work_samples w on w.id = g.work_sample_id where w.student_id = s.id) desc, s.first_name`,
      )
      .limit(4)
      .select('s.id', 's.school_id', 's.first_name', 'm.person_id');
    const held = new Set<string>();
    for (const one of students) {
      const bytes = await out(demo.db, one.id, one.person_id, one.school_id);
      const student = await into(bytes);
      const back = await as('there', head, (trx) => out(trx, student, head));
      const first = await recordIn(bytes);
      expectSame(first, await recordIn(back));
      expect(await figuresIn(back), one.first_name).toEqual(await figuresIn(bytes));
      for (const table of recordTableNames) if (first.tables[table].length > 0) held.add(table);
    }
    // The demo has enough of everything for that to mean something.
    expect([...held]).toEqual(
      expect.arrayContaining(['works', 'work_states', 'forms', 'work_sample_ratings', 'goals']),
    );
  }, 120_000);

  it('names no other child, unless a name was let stand, and tells nothing that leads in', async () => {
    await addStudent(here.db, 'Quillon', [[school.manager, 'caseManager']]);
    const manager = actorOf(school.manager);
    const note = async (text: string, on: string) => {
      const session = sessionOf(school, ['independent'], { on });
      const entries = session.entries.map((entry) => ({ ...entry, note: text }));
      return (
        (await recordSession(here.db, manager, school.student, { ...session, entries }, { wall, now })).ids[0] ?? ''
      );
    };
    await note('Quillon took the watering can.', '2026-11-12');
    const kept = await note('Quillon helped.', '2026-11-13');
    await letNamesStand(here.db, manager, school.student, { entryId: kept, version: 1 }, now);
    const content = await sharp({ create: { width: 9, height: 9, channels: 3, background: 'red' } })
      .jpeg()
      .toBuffer();
    for (const name of ['Quillon and Ada.jpg', 'Of Quillon only.jpg']) {
      await addEvidence(here.db, manager, school.student, { id: randomUUID(), entryId: kept, name, content }, now);
    }
    await here
      .db('evidence')
      .where({ name: 'Of Quillon only.jpg' })
      .update({ withdrawn_by: school.manager, withdrawn_at: now });
    const bytes = await as('here', school.manager, (trx) => out(trx, school.student, school.manager));
    // Not in the name of a file either; and what was taken away stays here.
    const files = (await recordIn(bytes)).tables.evidence.map(({ name }) => name);
    expect(files.sort()).toEqual(['A classmate and Ada.jpg', 'bench.jpg']);
    const notes = (await recordIn(bytes)).tables.entries.map((entry) => entry.note);
    expect(notes).toContain('A classmate took the watering can.');
    expect(notes).toContain('Quillon helped.');
    expect(await textIn(bytes, 'tables/Entries.csv')).not.toContain('Quillon took');
    const whole = await textIn(bytes, 'record.json');
    for (const secret of ['token_hash', 'passcode', 'password', 'school.example', 'giver_id":"']) {
      expect(whole).not.toContain(secret);
    }
  });

  it('is carried out by who shares the student’s reports, and read in by who sets up the school', async () => {
    await expect(out(here.db, school.student, school.aide)).rejects.toThrow(NotFound);
    const bytes = await out(here.db, school.student, school.manager);
    const stranger = await addPerson(there.db, 'stranger');
    await expect(requireSchoolAdmin(there.db, actorOf(stranger))).rejects.toThrow(NotFound);
    const id = randomUUID();
    await as('there', head, async (trx) =>
      receiveRecord(trx, await requireSchoolAdmin(trx, actorOf(head)), { id }, { name: 'r.zip', bytes }, now),
    );
    // A record that waits is a record: who does not set up the school finds none.
    expect(await as('there', stranger, (trx) => trx('record_arrivals').select('id'))).toEqual([]);
    const shown = await as('there', head, async (trx) =>
      arrivalPage(trx, await requireSchoolAdmin(trx, actorOf(head)), id),
    );
    expect(shown.open).toMatchObject({ from: 'Test School', newLocations: [], isAgain: true });
    // Somebody of that name is there: it is asked about.
    const asked = as('there', head, async (trx) =>
      readIn(trx, await requireSchoolAdmin(trx, actorOf(head)), id, { ...input(), isSomeoneElse: false }, now),
    );
    await expect(asked).rejects.toMatchObject({ fields: { isSomeoneElse: expect.stringContaining('Ada Example') } });
    await as('there', head, async (trx) => {
      const admin = await requireSchoolAdmin(trx, actorOf(head));
      await forgetRecord(trx, admin, id);
      expect((await arrivalsOf(trx, admin)).map((one) => one.id)).not.toContain(id);
    });
  });
});

it('a whole school leaves student by student, goes on where it stopped, and says so in each access log', async () => {
  const folder = await mkdtemp(join(tmpdir(), 'gm-records-'));
  const of = await schoolOf(here.db, schoolId);
  const asked = { personId: school.manager, forWhom: 'the district', folder, today, now };
  await expect(carryOutSchool(here.db, of, { ...asked, personId: school.aide })).rejects.toThrow(NotFound);
  await makeAdmin(here.db, school.manager);
  const logged = () => here.db('access_log').whereLike('what', '%the district%');
  expect(await carryOutSchool(here.db, of, asked)).toBe(2);
  const files = (await readdir(folder)).sort();
  expect(files).toHaveLength(3);
  expect(files).toContain('school.json');
  const about = JSON.parse(await readFile(join(folder, 'school.json'), 'utf8'));
  expect(about).toMatchObject({ name: 'Test School', setUp: { locations: [{ name: 'Kitchen' }] } });
  expect(JSON.stringify(about)).not.toContain('password');
  const [ada] = files.filter((name) => name.startsWith('Example-Ada'));
  expect((await recordIn(await readFile(join(folder, ada ?? '')))).student.firstName).toBe('Ada');
  expect(await logged()).toHaveLength(2);
  await carryOutSchool(here.db, of, asked);
  expect(await logged()).toHaveLength(2);
  const sealed = { ...asked, folder: join(folder, 'sealed'), passphrase: 'a long passphrase' };
  await carryOutSchool(here.db, of, sealed);
  for (const name of await readdir(sealed.folder)) {
    expect(name).toMatch(/\.age$/);
    expect((await readFile(join(sealed.folder, name))).subarray(0, 21).toString()).toBe('age-encryption.org/v1');
  }
  await rm(folder, { recursive: true });
});

describe('what is no record, or not whole', () => {
  const changed = async (change: (record: StudentRecord) => void, without = '') => {
    const zip = await JSZip.loadAsync(await out(here.db, school.student, school.manager));
    const record = JSON.parse((await zip.file('record.json')?.async('text')) ?? '') as StudentRecord;
    change(record);
    zip.file('record.json', JSON.stringify(record));
    if (without) zip.remove(without);
    return zip.generateAsync({ type: 'nodebuffer' });
  };
  const first = <T>(rows: T[]) => rows[0] as T;
  const refused = async (bytes: Buffer) => {
    const before = await there.db('students').count('* as n');
    const error = await into(bytes).catch((thrown: unknown) => thrown);
    expect(await there.db('students').count('* as n')).toEqual(before);
    expect(error).toBeInstanceOf(Invalid);
    return Object.values((error as Invalid).fields).join(' ');
  };

  it('is refused with what is wrong, and nothing of it is read in', async () => {
    expect(await refused(Buffer.from('no archive'))).toContain('damaged');
    expect(await refused(await new JSZip().generateAsync({ type: 'nodebuffer' }))).toContain('no record.json');
    const later = (record: StudentRecord) => Object.assign(record, { version: 2 });
    expect(await refused(await changed(later))).toContain('later version');
    expect(await refused(await changed(() => {}, 'files/1.jpg'))).toContain('files/1.jpg is not in it');
    const elsewhere = (record: StudentRecord) => Object.assign(first(record.tables.goals), { continues: randomUUID() });
    expect(await refused(await changed(elsewhere))).toContain('goals › 0 › continues');
    const other = (record: StudentRecord) => Object.assign(first(record.tables.goals), { target: '80' });
    expect(await refused(await changed(other))).toContain('tables › goals › 0 › target');
    const misfit = (record: StudentRecord) =>
      Object.assign(first(record.tables.entries.filter(({ data }) => data !== null)), { data: { seconds: 3 } });
    expect(await refused(await changed(misfit))).toContain('does not fit how its goal was measured');
    const backwards = (record: StudentRecord) => Object.assign(first(record.tables.plans), { ends_on: '2020-01-01' });
    expect(await refused(await changed(backwards))).toContain('contradicts itself in plans');
    const outside = (record: StudentRecord) =>
      Object.assign(first(record.tables.reporting_periods), { ends_on: '2031-01-01' });
    expect(await refused(await changed(outside))).toContain('reporting_periods_in_plan');
  });

  it('takes a photograph with a place in it apart', async () => {
    const plain = await sharp({ create: { width: 9, height: 9, channels: 3, background: 'red' } })
      .jpeg()
      .toBuffer();
    expect((await preparedElsewhere(plain)).content).toEqual(plain);
    const placed = await sharp(plain)
      .withExif({ IFD0: { Copyright: 'By the pond' } })
      .toBuffer();
    expect(placed.includes('By the pond')).toBe(true);
    expect((await preparedElsewhere(placed)).content.includes('By the pond')).toBe(false);
  });
});

it('every column that holds something of a student is in the record, or is left out for a reason', async () => {
  const rows = await rowsOf(
    here.db,
    z.object({ table: z.string(), columns: z.array(z.string()) }),
    `select c.table_name as "table", array_agg(c.column_name::text order by c.column_name) as columns
       from information_schema.columns c join information_schema.tables t using (table_schema, table_name)
      where c.table_schema = 'public' and t.table_type = 'BASE TABLE' group by c.table_name`,
  );
  const columnsOf = new Map(rows.map(({ table, columns }) => [table, columns]));
  for (const table of recordTableNames) {
    const told = Object.keys(recordTables[table].shape).filter((column) => column !== 'file');
    const rest = [
      ...(leftOut[table] ?? []),
      ...whose[table].owner.filter((column) => !leftOut[table]?.includes(column)),
    ];
    expect([...told, ...rest].sort(), table).toEqual(columnsOf.get(table));
  }
  const withStudent = rows.filter(({ columns }) => columns.includes('student_id')).map(({ table }) => table);
  const unsaid = withStudent.filter((table) => !(table in recordTables) && !(table in otherTables));
  expect(unsaid).toEqual([]);
});
