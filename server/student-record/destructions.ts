import { z } from 'zod';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { type DestructionInput, RECENT_DAYS, WAIT_DAYS } from '~/core/student-record/destruction';
import { type Database, isDuplicate } from '../platform/db/database';
import { rowsOf, written } from '../platform/db/rows';
import { existing, Invalid, NotFound } from '../platform/failures';
import type { SchoolAdmin } from '../school/administrators';
import { writeChange } from '../school/changes';
import type { School } from '../school/school';

const destructionRow = z.object({
  ...{ id: z.string(), studentId: z.string(), reason: z.string(), toldOn: z.string(), toldHow: z.string() },
  ...{ askedById: z.string().nullable(), askedBy: z.string(), askedAt: z.date(), confirmedBy: z.string().nullable() },
  ...{ confirmedAt: z.date().nullable(), doneAt: z.date().nullable() },
  /** Of one that is not done: who it is. */
  studentName: z.string().nullable(),
  ...{ keptName: z.string().nullable(), keptGrade: z.string().nullable(), keptYears: z.string().nullable() },
  rows: written<Record<string, number> | null>(),
  /** Whether it waits because the record is asked for. */
  isAskedFor: z.boolean(),
});
export type Destruction = z.infer<typeof destructionRow>;

/** What is to be destroyed and what was, of a school: open ones first. */
export const destructionsOf = (db: Database, { schoolId }: SchoolAdmin): Promise<Destruction[]> =>
  rowsOf(
    db,
    destructionRow,
    `select d.id, d.student_id as "studentId", d.reason, d.told_on as "toldOn", d.told_how as "toldHow", d.asked_by as "askedById",
            d.asked_by_name as "askedBy", d.asked_at as "askedAt", d.confirmed_by_name as "confirmedBy",
            d.confirmed_at as "confirmedAt", d.done_at as "doneAt", s.first_name || ' ' || s.last_name as "studentName",
            d.kept_name as "keptName", d.kept_grade as "keptGrade", d.kept_years as "keptYears", d.rows,
            d.done_at is null and record_is_asked_for(d.student_id) as "isAskedFor"
       from destructions d left join students s on s.id = d.student_id
      where d.school_id = :schoolId and d.taken_back_at is null order by d.done_at is not null, d.asked_at desc`,
    { schoolId },
  );

/** The day on which it is done without another administrator. */
export const doneOn = ({ askedAt }: Pick<Destruction, 'askedAt'>, { timeZone }: Pick<School, 'timeZone'>): IsoDate =>
  addDays(wallTime(askedAt, timeZone).on, WAIT_DAYS);

const identityRow = z.object({
  ...{
    id: z.string(),
    name: z.string(),
    grade: z.string(),
    number: z.string().nullable(),
    groups: z.array(z.string()),
  },
  ...{ entries: z.number(), recent: z.number(), goals: z.number() },
  ...{ firstYear: z.number().nullable(), lastYear: z.number().nullable() },
});
/** Who a student is, so that nobody takes them for another of the same name: what is held of them, in numbers. */
export type Identity = z.infer<typeof identityRow>;

const identities = (
  db: Database,
  { schoolId, today }: SchoolAdmin,
  where: string,
  values: Record<string, unknown> = {},
) =>
  rowsOf(
    db,
    identityRow,
    `select s.id, s.first_name || ' ' || s.last_name as name, s.grade, s.sourced_id as "number",
            (select coalesce(json_agg(g.name order by g.position), '[]')
               from student_groups sg join class_groups g on g.id = sg.group_id where sg.student_id = s.id) as groups,
            h.entries, h.recent, h.goals, h.first_year as "firstYear", h.last_year as "lastYear"
       from students s
       join held_of(:schoolId, array(select x.id from students x where x.school_id = :schoolId and x.archived_at is not null), :since) h
         on h.student_id = s.id
      where s.school_id = :schoolId and ${where} order by s.last_name, s.first_name, s.id`,
    { ...values, schoolId, since: addDays(today, -RECENT_DAYS) },
  );

/** Students whose records could be destroyed: those who have left. */
export const archivedStudents = (db: Database, admin: SchoolAdmin): Promise<Identity[]> =>
  identities(db, admin, 's.archived_at is not null and s.undone_at is null');

