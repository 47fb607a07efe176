import { z } from 'zod';
import { moved, type PresentationInput, presentersInOrder } from '~/core/desk/feedback';
import { answersSchema, type FormVersion } from '~/core/entries/forms/form';
import { formOf, formVersionOf } from '../entries/forms/forms';
import { hashToken, newToken } from '../people/tokens';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { requireStudent } from '../students/students';
import { carryOver } from './feedback';

const presentationRow = z.object({
  id: z.string(),
  title: z.string(),
  formId: z.string(),
  formVersion: z.number(),
  showsNames: z.boolean(),
  looksThrough: z.boolean(),
  madeAt: z.date(),
  isClosed: z.boolean(),
  /** Who answers, in no order; those who present have a place. */
  members: z.array(z.object({ studentId: z.string(), place: z.number().nullable(), seats: z.number() })),
});
export type Presentation = z.infer<typeof presentationRow>;

const presentationsQuery = `
  select p.id, p.title, p.form_id as "formId", p.form_version as "formVersion", p.shows_names as "showsNames",
         p.looks_through as "looksThrough", p.made_at as "madeAt", p.closed_at is not null as "isClosed",
         (select coalesce(json_agg(json_build_object('studentId', m.student_id, 'place', m.place, 'seats',
                   (select count(*) from presentation_seats t where t.presentation_id = p.id and t.student_id = m.student_id))
                 order by m.place, m.student_id), '[]')
            from presentation_members m where m.presentation_id = p.id) as members
    from presentations p where p.made_by = :personId and p.school_id = :schoolId`;

/** The presentations that the one who asks has made, the newest first. */
export async function presentationsOf(db: Database, actor: Actor): Promise<Presentation[]> {
  return rowsOf(
    db,
    presentationRow,
    `${presentationsQuery} order by p.closed_at is not null, p.made_at desc limit 100`,
    {
      ...actor,
    },
  );
}

/**
 * One presentation, with its form as it is answered.
 *
 * @throws NotFound when it is not one of this person's
 */
export async function presentationOf(
  db: Database,
  actor: Actor,
  id: string,
): Promise<Presentation & { form: FormVersion }> {
  const [found] = await rowsOf(db, presentationRow, `${presentationsQuery} and p.id = :id`, { ...actor, id });
  if (!found) throw new NotFound('No such presentation.');
  const asked = { schoolId: actor.schoolId, id: found.formId, version: found.formVersion, side: 'classmates' } as const;
  return { ...found, form: await formVersionOf(db, asked) };
}

const mineAs = ({ personId, schoolId }: Actor, id: string) => ({ id, made_by: personId, school_id: schoolId });

/**
 * Keeps a presentation, new or changed. Once somebody has answered, its form stays. Sent twice, it is there once.
 *
 * @throws NotFound for somebody else's, and for a student whom this person may not observe; Invalid with a message at the field
 */
export async function savePresentation(db: Database, actor: Actor, input: PresentationInput, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const form = await formOf(trx, actor, input.formId);
    if (form.side !== 'classmates') throw new Invalid({ formId: 'Choose a form for classmates.' });
    if (!input.presenterIds.every((id) => input.studentIds.includes(id))) {
      throw new Invalid({ presenterIds: 'Whoever presents is in it too.' });
    }
    const wanted: string[] = [];
    for (const id of new Set(input.studentIds)) wanted.push((await requireStudent(trx, actor, id, 'observe')).id);
    const content = { title: input.title, shows_names: input.showsNames, looks_through: input.looksThrough };
    const made = { school_id: actor.schoolId, made_by: actor.personId, made_at: now };
    await trx('presentations')
      .insert({
        ...{ id: input.id, form_id: form.id, form_version: form.version, token_hash: hashToken(newToken()) },
        ...{ ...content, ...made },
      })
      .onConflict('id')
      .ignore();
    const mine = await trx('presentations').where(mineAs(actor, input.id)).forUpdate().first('form_id', 'form_version');
    if (!mine) throw new NotFound('No such presentation.');
    const isAnswered = await trx('feedback_answers').where({ presentation_id: input.id }).first('id');
    if (isAnswered && mine.form_id !== form.id) {
      throw new Invalid({ formId: 'Somebody has answered already. Make a new presentation for another form.' });
    }
    const formNow = isAnswered ? {} : { form_id: form.id, form_version: form.version };
    await trx('presentations')
      .where(mineAs(actor, input.id))
      .update({ ...content, ...formNow });
    await setMembers(trx, input.id, wanted, input.presenterIds);
  });
}

