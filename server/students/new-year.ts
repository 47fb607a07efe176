import { createHash } from 'node:crypto';
import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { type NewYearFacts, type NewYearInput, type NewYearPlan, newYearPlan } from '~/core/students/new-year';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid } from '../platform/failures';
import type { SchoolAdmin } from '../school/administrators';
import { writeChange } from '../school/changes';
import { setArchived } from './roster';

const studentRow = z.object({
  ...{ id: z.string(), name: z.string(), grade: z.string(), groupIds: z.array(z.string()) },
});
const stayRow = z.object({ id: z.string(), studentId: z.string(), personId: z.string(), personName: z.string() });
type Stay = z.infer<typeof stayRow>;
const periodRow = z.object({ day: z.string(), plans: z.number() });

/** The students and groups that a new year is about, for its form. @throws NotFound for everyone but administrators */
export async function newYearRoster(
  db: Database,
  { schoolId }: SchoolAdmin,
): Promise<Pick<NewYearFacts, 'students' | 'groups'>> {
  const students = await rowsOf(
    db,
    studentRow,
    `select id, first_name || ' ' || last_name as name, grade,
            array(select group_id from student_groups g where g.student_id = s.id order by group_id) as "groupIds"
       from students s where school_id = :schoolId and archived_at is null order by last_name, first_name, id`,
    { schoolId },
  );
  const groups = await db('class_groups')
    .where({ school_id: schoolId })
    .orderBy('position')
    .select<{ id: string; name: string }[]>('id', 'name');
  return { students, groups };
}

/** Places on teams that would reach beyond a day; a case manager is never without a successor. */
const staysBeyond = (db: Database, { schoolId }: SchoolAdmin, day: IsoDate): Promise<Stay[]> =>
  rowsOf(
    db,
    stayRow,
    `select m.id, m.student_id as "studentId", m.person_id as "personId", p.name as "personName"
       from team_members m join students s on s.id = m.student_id join people p on p.id = m.person_id
      where s.school_id = :schoolId and s.archived_at is null and m.role <> 'caseManager' and m.from_date <= :day
            and coalesce(m.until_date, 'infinity') > :day order by p.name, m.id`,
    { schoolId, day },
  );

interface Prepared extends NewYearPlan {
  stays: Stay[];
  /** Of all that it will do: another one means that something has changed since it was looked at. */
  seal: string;
}

/**
 * What a new year will do, as things stand now.
 *
 * @throws Invalid for a group that is not the school's, and a last day that is over
 */
export async function prepareNewYear(db: Database, admin: SchoolAdmin, input: NewYearInput): Promise<Prepared> {
  const roster = await newYearRoster(db, admin);
  const known = new Set(roster.groups.map(({ id }) => id));
  for (const [at, { id, to }] of input.groups.entries()) {
    if (!known.has(id) || (to.length > 10 && !known.has(to))) {
      throw new Invalid({ [`groups[${at}].to`]: 'Choose a group from the list.' });
    }
  }
  if (input.teamsUntil && input.teamsUntil < admin.today) throw new Invalid({ teamsUntil: 'That day is over.' });
  const stays = input.teamsUntil ? await staysBeyond(db, admin, input.teamsUntil) : [];
  const days = input.periods.map(({ endsOn }) => endsOn);
  const without = await rowsOf(db, periodRow, `select day, plans from plans_without_period(:schoolId, :days)`, {
    ...{ schoolId: admin.schoolId, days },
  });
  const plansWithout = new Map(without.map(({ day, plans }) => [day, plans]));
  const plan = newYearPlan({ ...roster, stays, plansWithout }, input);
  const seal = createHash('sha256')
    .update(JSON.stringify([plan, stays.map(({ id }) => id)]))
    .digest('hex');
  return { ...plan, stays, seal };
}

/**
 * Does what a new year will do, in one transaction, as it was looked at.
 *
 * @param seen  the seal of what was looked at
 * @throws Invalid at `form` where something has changed since, or there is nothing to do
 */
export async function beginNewYear(
  db: Database,
  admin: SchoolAdmin,
  { input, seen }: { input: NewYearInput; seen: string },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    // One at a time in a school.
    await trx.raw(`select pg_advisory_xact_lock(hashtextextended(?, 0))`, [`new year of ${admin.schoolId}`]);
    const { moves, sentences, stays, seal } = await prepareNewYear(trx, admin, input);
    if (seal !== seen) throw new Invalid({ form: 'Something has changed since. Look at what it will do once more.' });
    if (sentences.length === 0) throw new Invalid({ form: 'There is nothing to do.' });
    for (const { id, grade, groupIds } of moves) {
      if (grade === null) await setArchived(trx, admin, { studentId: id, isArchived: true }, now);
      else await moveOn(trx, admin, { id, grade, groupIds }, now);
    }
    const until = input.teamsUntil ?? null;
    for (const { id, studentId, personId, personName } of stays) {
      await trx('team_members')
        .where({ id })
        .update({ until_date: until, changed_by: admin.personId, changed_at: now });
      const change = { before: { name: personName, until: null }, after: { name: personName, until } };
      const about = { what: 'member of the team', studentId, personId } as const;
      await writeChange(trx, admin.personId, { ...about, ...change }, now);
    }
    for (const { label, endsOn } of input.periods) {
      await trx.raw(`select lay_out_period(:schoolId, :label, :endsOn, :now)`, {
        ...{ schoolId: admin.schoolId, label, endsOn, now },
      });
    }
  });
}

async function moveOn(
  db: Database,
  { schoolId, personId }: SchoolAdmin,
  { id, grade, groupIds }: { id: string; grade: string; groupIds: readonly string[] },
  now: Date,
): Promise<void> {
  const state = async () => ({
    grade: (await db('students').where({ id }).first('grade'))?.grade,
    groups: await db('student_groups as m')
      .join('class_groups as g', 'g.id', 'm.group_id')
      .where({ 'm.student_id': id })
      .orderBy('g.position')
      .pluck('g.name'),
  });
  const before = await state();
  await db('students').where({ id, school_id: schoolId }).update({ grade });
  await db('student_groups')
    .where({ student_id: id })
    .whereNotIn('group_id', [...groupIds])
    .delete();
  if (groupIds.length > 0) {
    const rows = groupIds.map((group_id) => ({ student_id: id, group_id, school_id: schoolId }));
    await db('student_groups').insert(rows).onConflict(['student_id', 'group_id']).ignore();
  }
  await writeChange(db, personId, { what: 'student', studentId: id, before, after: await state() }, now);
}
