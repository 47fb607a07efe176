import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { MemberInput } from '~/core/students/team-input';
import { type Database, isOverlap } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import { membershipRow } from './rights';
import { stayFirst, stayOf } from './stays';
import { requireStudent } from './students';

const memberRow = membershipRow.extend({
  id: z.string(),
  name: z.string(),
  work: z.string(),
  email: z.string(),
  from: z.string(),
  until: z.string().nullable(),
});
export type Member = z.infer<typeof memberRow>;

/** Everybody who is, was or will be on a student’s team; those who are on it first. For those who may share. */
export async function membersOf(db: Database, actor: Actor, studentId: string): Promise<Member[]> {
  await requireStudent(db, actor, studentId, 'share');
  return rowsOf(
    db,
    memberRow,
    `select p.id, p.name, p.work, p.email, m.role, m.rights, m.from_date as "from", m.until_date as "until"
       from team_members m join people p on p.id = m.person_id
      where m.student_id = :studentId
        and m.id = (select o.id from team_members o where o.student_id = m.student_id and o.person_id = m.person_id
                     order by ${stayFirst('o', 'cast(:today as date)')} limit 1)
      order by coalesce(m.until_date, 'infinity') < :today, m.role <> 'caseManager', p.name`,
    { studentId, today: actor.today },
  );
}

/** Who was on a student’s team on a day, the case manager first. For those who may share. */
export async function membersOn(db: Database, actor: Actor, studentId: string, day: IsoDate): Promise<Member[]> {
  await requireStudent(db, actor, studentId, 'share');
  return rowsOf(
    db,
    memberRow,
    `select p.id, p.name, p.work, p.email, m.role, m.rights, m.from_date as "from", m.until_date as "until"
       from team_members m join people p on p.id = m.person_id
      where m.student_id = :studentId and m.from_date <= :day and coalesce(m.until_date, 'infinity') >= :day
      order by m.role <> 'caseManager', p.name`,
    { studentId, day },
  );
}

/** The people who work at a school, each with an address that is proven to be theirs. */
export const staffOf = (db: Database, schoolId: string, today: IsoDate) =>
  db('people as p')
    .join('school_staff as a', 'a.person_id', 'p.id')
    .where({ 'a.school_id': schoolId })
    .whereRaw(`coalesce(a.until_date, 'infinity') >= ?`, [today])
    .whereNotNull('p.email_proven_at');

/** The people who work at one's school, oneself too, by name. */
export const colleaguesOf = (db: Database, { schoolId, today }: Actor): Promise<{ id: string; name: string }[]> =>
  staffOf(db, schoolId, today).orderBy('p.name').distinct('p.id', 'p.name');

/** The people of the school, each with an address that is proven to be theirs, who are not on this team yet. For the case manager. */
export async function peopleToAdd(
  db: Database,
  actor: Actor,
  studentId: string,
): Promise<{ id: string; name: string }[]> {
  await requireStudent(db, actor, studentId, 'manage');
  return staffOf(db, actor.schoolId, actor.today)
    .whereNotExists(db('team_members').where({ student_id: studentId }).whereRaw('person_id = p.id'))
    .orderBy('p.name')
    .select('p.id', 'p.name');
}

type OneTeam = Omit<MemberInput, 'alsoOf'>;

/**
 * Puts somebody on a team, or changes their role, rights and dates. An end that is past takes them off; what they recorded stays. In the
 * same step they come on the teams of other students; where they are on one already, they stay as they are.
 *
 * @throws NotFound for someone who is not the case manager of each; Invalid
 */
export async function saveMember(
  db: Database,
  actor: Actor,
  studentId: string,
  { alsoOf = [], ...input }: OneTeam & { alsoOf?: readonly string[] },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    await saveStay(trx, actor, studentId, input, now);
    for (const other of new Set(alsoOf)) {
      const { id } = await requireStudent(trx, actor, other, 'manage');
      const there = await stayOf(trx, id, input.personId, actor.today);
      if (!there || (there.until_date ?? actor.today) < actor.today) await saveStay(trx, actor, id, input, now);
    }
  });
}

async function saveStay(
  trx: Database,
  actor: Actor,
  studentId: string,
  { personId, role, rights, from, until }: OneTeam,
  now: Date,
): Promise<void> {
  await requireStudent(trx, actor, studentId, 'manage');
  const person = await trx('people as p')
    .join('school_staff as a', 'a.person_id', 'p.id')
    .where({ 'p.id': personId, 'a.school_id': actor.schoolId })
    .first('p.id', 'p.name', 'p.email_proven_at');
  if (!person) throw new NotFound('No such person.');
  const before = await stayOf(trx, studentId, personId, actor.today);
  if (!before && !person.email_proven_at) {
    throw new Invalid({ personId: 'This person has not shown yet that the address is theirs: invite them.' });
  }
  if (before?.role === 'caseManager') {
    throw new Invalid({ role: 'The case manager is chosen on the student’s page of the roster.' });
  }
  const said = before && {
    ...{ personId, name: person.name, role: before.role, rights: before.rights },
    ...{ from: before.from_date, until: before.until_date },
  };
  const after = { personId, name: person.name, role, rights, from, until: until ?? null };
  await writeChange(
    trx,
    actor.personId,
    { studentId, personId, what: 'member of the team', before: said ?? null, after },
    now,
  );
  const content = {
    ...{ role, rights, from_date: from, until_date: until ?? null },
    ...{ changed_by: actor.personId, changed_at: now },
  };
  // Who has left and comes back begins another stay; the one before stays as it was.
  const isBack = before?.until_date && before.until_date < actor.today && from > before.until_date;
  try {
    if (before && !isBack) await trx('team_members').where({ id: before.id }).update(content);
    else await trx('team_members').insert({ student_id: studentId, person_id: personId, ...content });
  } catch (error) {
    if (!isOverlap(error, 'team_members_once')) throw error;
    throw new Invalid({ from: 'These dates overlap an earlier time on this team.' });
  }
}

/**
 * Says since when the case manager has been that: data from before the day they were put on the team is entered as of the day the
 * work really began.
 *
 * @throws NotFound for someone who is not the case manager; Invalid for a day that has not come
 */
export async function setOwnStart(
  db: Database,
  actor: Actor,
  studentId: string,
  from: IsoDate,
  now: Date,
): Promise<void> {
  if (from > actor.today) throw new Invalid({ from: 'Choose today or an earlier day.' });
  await db.transaction(async (trx) => {
    await requireStudent(trx, actor, studentId, 'manage');
    const before = await stayOf(trx, studentId, actor.personId, actor.today);
    if (!before) throw new NotFound('No such member.');
    try {
      await trx('team_members')
        .where({ id: before.id })
        .update({ from_date: from, changed_by: actor.personId, changed_at: now });
    } catch (error) {
      if (!isOverlap(error)) throw error;
      throw new Invalid({ from: 'On that day somebody else was the case manager, or you had another role.' });
    }
    const said = (day: IsoDate) => ({ personId: actor.personId, role: before.role, from: day });
    const change = { before: said(before.from_date), after: said(from) };
    await writeChange(
      trx,
      actor.personId,
      { studentId, personId: actor.personId, what: 'member of the team', ...change },
      now,
    );
  });
}
