import { z } from 'zod';
import type { WorkInput } from '~/core/desk/steps';
import { ownStepWords, type StepWords, stepWordsFrom } from '~/core/school/step-words';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { requireStudent } from '../students/students';

/** What the five meanings are called at a school. */
export async function stepWordsOf(db: Database, schoolId: string): Promise<StepWords> {
  const row = await db('schools').where({ id: schoolId }).first('step_words');
  return stepWordsFrom(ownStepWords.partial().parse(row?.step_words ?? {}));
}

const stepRow = z.object({ id: z.string(), title: z.string(), hint: z.string() });
export type WorkStep = z.infer<typeof stepRow>;

const workRow = z.object({
  id: z.string(),
  title: z.string(),
  madeBy: z.string(),
  isMine: z.boolean(),
  madeAt: z.date(),
  closedAt: z.date().nullable(),
  steps: z.array(stepRow),
  /** Those who have it, as far as the one who asks knows them. */
  studentIds: z.array(z.string()),
});
/** A piece of work with its steps in order, as the one who asks may know of it. */
export type Work = z.infer<typeof workRow>;

/** Pieces of work that are listed. */
const MOST_LISTED = 200;

// The database shows works to their makers and to whoever knows a student who has one.
const worksQuery = `
  select w.id, w.title, p.short_name as "madeBy", w.made_by = :personId as "isMine", w.made_at as "madeAt", w.closed_at as "closedAt",
         (select coalesce(json_agg(json_build_object('id', t.id, 'title', t.title, 'hint', t.hint) order by t.position), '[]')
            from work_steps t where t.work_id = w.id and t.removed_at is null) as steps,
         (select coalesce(json_agg(g.student_id), '[]')
            from student_works g join students s on s.id = g.student_id and s.archived_at is null
            join team_members m on m.student_id = s.id and m.person_id = :personId
             and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today
           where g.work_id = w.id and g.taken_at is null) as "studentIds"
    from works w join people p on p.id = w.made_by
   where w.school_id = :schoolId and (w.made_by = :personId or exists (
           select from student_works g join team_members m on m.student_id = g.student_id and m.person_id = :personId
              and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today
            where g.work_id = w.id))`;

/** The pieces of work that the one who asks made, or that students of theirs have: those that are open first, then the newest. */
export async function worksOf(db: Database, actor: Actor): Promise<Work[]> {
  return rowsOf(
    db,
    workRow,
    `${worksQuery} order by w.closed_at is not null, w.made_at desc, w.id limit ${MOST_LISTED}`,
    { ...actor },
  );
}

/**
 * One piece of work.
 *
 * @throws NotFound when the one who asks may not know of it
 */
export async function workOf(db: Database, actor: Actor, id: string): Promise<Work> {
  const [work] = await rowsOf(db, workRow, `${worksQuery} and w.id = :id`, { ...actor, id });
  if (!work) throw new NotFound('No such work.');
  return work;
}

/**
 * Keeps a piece of work, new or changed, and gives it to students. A step that is left out is taken away; what students said of it
 * stays. Sent twice, it is there once.
 *
 * @throws NotFound for somebody else's work, and for a student whom this person may not observe
 */
export async function saveWork(db: Database, actor: Actor, input: WorkInput, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const made = { school_id: actor.schoolId, made_by: actor.personId, made_at: now };
    await trx('works')
      .insert({ id: input.id, title: input.title, ...made })
      .onConflict('id')
      .ignore();
    const changed = await trx('works')
      .where({ id: input.id, made_by: actor.personId, school_id: actor.schoolId })
      .update({ title: input.title });
    if (changed === 0) throw new NotFound('No such work.');
    const ids = input.steps.map(({ id }) => id);
    await trx('work_steps')
      .where({ work_id: input.id, removed_at: null })
      .whereNotIn('id', ids)
      .update({ removed_at: now });
    await trx('work_steps')
      .insert(input.steps.map((step, position) => ({ ...step, work_id: input.id, position, removed_at: null })))
      .onConflict('id')
      .merge(['position', 'title', 'hint', 'removed_at'])
      // A step of another work is left alone.
      .where('work_steps.work_id', input.id);
    await give(trx, actor, input, now);
  });
}

/** The students who have it are those who are named; of others the one who gives it does not know, and they keep it. */
async function give(trx: Database, actor: Actor, { id, studentIds }: WorkInput, now: Date): Promise<void> {
  const wanted: string[] = [];
  for (const studentId of studentIds) wanted.push((await requireStudent(trx, actor, studentId, 'observe')).id);
  const { studentIds: had } = await workOf(trx, actor, id);
  const left = had.filter((studentId) => !wanted.includes(studentId));
  if (left.length > 0) {
    await trx('student_works').where({ work_id: id }).whereIn('student_id', left).update({ taken_at: now });
  }
  if (wanted.length === 0) return;
  await trx('student_works')
    .insert(wanted.map((student_id) => ({ student_id, work_id: id, given_by: actor.personId, given_at: now })))
    .onConflict(['student_id', 'work_id'])
    .merge({ taken_at: null });
}

/**
 * Closes a piece of work, which then stands on no desk any more, or opens it again.
 *
 * @throws NotFound when it is not one of this person's
 */
export async function setWorkClosed(
  db: Database,
  { personId, schoolId }: Actor,
  { id, isClosed }: { id: string; isClosed: boolean },
  now: Date,
): Promise<void> {
  const found = await db('works')
    .where({ id, made_by: personId, school_id: schoolId })
    .update({ closed_at: isClosed ? now : null });
  if (found === 0) throw new NotFound('No such work.');
}