/** @throws Invalid at `typedName` where it is not the name of whom it is about */
async function expectName(trx: Database, studentId: string, typed: string): Promise<void> {
  const { first_name, last_name } = existing(
    await trx('students').where({ id: studentId }).first('first_name', 'last_name'),
  );
  const plain = (text: string) => text.trim().replace(/\s+/g, ' ').toLocaleLowerCase();
  if (plain(typed) !== plain(`${first_name} ${last_name}`))
    throw new Invalid({ typedName: `Type the name as it stands here: ${first_name} ${last_name}` });
}

/**
 * Asks for a record to be destroyed: another administrator confirms it, or it is done after a week. Until then it can be taken back. Sent
 * twice, it is asked once.
 *
 * @throws NotFound; Invalid while the student is at the school, or the record is asked for
 */
export async function askToDestroy(
  db: Database,
  admin: SchoolAdmin,
  { id, studentId, reason, toldOn, toldHow, typedName }: DestructionInput,
  now: Date,
): Promise<void> {
  if (toldOn > admin.today) throw new Invalid({ toldOn: 'The family is told first.' });
  await db.transaction(async (trx) => {
    if (await trx('destructions').where({ id }).first('id')) return;
    const student = await trx('students')
      .where({ id: studentId, school_id: admin.schoolId })
      .forUpdate()
      .first('archived_at', 'first_name', 'last_name');
    if (!student) throw new NotFound('No such student.');
    if (!student.archived_at) throw new Invalid({ studentId: 'This student is at the school. Archive them first.' });
    await expectName(trx, studentId, typedName);
    if (await isAskedFor(trx, studentId)) throw new Invalid({ studentId: askedForWords });
    const { name } = existing(await trx('people').where({ id: admin.personId }).first('name'));
    try {
      await trx('destructions').insert({
        ...{ id, school_id: admin.schoolId, student_id: studentId, reason, told_on: toldOn, told_how: toldHow },
        ...{ asked_by: admin.personId, asked_by_name: name, asked_at: now },
      });
    } catch (error) {
      if (isDuplicate(error)) throw new Invalid({ studentId: 'This was asked for already.' });
      throw error;
    }
    const after = { name: `${student.first_name} ${student.last_name}`, reason };
    await writeChange(trx, admin.personId, { what: 'destruction', schoolId: admin.schoolId, before: null, after }, now);
  });
}

const askedForWords = 'Somebody has asked to see this record, or to have it amended. Answer that first.';

async function isAskedFor(db: Database, studentId: string): Promise<boolean> {
  const row = z.object({ is: z.boolean() });
  return (await rowsOf(db, row, 'select record_is_asked_for(?) as is', [studentId]))[0]?.is === true;
}

async function open(db: Database, { schoolId }: SchoolAdmin, id: string) {
  const found = await db('destructions').where({ id, school_id: schoolId }).forUpdate().first();
  if (!found || found.done_at || found.taken_back_at) throw new NotFound('No such request.');
  return found;
}

/**
 * Another administrator confirms it, and types the name too: it is done as soon as the worker comes to it.
 *
 * @throws NotFound; Invalid for the one who asked, or another name
 */
export async function confirmDestruction(
  db: Database,
  admin: SchoolAdmin,
  { id, typedName }: { id: string; typedName: string },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const { asked_by, confirmed_at, student_id } = await open(trx, admin, id);
    if (confirmed_at) return;
    if (asked_by === admin.personId) throw new Invalid({ form: 'Another administrator confirms it.' });
    await expectName(trx, student_id, typedName);
    if (await isAskedFor(trx, student_id)) throw new Invalid({ form: askedForWords });
    const { name } = existing(await trx('people').where({ id: admin.personId }).first('name'));
    await trx('destructions')
      .where({ id })
      .update({ confirmed_by: admin.personId, confirmed_by_name: name, confirmed_at: now });
  });
}

/** Nothing is destroyed. @throws NotFound where it is done already */
export async function takeBackDestruction(db: Database, admin: SchoolAdmin, id: string, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const { asked_by_name, reason } = await open(trx, admin, id);
    await trx('destructions').where({ id }).update({ taken_back_by: admin.personId, taken_back_at: now });
    const before = { name: asked_by_name, reason };
    await writeChange(trx, admin.personId, { what: 'destruction', schoolId: admin.schoolId, before, after: null }, now);
  });
}
