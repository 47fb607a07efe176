import { randomUUID } from 'node:crypto';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { loadDemo } from '~/demo/load';
import { asPerson } from '~/tests/database/as-person';
import { dropDatabase, makeDatabase, newName, urlOf } from '~/tests/database/databases';
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
  today,
} from '~/tests/database/small-school';
import { connect, type Database } from '../platform/db/database';
import { migrate } from '../platform/db/migrate';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import { requireSchoolAdmin } from '../school/administrators';
import { setArchived } from '../students/roster';
import { destroyDue } from './destroy';
import {
  archivedStudents,
  askToDestroy,
  confirmDestruction,
  destructionsOf,
  takeBackDestruction,
} from './destructions';
import { applyReceipts, keepReceipts } from './receipts';
import { answerRecordRequest, noteRecordRequest, recordRequestsOf } from './record-requests';

const fresh = freshDatabase();
const demo = freshDatabase();
let school: SmallSchool;
let head: string;
let second: string;
let app: Database;
beforeAll(async () => {
  school = await fillSmall(fresh.db);
  head = await addPerson(fresh.db, 'head');
  second = await addPerson(fresh.db, 'second');
  await makeAdmin(fresh.db, head);
  await makeAdmin(fresh.db, second);
  app = connect(fresh.url, { poolSize: 1, as: 'app' });
});
afterAll(() => app.destroy());

const as = <Result>(personId: string, work: (trx: Database) => Promise<Result>) => asPerson(app, personId, work);
const asAdmin = <Result>(
  personId: string,
  work: (trx: Database, admin: Awaited<ReturnType<typeof requireSchoolAdmin>>) => Promise<Result>,
) => as(personId, async (trx) => work(trx, await requireSchoolAdmin(trx, actorOf(personId))));

const NAME = 'Ada Example';
const input = (more = {}) => ({
  ...{ id: randomUUID(), studentId: school.student, reason: 'Left seven years ago.', toldOn: today },
  ...{ toldHow: 'By letter to both parents.', typedName: NAME, ...more },
});
const later = (days: number) => new Date(now.getTime() + days * 24 * 3_600_000);

/** Rows that name a student, in whichever column and table. */
async function rowsNaming(db: Database, student: string): Promise<string[]> {
  const columns = await rowsOf(
    db,
    z.object({ table: z.string(), column: z.string() }),
    `select c.table_name as "table", c.column_name as "column"
       from information_schema.columns c join information_schema.tables t using (table_schema, table_name)
      where c.table_schema = 'public' and t.table_type = 'BASE TABLE' and c.data_type in ('uuid', 'jsonb')`,
  );
  const found: string[] = [];
  for (const { table, column } of columns) {
    const rows = await db(table).whereRaw(`strpos(${column}::text, ?) > 0`, [student]);
    if (rows.length > 0) found.push(`${table}.${column}`);
  }
  return found.sort();
}

