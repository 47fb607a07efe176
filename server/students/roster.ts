import { z } from 'zod';
import { defined } from '~/core/defined';
import { nearDuplicates } from '~/core/students/near-duplicates';
import { type StudentInput, usualNames } from '~/core/students/student-input';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound, nullIf } from '../platform/failures';
import { requireSchoolAdmin, type SchoolAdmin } from '../school/administrators';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import { grant, type StudentAccess } from './access';
import { changeRole } from './stays';
import { requireStudent } from './students';
import { staffOf } from './team';

/** A student as the roster shows them: names, not what was observed. */
const rosterStudentRow = z.object({
  id: z.string(),
  firstName: z.string(),
  lastName: z.string(),
  shortName: z.string(),
  initials: z.string(),
  grade: z.string(),
  /** The school's own number of them. */
  number: z.string().nullable(),
  groups: z.array(z.object({ id: z.string(), name: z.string() })),
  caseManager: z.object({ id: z.string(), name: z.string() }).nullable(),
  isArchived: z.boolean(),
});
export type RosterStudent = z.infer<typeof rosterStudentRow>;

const rosterQuery = `
  select s.id, s.first_name as "firstName", s.last_name as "lastName", s.short_name as "shortName", s.initials, s.grade, s.sourced_id as "number",
         s.archived_at is not null as "isArchived",
         (select coalesce(json_agg(json_build_object('id', g.id, 'name', g.name) order by g.position), '[]')
            from student_groups sg join class_groups g on g.id = sg.group_id where sg.student_id = s.id) as groups,
         (select json_build_object('id', p.id, 'name', p.name)
            from team_members m join people p on p.id = m.person_id
           where m.student_id = s.id and m.role = 'caseManager' order by m.from_date desc limit 1) as "caseManager"
    from students s`;

/** Students on one page of the roster. */
export const ROSTER_PAGE = 100;

export interface RosterWanted {
  /** Part of a name; everybody when empty. */
  find: string;
  /** A class group by its name. */
  group: string | null;
  isArchived: boolean;
  page: number;
}

/**
 * A page of the school’s students, by last name, and how many there are.
 *
 * @throws NotFound for everyone but administrators
 */
export async function roster(
  db: Database,
  actor: SchoolAdmin,
  { find, group, isArchived, page }: Partial<RosterWanted> = {},
): Promise<{ students: RosterStudent[]; found: number; enrolled: number; archived: number }> {
  const where = `s.school_id = :schoolId and s.undone_at is null and (s.archived_at is not null) = :isArchived
    ${find ? `and strpos(lower(concat_ws(' ', s.first_name, s.last_name)), lower(:find)) > 0` : ''}
    ${
      group
        ? `and exists (select from student_groups sg join class_groups g on g.id = sg.group_id
                            where sg.student_id = s.id and g.name = :group)`
        : ''
    }`;
  const values = { schoolId: actor.schoolId, isArchived: isArchived === true, find: find ?? '', group: group ?? '' };
  const students = await rowsOf(
    db,
    rosterStudentRow,
    `${rosterQuery} where ${where} order by s.last_name, s.first_name, s.id
      limit ${ROSTER_PAGE} offset ${ROSTER_PAGE * ((page ?? 1) - 1)}`,
    values,
  );
  const counts = await rowsOf(
    db,
    z.object({ found: z.number(), enrolled: z.number(), archived: z.number() }),
    `select count(*) filter (where ${where})::int as found, count(*) filter (where s.archived_at is null)::int as enrolled,
            count(*) filter (where s.archived_at is not null and s.undone_at is null)::int as archived
       from students s where s.school_id = :schoolId`,
    values,
  );
  return { students, ...defined(counts[0]) };
}

/** What a roster's form chooses from. */
export async function rosterChoices(db: Database, { schoolId, today }: Actor) {
  const [groups, people] = await Promise.all([
    db('class_groups')
      .where({ school_id: schoolId })
      .orderBy('position')
      .select<{ id: string; name: string }[]>('id', 'name'),
    staffOf(db, schoolId, today).orderBy('p.name').select<{ id: string; name: string }[]>('p.id', 'p.name'),
  ]);
  return { groups, people };
}

/**
 * One student of the roster, for administrators and for the student's own case manager.
 *
 * @throws NotFound otherwise
 */
export async function rosterStudent(
  db: Database,
  actor: Actor,
  id: string,
): Promise<RosterStudent & { id: StudentAccess<'read'> }> {
  await mayEdit(db, actor, id);
  const found = await rowsOf(db, rosterStudentRow, `${rosterQuery} where s.id = ? and s.school_id = ?`, [
    id,
    actor.schoolId,
  ]);
  const student = found[0];
  if (!student) throw new NotFound('No such student.');
  return { ...student, id: grant(student.id, 'roster') };
}

