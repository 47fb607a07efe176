import { z } from 'zod';
import { type StepSaid, stepStates, tappedAt } from '~/core/desk/steps';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import { tellLive } from '../platform/live';
import type { StudentAccess } from '../students/access';

const deskWorkRow = z.object({
  id: z.string(),
  title: z.string(),
  steps: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      hint: z.string(),
      state: z.enum(stepStates),
      word: z.string(),
      isSeen: z.boolean(),
    }),
  ),
});
/** A piece of work as it stands on a student's desk, each step with what they said of it last. */
export type DeskWork = z.infer<typeof deskWorkRow>;

/** The open pieces of work of a student, the newest first. */
export async function deskWorks(db: Database, studentId: StudentAccess<'read'>): Promise<DeskWork[]> {
  return rowsOf(
    db,
    deskWorkRow,
    `select w.id, w.title,
            (select coalesce(json_agg(json_build_object('id', t.id, 'title', t.title, 'hint', t.hint,
                      'state', coalesce(said.state, 'notBegun'), 'word', coalesce(said.word, ''), 'isSeen', said.is_seen is true)
                    order by t.position), '[]')
               from work_steps t
               left join lateral (
                 select s.state, s.word, exists (select from work_state_seen n where n.state_id = s.id) as is_seen from work_states s
                  where s.work_id = w.id and s.student_id = g.student_id and s.step_id = t.id order by s.at desc, s.id desc limit 1) said on true
              where t.work_id = w.id and t.removed_at is null) as steps
       from student_works g join works w on w.id = g.work_id
      where g.student_id = ? and g.taken_at is null and w.closed_at is null
      order by g.given_at desc, w.id`,
    [studentId],
  );
}

/**
 * Keeps what a student says of one step of their work. Sent twice, it is said once.
 *
 * @param cardId  the card that opened their desk
 * @throws NotFound for work that is not theirs; Invalid for a step that was taken away, and for work that was closed
 */
export async function sayStep(
  db: Database,
  { studentId, cardId }: { studentId: StudentAccess<'read'>; cardId: string },
  said: StepSaid,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const given = await trx('student_works as g')
      .join('works as w', 'w.id', 'g.work_id')
      .join('work_steps as t', 't.work_id', 'w.id')
      .where({ 'g.student_id': studentId, 'g.work_id': said.workId, 't.id': said.stepId })
      .first('g.taken_at', 'w.closed_at', 't.removed_at');
    if (!given) throw new NotFound('No such step.');
    if (given.removed_at)
      throw new Invalid({ form: 'Your teacher has taken this step away. Go on with the next one.' });
    if (given.taken_at || given.closed_at) throw new Invalid({ form: 'This work is put away. Ask your teacher.' });
    const { id, workId, stepId, state, word } = said;
    await trx('work_states')
      .insert({
        ...{ id, student_id: studentId, work_id: workId, step_id: stepId, state, card_id: cardId },
        word: state === 'stuck' ? word : '',
        ...{ at: tappedAt(said.at, now), received_at: now },
      })
      .onConflict('id')
      .ignore();
    await tellLive(trx, { studentId, what: 'steps', by: null });
  });
}
