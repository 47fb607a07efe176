import type { IsoDate } from '~/core/calendar/iso-date';
import type { MemberInput } from '~/core/team/team-input';
import type { Membership } from '../access/rights';
import type { Database } from '../db/database';
import { Invalid, NotFound } from '../failures';
import { type Actor, studentFor } from '../students/students';

export interface Member extends Membership {
  id: string;
  name: string;
  work: string;
  email: string;
  from: IsoDate;
  until: IsoDate | null;
}

/** Everybody who is, was or will be on a student’s team; those who are on it first. For whom may share. */
export async function membersOf(db: Database, actor: Actor, studentId: string): Promise<Member[]> {
  await studentFor(db, actor, studentId, 'share');
  const found = await db.raw<{ rows: Member[] }>(
    `select p.id, p.name, p.work, p.email, m.role, m.rights, m.from_date as "from", m.until_date as "until"
       from team_members m join people p on p.id = m.person_id
      where m.student_id = :studentId
      order by coalesce(m.until_date, 'infinity') < :today, m.role <> 'caseManager', p.name`,
    { studentId, today: actor.today },
  );
  return found.rows;
}

/** The people of the school who are not on this team yet. For the case manager. */
export async function peopleToAdd(
  db: Database,
  actor: Actor,
  studentId: string,
): Promise<{ id: string; name: string }[]> {
  await studentFor(db, actor, studentId, 'manage');
  return db('people as p')
    .whereNotExists(db('team_members').where({ student_id: studentId }).whereRaw('person_id = p.id'))
    .orderBy('name')
    .select('id', 'name');
}

/**
 * Puts somebody on a team, or changes their role, rights and dates. An end that is past takes them off; what they recorded stays.
 *
 * @throws NotFound for whom is not the case manager; Invalid
 */
export async function saveMember(
  db: Database,
  actor: Actor,
  studentId: string,
  { personId, role, rights, from, until }: MemberInput,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    await studentFor(trx, actor, studentId, 'manage');
    const person = await trx('people').where({ id: personId }).first('id');
    if (!person) throw new NotFound('No such person.');
    const before = await trx('team_members').where({ student_id: studentId, person_id: personId }).forUpdate().first();
    if (before?.role === 'caseManager') {
      throw new Invalid({ role: 'The case manager is chosen on the student’s page of the roster.' });
    }
    const content = {
      ...{ role, rights, from_date: from, until_date: until ?? null },
      ...{ changed_by: actor.personId, changed_at: now },
    };
    await trx('team_members')
      .insert({ student_id: studentId, person_id: personId, ...content })
      .onConflict(['student_id', 'person_id'])
      .merge(content);
  });
}
