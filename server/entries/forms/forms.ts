import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { type FormSide, type FormVersion, formSides, questionsSchema } from '~/core/entries/forms/form';
import { type FormInput, questionFrom } from '~/core/entries/forms/form-input';
import type { Database } from '../../platform/db/database';
import { rowsOf } from '../../platform/db/rows';
import { NotFound } from '../../platform/failures';
import type { Actor } from '../../school/school';
import { requireStudent } from '../../students/students';

/** A form in the version of its own that stands, or that was asked for. */
const formRow = z.object({
  id: z.string(),
  version: z.number(),
  side: z.enum(formSides),
  title: z.string(),
  hint: z.string(),
  questions: questionsSchema,
  madeBy: z.string(),
  isMine: z.boolean(),
  isClosed: z.boolean(),
  /** Students who have it at their desk, as far as the one who asks is on their teams. */
  studentIds: z.array(z.string()),
});
export type Form = z.infer<typeof formRow>;

/** Forms that are listed. */
const MOST_LISTED = 200;

const formsQuery = `
  select f.id, v.version, f.side, v.title, v.hint, v.questions, p.short_name as "madeBy", f.made_by = :personId as "isMine",
         f.closed_at is not null as "isClosed",
         (select coalesce(json_agg(g.student_id), '[]')
            from student_forms g join students s on s.id = g.student_id and s.archived_at is null
            join team_members m on m.student_id = s.id and m.person_id = :personId
             and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today
           where g.form_id = f.id and g.taken_at is null) as "studentIds"
    from forms f join people p on p.id = f.made_by
    join lateral (select * from form_versions x where x.form_id = f.id order by x.version desc limit 1) v on true
   where f.school_id = :schoolId`;

/** The forms of a school, those in use first, by title. A form holds questions and nothing of a student, so all staff see it. */
export async function formsOf(db: Database, actor: Actor): Promise<Form[]> {
  return rowsOf(db, formRow, `${formsQuery} order by f.closed_at is not null, v.title, f.id limit ${MOST_LISTED}`, {
    ...actor,
  });
}

/** The forms that staff fill in about a student. */
export async function staffForms(db: Database, actor: Actor): Promise<Form[]> {
  return (await formsOf(db, actor)).filter(({ side, isClosed }) => side === 'staff' && !isClosed);
}

/**
 * One form as it stands.
 *
 * @throws NotFound when the school has none of this id
 */
export async function formOf(db: Database, actor: Actor, id: string): Promise<Form> {
  const [form] = await rowsOf(db, formRow, `${formsQuery} and f.id = :id`, { ...actor, id });
  if (!form) throw new NotFound('No such form.');
  return form;
}

const versionRow = z.object({
  title: z.string(),
  hint: z.string(),
  questions: questionsSchema,
  side: z.enum(formSides),
  isClosed: z.boolean(),
});

/**
 * A form in one of its versions: what was answered before a change stays with the version that was answered.
 *
 * @throws NotFound when there is none, or the form is for another side
 */
export async function formVersionOf(
  db: Database,
  { schoolId, id, version, side }: { schoolId: string; id: string; version: number; side: FormSide },
): Promise<FormVersion & { isClosed: boolean }> {
  const [found] = await rowsOf(
    db,
    versionRow,
    `select v.title, v.hint, v.questions, f.side, f.closed_at is not null as "isClosed"
       from forms f join form_versions v on v.form_id = f.id and v.version = :version
      where f.id = :id and f.school_id = :schoolId`,
    { id, version, schoolId },
  );
  if (found?.side !== side) throw new NotFound('No such form.');
  return found;
}

/**
 * Keeps a form, new or changed. A change of its words or questions is a new version: answers stay with the one that was answered. Sent
 * twice, it is there once.
 *
 * @throws NotFound for somebody else's form, and for a student whom this person may not observe
 */
export async function saveForm(db: Database, actor: Actor, input: FormInput, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const made = { school_id: actor.schoolId, made_by: actor.personId, made_at: now };
    await trx('forms')
      .insert({ id: input.id, side: input.side, ...made })
      .onConflict('id')
      .ignore();
    const mine = { id: input.id, made_by: actor.personId, school_id: actor.schoolId };
    const form = await trx('forms').where(mine).forUpdate().first('side');
    if (!form) throw new NotFound('No such form.');
    const last = await trx('form_versions').where({ form_id: input.id }).orderBy('version', 'desc').first();
    const content = { title: input.title, hint: input.hint, questions: input.questions.map(questionFrom) };
    const stands = last && { title: last.title, hint: last.hint, questions: last.questions };
    if (!isDeepStrictEqual(stands, content)) {
      await trx('form_versions').insert({
        ...{ form_id: input.id, version: (last?.version ?? 0) + 1, made_by: actor.personId, made_at: now },
        ...{ ...content, questions: JSON.stringify(content.questions) },
      });
    }
    // Of staff and of classmates nobody has it at a desk.
    if (form.side === 'self') await giveForm(trx, actor, input, now);
  });
}

/** The students who have it are those who are named; of others the one who gives it does not know, and they keep it. */
async function giveForm(
  trx: Database,
  actor: Actor,
  { id, studentIds }: Pick<FormInput, 'id' | 'studentIds'>,
  now: Date,
): Promise<void> {
  const wanted: string[] = [];
  for (const studentId of studentIds) wanted.push((await requireStudent(trx, actor, studentId, 'observe')).id);
  const left = (await formOf(trx, actor, id)).studentIds.filter((studentId) => !wanted.includes(studentId));
  if (left.length > 0) {
    await trx('student_forms').where({ form_id: id }).whereIn('student_id', left).update({ taken_at: now });
  }
  if (wanted.length === 0) return;
  await trx('student_forms')
    .insert(wanted.map((student_id) => ({ student_id, form_id: id, given_by: actor.personId, given_at: now })))
    .onConflict(['student_id', 'form_id'])
    .merge({ taken_at: null });
}

/**
 * Puts a form away, so that nobody is asked it any more, or takes it out again; what was answered stays.
 *
 * @throws NotFound when it is not one of this person's
 */
export async function setFormClosed(
  db: Database,
  { personId, schoolId }: Actor,
  { id, isClosed }: { id: string; isClosed: boolean },
  now: Date,
): Promise<void> {
  const found = await db('forms')
    .where({ id, made_by: personId, school_id: schoolId })
    .update({ closed_at: isClosed ? now : null });
  if (found === 0) throw new NotFound('No such form.');
}
