import { z } from 'zod';
import { type StepSaid, tappedAt } from '~/core/desk/steps';
import { stepStates } from '~/core/school/step-words';
import { type Database, preparedRows } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import { CHANNEL, toldAs } from '../platform/live';
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
  const { id, workId, stepId, state } = said;
  const word = state === 'stuck' ? said.word : '';
  const told = toldAs({ studentId, what: 'steps', by: null });
  // One statement: thirty desks may change at once.
  const written = await preparedRows(
    db,
    'say-step',
    z.object({ id: z.string() }),
    `with said as (
       insert into work_states (id, student_id, work_id, step_id, state, word, at, received_at, card_id)
       select $1, g.student_id, g.work_id, t.id, $5, $6, $7, $8, $9
         from student_works g
         join works w on w.id = g.work_id and w.closed_at is null
         join work_steps t on t.work_id = w.id and t.removed_at is null
        where g.student_id = $2 and g.work_id = $3 and t.id = $4 and g.taken_at is null
       on conflict (id) do nothing returning id)
     select id, pg_notify('${CHANNEL}', $10) from said`,
    [id, studentId, workId, stepId, state, word, tappedAt(said.at, now), now, cardId, told],
  );
  if (written.length === 0) await expectSaid(db, studentId, said);
}

/** What was not written was said before, or cannot be said any more. */
async function expectSaid(db: Database, studentId: string, { id, workId, stepId }: StepSaid): Promise<void> {
  if (await db('work_states').where({ id, student_id: studentId }).first('id')) return;
  const given = await db('student_works as g')
    .join('work_steps as t', 't.work_id', 'g.work_id')
    .where({ 'g.student_id': studentId, 'g.work_id': workId, 't.id': stepId })
    .first('t.removed_at');
  if (!given) throw new NotFound('No such step.');
  throw new Invalid({
    form: given.removed_at
      ? 'Your teacher has taken this step away. Go on with the next one.'
      : 'This work is put away. Ask your teacher.',
  });
}