describe('destroying a record', () => {
  it('is asked for by an administrator, of a student who has left and whom nobody asks to see', async () => {
    await expect(requireSchoolAdmin(fresh.db, actorOf(school.manager))).rejects.toThrow(NotFound);
    const asked = (more = {}) => asAdmin(head, (trx, admin) => askToDestroy(trx, admin, input(more), now));
    await expect(asked()).rejects.toMatchObject({
      fields: { studentId: expect.stringContaining('Archive them first') },
    });
    await expect(asked({ toldOn: '2026-12-24' })).rejects.toMatchObject({ fields: { toldOn: expect.any(String) } });
    await expect(asked({ studentId: randomUUID() })).rejects.toThrow(NotFound);
    const request = { id: randomUUID(), askedBy: 'Ada’s mother', askedOn: today };
    const manager = actorOf(school.manager);
    await as(school.manager, (trx) => noteRecordRequest(trx, manager, school.student, request, now));
    await asAdmin(head, (trx, admin) => setArchived(trx, admin, { studentId: school.student, isArchived: true }, now));
    await expect(asked()).rejects.toMatchObject({ fields: { studentId: expect.stringContaining('asked to see') } });
    await fresh.db('students').update({ archived_at: null });
    await as(school.manager, (trx) => answerRecordRequest(trx, manager, school.student, request.id, now));
    const [known] = await as(school.manager, (trx) => recordRequestsOf(trx, manager, school.student));
    expect(known).toMatchObject({ askedBy: 'Ada’s mother', answeredBy: 'manager' });
    await asAdmin(head, (trx, admin) => setArchived(trx, admin, { studentId: school.student, isArchived: true }, now));
  });

  it('is of whom it is meant: told apart by more than a name, which is typed', async () => {
    const twin = await addStudent(fresh.db, 'Ada', [[school.manager, 'caseManager']]);
    await fresh.db('students').where({ id: twin }).update({ archived_at: now, grade: 'Grade 2', sourced_id: '4711' });
    const chosen = await asAdmin(head, (trx, admin) => archivedStudents(trx, admin));
    expect(chosen.map(({ name }) => name)).toEqual([NAME, NAME]);
    expect(chosen.find(({ id }) => id === twin)).toMatchObject({
      ...{ grade: 'Grade 2', number: '4711', entries: 0, goals: 0, recent: 0 },
    });
    const own = chosen.find(({ id }) => id === school.student)!;
    expect(own.goals).toBeGreaterThan(0);
    expect(own.recent).toBeGreaterThan(0);
    const wrong = asAdmin(head, (trx, admin) => askToDestroy(trx, admin, input({ typedName: 'Ada' }), now));
    await expect(wrong).rejects.toMatchObject({ fields: { typedName: expect.stringContaining(NAME) } });
    await fresh.db.transaction(async (trx) => {
      await trx.raw(`select set_config('app.destroys', 'yes', true)`);
      await trx('team_members').where({ student_id: twin }).delete();
      await trx('students').where({ id: twin }).delete();
    });
  });

  it('is confirmed by another, or taken back; nothing goes before', async () => {
    const one = input();
    await asAdmin(head, (trx, admin) => askToDestroy(trx, admin, one, now));
    await asAdmin(head, (trx, admin) => askToDestroy(trx, admin, one, now));
    await expect(asAdmin(head, (trx, admin) => askToDestroy(trx, admin, input(), now))).rejects.toMatchObject({
      fields: { studentId: 'This was asked for already.' },
    });
    await expect(
      asAdmin(head, (trx, admin) => confirmDestruction(trx, admin, { id: one.id, typedName: NAME }, now)),
    ).rejects.toThrow(Invalid);
    expect(await destroyDue(fresh.db, later(6))).toBe(0);
    await asAdmin(second, (trx, admin) => takeBackDestruction(trx, admin, one.id, now));
    expect(await destroyDue(fresh.db, later(30))).toBe(0);
    expect(await fresh.db('entries').where({ student_id: school.student })).not.toEqual([]);
    await expect(
      asAdmin(second, (trx, admin) => confirmDestruction(trx, admin, { id: one.id, typedName: NAME }, now)),
    ).rejects.toThrow(NotFound);
  });

  it('is taken back by bringing the student back, also for the next time they leave', async () => {
    const archive = (isArchived: boolean) =>
      asAdmin(head, (trx, admin) => setArchived(trx, admin, { studentId: school.student, isArchived }, now));
    const one = input();
    await asAdmin(head, (trx, admin) => askToDestroy(trx, admin, one, now));
    await asAdmin(second, (trx, admin) => confirmDestruction(trx, admin, { id: one.id, typedName: NAME }, now));
    await archive(false);
    expect(await destroyDue(fresh.db, later(30))).toBe(0);
    await archive(true);
    expect(await destroyDue(fresh.db, later(30))).toBe(0);
    expect(await asAdmin(head, (trx, admin) => destructionsOf(trx, admin))).toEqual([]);
  });

  it('is nothing that the application could do by itself', async () => {
    const tried = as(head, async (trx) => {
      await trx.raw(`select set_config('app.destroys', 'yes', true)`);
      await trx.raw(`delete from entries where student_id = ?`, [school.student]);
    });
    await expect(tried).rejects.toMatchObject({ code: '42501' });
    // Nor is it done by the owner without saying so.
    await expect(fresh.db('entries').where({ student_id: school.student }).delete()).rejects.toMatchObject({
      code: '23001',
    });
  });

  it('leaves nothing but a receipt, and is done again in an older copy that is put back', async () => {
    const copy = newName('copy');
    // A copy is made of what nobody is in.
    await Promise.all([fresh.db.destroy(), app.destroy()]);
    await makeDatabase(copy, new URL(fresh.url).pathname.slice(1));
    fresh.db = connect(fresh.url, { poolSize: 1 });
    app = connect(fresh.url, { poolSize: 1, as: 'app' });
    const others = await fresh.db('people').count('* as n').first();

    // Files that wait to come in, of which one names the child.
    const waiting = (text: string) => ({
      ...{
        id: randomUUID(),
        school_id: schoolId,
        made_by: head,
        made_at: now,
        kind: 'goals' as const,
        file_name: 'x.csv',
      },
      ...{ mapping: {}, content: JSON.stringify({ is: 'tables', tables: [{ rows: [[text]] }] }) },
    });
    const [theirs, another] = [waiting('Example, ADA'), waiting('Ben Ode')];
    await fresh.db('imports').insert([theirs, another]);

    const one = input();
    await asAdmin(head, (trx, admin) => askToDestroy(trx, admin, one, now));
    await asAdmin(second, (trx, admin) => confirmDestruction(trx, admin, { id: one.id, typedName: NAME }, now));
    expect(await destroyDue(fresh.db, now)).toBe(1);
    expect(await fresh.db('imports').whereIn('id', [theirs.id, another.id]).pluck('id')).toEqual([another.id]);
    expect(await destroyDue(fresh.db, now)).toBe(0);
    expect(await rowsNaming(fresh.db, school.student)).toEqual(['destructions.student_id']);
    expect(await fresh.db('people').count('* as n').first()).toEqual(others);
    const [receipt] = await asAdmin(head, (trx, admin) => destructionsOf(trx, admin));
    expect(receipt).toMatchObject({
      ...{ keptName: 'Ada Example', keptGrade: 'Grade 4', keptYears: '2026', studentName: null },
      ...{ askedBy: 'head', confirmedBy: 'second', rows: expect.objectContaining({ students: 1, issued_reports: 1 }) },
    });
    await expect(fresh.db('destructions').delete()).rejects.toMatchObject({ code: '23001' });

    const folder = await mkdtemp(join(tmpdir(), 'gm-receipts-'));
    await keepReceipts(fresh.db, folder);
    expect(JSON.parse(await readFile(join(folder, 'destroyed.json'), 'utf8'))).toHaveLength(1);
    const older = connect(urlOf(copy), { poolSize: 1 });
    try {
      expect(await older('students')).toHaveLength(1);
      expect(await applyReceipts(urlOf(copy), folder)).toBe(1);
      expect(await applyReceipts(urlOf(copy), folder)).toBe(0);
      expect(await rowsNaming(older, school.student)).toEqual(['destructions.student_id']);
      expect(await older('destructions').whereNotNull('done_at')).toHaveLength(1);
      await migrate(urlOf(copy));
    } finally {
      await older.destroy();
      await dropDatabase(copy);
      await rm(folder, { recursive: true });
    }
  });

  it('holds for every student of the demo, and takes nothing from the others', async () => {
    await loadDemo(demo.db, now);
    const students = await demo.db('students').orderBy('first_name').select('id', 'school_id');
    const { id: kept } = students.at(-1)!;
    const entriesOf = () =>
      demo.db('entries').where({ student_id: kept }).orderBy('id').select('id', 'version', 'note', 'data', 'answers');
    const before = await entriesOf();
    expect(before.length).toBeGreaterThan(50);
    const ratings = () =>
      demo
        .db('work_sample_ratings as g')
        .join('work_samples as w', 'w.id', 'g.work_sample_id')
        .where({ 'w.student_id': kept });
    const rated = (await ratings()).length;
    for (const { id, school_id } of students.slice(0, -1)) {
      await demo.db('students').where({ id }).update({ archived_at: now });
      await demo.db('destructions').insert({
        ...{ id: randomUUID(), school_id, student_id: id, reason: 'Left.', told_on: today, told_how: 'By letter.' },
        ...{ asked_by_name: 'head', asked_at: now },
      });
    }
    expect(await destroyDue(demo.db, later(6.9))).toBe(0);
    expect(await destroyDue(demo.db, later(7))).toBe(students.length - 1);
    for (const { id } of students.slice(0, -1)) {
      expect(await rowsNaming(demo.db, id)).toEqual(['destructions.student_id']);
    }
    expect(await entriesOf()).toEqual(before);
    expect((await ratings()).length).toBe(rated);
  }, 120_000);
});
