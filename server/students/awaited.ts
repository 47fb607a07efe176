import { wallTime } from '~/core/calendar/zone';
import { tell } from '../platform/db/asking';
import type { Database } from '../platform/db/database';
import type { Actor } from '../school/school';
import { setCaseManager } from './roster';
import { caseManagerIdOf, changeRole, endStay } from './stays';

/**
 * Puts somebody who has just joined a school on the teams that its roster has them on: as the case manager of those whose case manager they
 * are to be, unless the student was given to somebody else meanwhile. What is done is no longer waited for.
 *
 * @returns of how many students
 */
export async function joinAwaitedTeams(db: Database, actor: Actor, now: Date): Promise<number> {
  return db.transaction(async (trx) => {
    await tell(trx, actor);
    const awaited = await trx('awaited_members as a')
      .join('people as p', (on) => on.on(trx.raw('lower(p.email) = lower(a.email)')))
      .where({ 'p.id': actor.personId, 'a.school_id': actor.schoolId })
      .select('a.student_id', 'a.role', 'a.email', 'a.instead_of');
    for (const { student_id: studentId, role, email, instead_of: insteadOf } of awaited) {
      const opened = await trx.raw<{ rows: unknown[] }>('select open_awaited(?)', [studentId]);
      if (opened.rows.length === 0) continue;
      const written = { by: actor.personId, today: actor.today, now };
      if (role === 'caseManager' && (await isStill(trx, studentId, insteadOf, actor))) {
        await setCaseManager(trx, { id: studentId, caseManagerId: actor.personId }, actor, { now, isNew: true });
        // Who stood in for them reads no longer.
        if (insteadOf && insteadOf !== actor.personId) await endStay(trx, { studentId, personId: insteadOf }, written);
      } else {
        const there = await trx('team_members')
          .where({ student_id: studentId, person_id: actor.personId })
          .whereRaw(`coalesce(until_date, 'infinity') >= ?`, [actor.today])
          .first('id');
        if (!there) await changeRole(trx, { studentId, personId: actor.personId, role: 'educator' }, written);
      }
      await trx('awaited_members').where({ student_id: studentId, email }).delete();
    }
    await trx.raw(`select set_config('app.door', '', true)`);
    return awaited.length;
  });
}

/** Whether a student's case manager is who it was when somebody was to take their place. */
async function isStill(db: Database, studentId: string, insteadOf: string | null, { today }: Actor): Promise<boolean> {
  const present = await caseManagerIdOf(db, studentId, today);
  return present === null || present === insteadOf;
}

/** The same at every school that somebody works at. */
export async function joinAwaitedEverywhere(db: Database, personId: string, now: Date): Promise<void> {
  const schools = await db('school_staff as a')
    .join('schools as c', 'c.id', 'a.school_id')
    .where({ 'a.person_id': personId })
    .select('c.id', 'c.time_zone');
  for (const { id, time_zone } of schools) {
    await joinAwaitedTeams(db, { personId, schoolId: id, today: wallTime(now, time_zone).on }, now);
  }
}
