import { z } from 'zod';
import type { StateSaid } from '~/core/desk/board';
import { stepStates } from '~/core/school/step-words';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { tellLive } from '../platform/live';
import type { Actor } from '../school/school';
import { studentsOf } from '../students/students';
import { type Work, workOf } from './works';

const saidRow = z.object({
  id: z.string(),
  studentId: z.string(),
  stepId: z.string(),
  state: z.enum(stepStates),
  word: z.string(),
  at: z.date(),
  seenAt: z.date().nullable(),
});

/** A piece of work with the students of one's own who have it, by name, and all that they said of its steps. */
export interface Board {
  work: Work;
  students: { id: string; firstName: string; lastName: string; shortName: string; initials: string }[];
  said: StateSaid[];
}

/**
 * What the class board of a piece of work shows to the one who asks.
 *
 * @throws NotFound when they may not know of it
 */
export async function boardOf(db: Database, actor: Actor, workId: string): Promise<Board> {
  const work = await workOf(db, actor, workId);
  const all = await studentsOf(db, actor);
  const students = all
    .filter(({ id }) => work.studentIds.includes(id))
    .map(({ id, firstName, lastName, shortName, initials }) => ({ id, firstName, lastName, shortName, initials }));
  const said = await rowsOf(
    db,
    saidRow,
    `select s.id, s.student_id as "studentId", s.step_id as "stepId", s.state, s.word, s.at, n.seen_at as "seenAt"
       from work_states s left join work_state_seen n on n.state_id = s.id
      where s.work_id = :workId and s.student_id = any(:ids) and s.step_id = any(:stepIds) order by s.at`,
    { workId, ids: students.map(({ id }) => id), stepIds: work.steps.map(({ id }) => id) },
  );
  return { work, students, said };
}

/**
 * Writes down that somebody has seen what students said; what was said since is not meant.
 *
 * @param stateIds  of students on whose teams this person is; others are passed over
 */
export async function markSeen(db: Database, actor: Actor, stateIds: readonly string[], now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const students = await studentsOf(trx, actor);
    const states = await trx('work_states')
      .whereIn('id', stateIds)
      .whereIn(
        'student_id',
        students.map(({ id }) => id),
      )
      .select('id', 'student_id');
    if (states.length === 0) return;
    await trx('work_state_seen')
      .insert(states.map(({ id, student_id }) => ({ state_id: id, student_id, seen_by: actor.personId, seen_at: now })))
      .onConflict('state_id')
      .ignore();
    for (const studentId of new Set(states.map(({ student_id }) => student_id))) {
      await tellLive(trx, { studentId, what: 'steps', by: actor.personId });
    }
  });
}