async function mayEdit(db: Database, actor: Actor, studentId: string): Promise<void> {
  const theirs = await nullIf(NotFound, requireStudent(db, actor, studentId, 'editGoals'));
  if (!theirs) await requireSchoolAdmin(db, actor);
}

/** Whether somebody may say who the case manager of a student is: the case manager and the administrators. */
export async function canHandOver(db: Database, actor: Actor, studentId: string): Promise<boolean> {
  const manager = await nullIf(NotFound, requireStudent(db, actor, studentId, 'manage'));
  return (
    manager !== null ||
    (await nullIf(
      NotFound,
      requireSchoolAdmin(db, actor).then(() => true),
    )) === true
  );
}

/** A student as a form or a file has them; of a file one may have no case manager yet. */
export type RosterInput = Omit<StudentInput, 'caseManagerId'> & { caseManagerId: string | null };

/**
 * Puts a student on the roster, with a case manager: the page is there at once. Sent twice, it is one student.
 *
 * @throws NotFound; Invalid where the name is near another's and nobody has said that it is someone else
 */
export async function addStudent(db: Database, actor: SchoolAdmin, input: RosterInput, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    // Seen or not: an id is one student's, at one school.
    const [known] = await rowsOf(
      trx,
      z.object({ isHere: z.boolean() }),
      'select school_of(:id) = :schoolId as "isHere" where school_of(:id) is not null',
      {
        ...{ id: input.id, schoolId: actor.schoolId },
      },
    );
    if (known && !known.isHere) throw new NotFound('No such student.');
    if (known) return;
    await questionNamesakes(trx, actor, input);
    await trx('students').insert({ id: input.id, school_id: actor.schoolId, ...columnsOf(input) });
    await setGroups(trx, actor, input);
    const after = await stateOfStudent(trx, input.id);
    await writeChange(trx, actor.personId, { what: 'student', studentId: input.id, before: null, after }, now);
    await setCaseManager(trx, input, actor, { now, isNew: true });
  });
}

/**
 * Changes what the roster says of a student.
 *
 * @throws NotFound; Invalid as `addStudent`
 */
export async function editStudent(db: Database, actor: Actor, input: RosterInput, now: Date): Promise<void> {
  await mayEdit(db, actor, input.id);
  await db.transaction(async (trx) => {
    const before = await trx('students').where({ id: input.id, school_id: actor.schoolId }).forUpdate().first();
    if (!before) throw new NotFound('No such student.');
    if (before.first_name !== input.firstName || before.last_name !== input.lastName) {
      await questionNamesakes(trx, actor, input);
    }
    const was = await stateOfStudent(trx, input.id);
    await trx('students').where({ id: input.id }).update(columnsOf(input));
    await setGroups(trx, actor, input);
    const change = { studentId: input.id, before: was, after: await stateOfStudent(trx, input.id) };
    await writeChange(trx, actor.personId, { what: 'student', ...change }, now);
    await setCaseManager(trx, input, actor, { now, isNew: false });
  });
}

/** What the roster says of a student, as it is written down when it changes. */
async function stateOfStudent(db: Database, id: string) {
  const found = await rowsOf(db, rosterStudentRow, `${rosterQuery} where s.id = ?`, [id]);
  const { firstName, lastName, shortName, initials, grade, groups } = defined(found[0]);
  return { firstName, lastName, shortName, initials, grade, groups: groups.map(({ name }) => name) };
}

const columnsOf = ({ firstName, lastName, shortName, initials, grade }: RosterInput) => {
  const usual = usualNames(firstName, lastName);
  return {
    first_name: firstName,
    last_name: lastName,
    short_name: shortName || usual.shortName,
    initials: initials || usual.initials,
    grade,
  };
};

const namesakeRow = rosterStudentRow.pick({ id: true, firstName: true, lastName: true, grade: true, isArchived: true });

async function questionNamesakes(db: Database, { schoolId }: Actor, input: RosterInput): Promise<void> {
  if (input.isSomeoneElse) return;
  const found = await rowsOf(
    db,
    namesakeRow,
    `select id, first_name as "firstName", last_name as "lastName", grade, archived_at is not null as "isArchived"
       from names_at_school(:schoolId) where id <> :id`,
    { schoolId, id: input.id },
  );
  const near = nearDuplicates(input, found);
  if (near.length === 0) return;
  const names = near.map(({ firstName, lastName, grade, isArchived }) => {
    return `${firstName} ${lastName} (${grade}${isArchived ? ', archived' : ''})`;
  });
  throw new Invalid({ isSomeoneElse: `There is already ${names.join(' and ')}. Is this someone else?` });
}