/** Whoever has answered or was answered about stays in it. */
async function setMembers(
  trx: Database,
  presentationId: string,
  wanted: readonly string[],
  presenterIds: readonly string[],
): Promise<void> {
  const before = await trx('presentation_members')
    .where({ presentation_id: presentationId })
    .orderBy('place')
    .select('student_id', 'place');
  const gone = before.filter(({ student_id }) => !wanted.includes(student_id)).map(({ student_id }) => student_id);
  if (gone.length > 0) {
    const involved = await trx('feedback_answers')
      .where({ presentation_id: presentationId })
      .where((either) => either.whereIn('giver_id', gone).orWhereIn('presenter_id', gone))
      .first('id');
    const seated = await trx('presentation_seats')
      .where({ presentation_id: presentationId })
      .whereIn('student_id', gone)
      .first('id');
    if (involved || seated) {
      throw new Invalid({ studentIds: 'Somebody whom you take out has answered already, or was answered about.' });
    }
    await trx('presentation_members').where({ presentation_id: presentationId }).whereIn('student_id', gone).delete();
  }
  const had = before.flatMap(({ student_id, place }) => (place === null ? [] : [student_id]));
  const order = presentersInOrder(had, presenterIds);
  await trx('presentation_members')
    .insert(
      wanted.map((student_id) => {
        const at = order.indexOf(student_id);
        return { presentation_id: presentationId, student_id, place: at < 0 ? null : at + 1 };
      }),
    )
    .onConflict(['presentation_id', 'student_id'])
    .merge(['place']);
}

/** Has somebody present one place earlier or later. @throws NotFound when it is not one of this person's */
export async function movePresenter(
  db: Database,
  actor: Actor,
  { id, studentId, by }: { id: string; studentId: string; by: -1 | 1 },
): Promise<void> {
  await db.transaction(async (trx) => {
    const { members } = await presentationOf(trx, actor, id);
    const order = members.flatMap((member) => (member.place === null ? [] : [member.studentId]));
    for (const [at, student_id] of moved(order, studentId, by).entries()) {
      await trx('presentation_members')
        .where({ presentation_id: id, student_id })
        .update({ place: at + 1 });
    }
  });
}

/**
 * Closes a presentation, so that nobody answers or corrects any more, or opens it again.
 *
 * @throws NotFound when it is not one of this person's
 */
export async function setPresentationClosed(
  db: Database,
  actor: Actor,
  { id, isClosed }: { id: string; isClosed: boolean },
  now: Date,
): Promise<void> {
  const found = await db('presentations')
    .where(mineAs(actor, id))
    .update({ closed_at: isClosed ? now : null });
  if (found === 0) throw new NotFound('No such presentation.');
}

/**
 * Makes a code by which the class gets in, in place of the one before. Who is in already stays in.
 *
 * @returns the token that the square code holds
 * @throws NotFound when it is not one of this person's
 */
export async function newPresentationCode(db: Database, actor: Actor, id: string): Promise<string> {
  const token = newToken();
  const found = await db('presentations')
    .where(mineAs(actor, id))
    .update({ token_hash: hashToken(token) });
  if (found === 0) throw new NotFound('No such presentation.');
  return token;
}

const answerRow = z.object({
  id: z.string(),
  presenterId: z.string(),
  giverId: z.string(),
  answers: answersSchema,
  saidAt: z.date(),
  times: z.number(),
  isHeld: z.boolean(),
  /** Whether it says in the presenter's report what it says here. */
  isHandedOn: z.boolean(),
  isWithdrawn: z.boolean(),
});
/** What one classmate said to one presenter, as it was said last. */
export type FeedbackAnswer = z.infer<typeof answerRow>;

/** What was answered in a presentation of one's own, in the order in which it was first said. */
export async function feedbackAnswers(db: Database, actor: Actor, id: string): Promise<FeedbackAnswer[]> {
  return rowsOf(
    db,
    answerRow,
    `select a.id, a.presenter_id as "presenterId", a.giver_id as "giverId", s.answers, s.said_at as "saidAt",
            (select count(*)::int from feedback_said x where x.answer_id = a.id) as times, a.held_at is not null as "isHeld",
            coalesce(e.answers = s.answers and not e.withdrawn, false) as "isHandedOn", coalesce(e.withdrawn, false) as "isWithdrawn"
       from feedback_answers a join presentations p on p.id = a.presentation_id
       join lateral (select * from feedback_said x where x.answer_id = a.id order by x.seq desc limit 1) s on true
       left join entries e on e.id = a.id
      where a.presentation_id = :id and p.made_by = :personId order by s.said_at, a.id`,
    { id, ...actor },
  );
}

/** Holds an answer back from the one whom it is about, or lets it go. @throws NotFound */
export async function holdAnswer(
  db: Database,
  actor: Actor,
  { id, answerId, isHeld }: { id: string; answerId: string; isHeld: boolean },
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    await presentationOf(trx, actor, id);
    const held = isHeld ? { held_by: actor.personId, held_at: now } : { held_by: null, held_at: null };
    const found = await trx('feedback_answers').where({ id: answerId, presentation_id: id }).update(held);
    if (found === 0) throw new NotFound('No such answer.');
  });
}

/**
 * Hands on to one presenter what was looked through and is not held back: it stands in their report and at their desk from then on.
 *
 * @returns how many were handed on
 * @throws NotFound
 */
export async function handOn(
  db: Database,
  actor: Actor,
  { id, presenterId }: { id: string; presenterId: string },
  when: { now: Date; timeZone: string },
): Promise<number> {
  return db.transaction(async (trx) => {
    await requireStudent(trx, actor, presenterId, 'observe');
    await presentationOf(trx, actor, id);
    const answers = (await feedbackAnswers(trx, actor, id)).filter(
      (one) => one.presenterId === presenterId && !one.isHeld && !one.isHandedOn && !one.isWithdrawn,
    );
    for (const { id: answerId } of answers) await carryOver(trx, answerId, when);
    return answers.length;
  });
}