async function setGroups(db: Database, { schoolId }: Actor, { id, groupIds }: RosterInput): Promise<void> {
  const known = await db('class_groups').where({ school_id: schoolId }).whereIn('id', groupIds).select('id');
  if (known.length !== new Set(groupIds).size) throw new Invalid({ groupIds: 'Choose groups from the list.' });
  await db('student_groups').where({ student_id: id }).whereNotIn('group_id', groupIds).delete();
  if (known.length === 0) return;
  const rows = known.map((group) => ({ student_id: id, group_id: group.id, school_id: schoolId }));
  await db('student_groups').insert(rows).onConflict(['student_id', 'group_id']).ignore();
}

/**
 * One case manager at a time; the one before stays on the team as an educator. Only the case manager hands a student on, or who sets
 * up the school; who it was before is written down.
 *
 * @throws Invalid for someone who may not, and for somebody who cannot be one
 */
export async function setCaseManager(
  db: Database,
  { id, caseManagerId }: Pick<RosterInput, 'id' | 'caseManagerId'>,
  actor: Actor,
  { now, isNew }: { now: Date; isNew: boolean },
): Promise<void> {
  // Whoever has them keeps them.
  if (caseManagerId === null) return;
  const before = await db('team_members as m')
    .join('people as p', 'p.id', 'm.person_id')
    .where({ 'm.student_id': id, 'm.role': 'caseManager' })
    .whereRaw(`coalesce(m.until_date, 'infinity') >= ?`, [actor.today])
    .first('m.person_id', 'p.name');
  if (before?.person_id === caseManagerId) return;
  if (!isNew && !(await canHandOver(db, actor, id))) {
    throw new Invalid({ caseManagerId: 'Only the case manager, or who sets up the school, hands a student on.' });
  }
  const person = await staffOf(db, actor.schoolId, actor.today)
    .where({ 'p.id': caseManagerId })
    .first('p.id as person_id', 'p.name');
  if (!person) throw new Invalid({ caseManagerId: 'Choose a case manager from the list.' });
  const written = { by: actor.personId, today: actor.today, now };
  if (before) await changeRole(db, { studentId: id, personId: before.person_id, role: 'educator' }, written);
  await changeRole(db, { studentId: id, personId: caseManagerId, role: 'caseManager' }, written);
  const named = (one: { person_id: string; name: string } | undefined) =>
    one ? { personId: one.person_id, name: one.name } : null;
  await writeChange(
    db,
    actor.personId,
    { studentId: id, personId: caseManagerId, what: 'case manager', before: named(before), after: named(person) },
    now,
  );
}

/** How a student was handed from one case manager to the next, newest first, and by whom. */
export async function caseManagerHistory(db: Database, studentId: StudentAccess<'read'>): Promise<HandedOver[]> {
  return rowsOf(
    db,
    handedOverRow,
    `select c.changed_at as at, b.name as "from", a.name as "to", w.name as by
       from changes c left join people a on a.id = cast(c.after ->> 'personId' as uuid)
            left join people b on b.id = cast(c.before ->> 'personId' as uuid) left join people w on w.id = c.changed_by
      where c.student_id = ? and c.what = 'case manager' order by c.id desc`,
    [studentId],
  );
}

const handedOverRow = z.object({
  at: z.date(),
  from: z.string().nullable(),
  to: z.string(),
  by: z.string(),
});
export type HandedOver = z.infer<typeof handedOverRow>;

/**
 * Takes a student off every list, or brings them back; nothing of theirs is lost.
 *
 * @throws NotFound
 */
export async function setArchived(
  db: Database,
  actor: SchoolAdmin,
  { studentId, isArchived }: { studentId: string; isArchived: boolean },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const student = () => trx('students').where({ id: studentId, school_id: actor.schoolId });
    const before = await student().forUpdate().first('archived_at');
    if (!before) throw new NotFound('No such student.');
    await student().update({ archived_at: isArchived ? now : null });
    // Who comes back is not destroyed, nor the next time they leave: it would have to be asked for anew.
    if (!isArchived) {
      await trx('destructions')
        .where({ student_id: studentId, done_at: null, taken_back_at: null })
        .update({ taken_back_by: actor.personId, taken_back_at: now });
    }
    const change = { before: { isArchived: before.archived_at !== null }, after: { isArchived } };
    await writeChange(trx, actor.personId, { what: 'student', studentId, ...change }, now);
  });
}
