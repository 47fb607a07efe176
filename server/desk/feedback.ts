import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { wallTime } from '~/core/calendar/zone';
import type { FeedbackSaid } from '~/core/desk/feedback';
import { answersSchema, type FormVersion, questionsSchema } from '~/core/entries/forms/form';
import { CHANGED_BY_STUDENT } from '../entries/corrections';
import { insertNote, mustFit } from '../entries/forms/notes';
import { throughDoor } from '../platform/db/asking';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import { tellLive } from '../platform/live';
import type { StudentAccess } from '../students/access';

const openRow = z.object({ id: z.string(), title: z.string() });

/** The open presentations in which a student answers, the newest first. */
export async function presentationsFor(db: Database, studentId: StudentAccess<'read'>) {
  return rowsOf(
    db,
    openRow,
    `select p.id, p.title from presentation_members m join presentations p on p.id = m.presentation_id and p.closed_at is null
      where m.student_id = ? order by p.made_at desc`,
    [studentId],
  );
}

const presenterRow = z.object({ studentId: z.string(), firstName: z.string(), initials: z.string() });

const givingRow = z.object({
  id: z.string(),
  title: z.string(),
  isClosed: z.boolean(),
  looksThrough: z.boolean(),
  form: z.object({ title: z.string(), hint: z.string(), questions: questionsSchema }),
});

/** A presentation as one of the class answers in it. */
export interface Giving extends z.infer<typeof givingRow> {
  form: FormVersion;
  /** Those who present besides oneself, in their order, each with what one said to them last. */
  presenters: (z.infer<typeof presenterRow> & {
    /** Null where nothing was said yet, or where somebody else may sit before it now. */
    answers: z.infer<typeof answersSchema> | null;
    isAnswered: boolean;
  })[];
}

/**
 * What one of the class answers in a presentation, and has answered.
 *
 * @param seatId  the seat at which they say who they are; there only what was said at it is shown: anybody with the class's code could sit down as them
 * @throws NotFound for one in which they are not
 */
export async function givingOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  id: string,
  seatId?: string,
): Promise<Giving> {
  const [found] = await rowsOf(
    db,
    givingRow,
    `select p.id, p.title, p.closed_at is not null as "isClosed", p.looks_through as "looksThrough",
            json_build_object('title', v.title, 'hint', v.hint, 'questions', v.questions) as form
       from presentation_members m join presentations p on p.id = m.presentation_id
       join form_versions v on v.form_id = p.form_id and v.version = p.form_version
      where m.student_id = :studentId and p.id = :id`,
    { studentId, id },
  );
  if (!found) throw new NotFound('No such presentation.');
  const presenters = await rowsOf(
    db,
    presenterRow,
    `select student_id as "studentId", first_name as "firstName", initials from presenters_of(:id)
      where student_id <> :studentId order by place`,
    { id, studentId },
  );
  const own = await rowsOf(
    db,
    z.object({ presenterId: z.string(), answers: answersSchema, seatId: z.string().nullable() }),
    `select a.presenter_id as "presenterId", s.answers, s.seat_id as "seatId" from feedback_answers a
       join lateral (select * from feedback_said x where x.answer_id = a.id order by x.seq desc limit 1) s on true
      where a.presentation_id = :id and a.giver_id = :studentId`,
    { id, studentId },
  );
  const said = new Map(own.map((one) => [one.presenterId, one]));
  return {
    ...found,
    presenters: presenters.map((one) => {
      const last = said.get(one.studentId);
      const isShown = last !== undefined && (seatId === undefined || last.seatId === seatId);
      return { ...one, answers: isShown ? last.answers : null, isAnswered: last !== undefined };
    }),
  };
}

interface When {
  now: Date;
  timeZone: string;
}

/**
 * Keeps what a classmate says to one presenter; said again, the last counts. Where nobody looks through it first, it stands in the
 * presenter's report at once. Sent twice, it is said once.
 *
 * @throws NotFound; Invalid with a message at the question, and once it is closed
 */
export async function sayFeedback(
  db: Database,
  { studentId, seatId = null }: { studentId: StudentAccess<'read'>; seatId?: string | null },
  { id, presentationId, presenterId, ...answered }: FeedbackSaid,
  when: When,
): Promise<void> {
  await db.transaction(async (trx) => {
    // Sent again after it was closed, it is said already.
    if (await trx('feedback_said').where({ id }).first('id')) return;
    const giving = await givingOf(trx, studentId, presentationId);
    if (!giving.presenters.some((one) => one.studentId === presenterId)) throw new NotFound('No such presenter.');
    if (giving.isClosed) throw new Invalid({ form: 'It is closed: nobody answers any more.' });
    const answers = mustFit(giving.form, answered, false);
    const pair = { presentation_id: presentationId, presenter_id: presenterId, giver_id: studentId };
    await trx('feedback_answers')
      .insert({ id: randomUUID(), ...pair })
      .onConflict(['presentation_id', 'presenter_id', 'giver_id'])
      .ignore();
    const answer = await trx('feedback_answers').where(pair).first('id');
    if (!answer) throw new NotFound('No such presentation.');
    await trx('feedback_said')
      .insert({ id, answer_id: answer.id, answers, seat_id: seatId, said_at: when.now })
      .onConflict('id')
      .ignore();
    if (!giving.looksThrough) {
      await throughDoor(trx, { to: presenterId, from: studentId }, () => carryOver(trx, answer.id, when, studentId));
    }
    await tellLive(trx, { studentId: presenterId, what: 'feedback', by: null });
  });
}

const carriedRow = z.object({
  presenterId: z.string(),
  giverId: z.string(),
  formId: z.string(),
  formVersion: z.number(),
  madeBy: z.string(),
  isHeld: z.boolean(),
  answers: answersSchema,
  saidAt: z.date(),
});

/**
 * Makes a note of the presenter of what a classmate said last, or has their note say it now. To be called where the presenter's rows
 * may be written.
 */
export async function carryOver(
  trx: Database,
  answerId: string,
  { now, timeZone }: When,
  giverId?: string,
): Promise<void> {
  const [found] = await rowsOf(
    trx,
    carriedRow,
    `select "presenterId", "giverId", "formId", "formVersion", "madeBy", "isHeld", answers, "saidAt" from feedback_to_carry(:answerId)`,
    { answerId },
  );
  if (!found || found.isHeld || (giverId && giverId !== found.giverId)) return;
  const { answers, presenterId: studentId, madeBy } = found;
  const before = await trx('entries')
    .where({ id: answerId, student_id: studentId, kind: 'note' })
    .forUpdate()
    .first('answers', 'version', 'withdrawn');
  if (before) {
    if (before.withdrawn || isDeepStrictEqual(before.answers, answers)) return;
    const change = { changed_by: madeBy, changed_at: now, change_reason: CHANGED_BY_STUDENT };
    await trx('entries')
      .where({ id: answerId })
      .update({ answers, version: before.version + 1, ...change });
    return;
  }
  const { on, time } = wallTime(found.saidAt, timeZone);
  const made = { id: answerId, studentId, on, time, observerId: madeBy, recordedBy: madeBy, isOwn: true };
  const form = { id: found.formId, version: found.formVersion };
  await insertNote(trx, { ...made, giverId: found.giverId, form, answers, photograph: null }, now);
}

const saidToRow = z.object({ id: z.string(), firstName: z.string() });

/** First names of those who gave a student feedback, by the note; only where it was said that they are told. */
export async function giversOf(db: Database, studentId: StudentAccess<'read'>): Promise<Map<string, string>> {
  const found = await rowsOf(db, saidToRow, `select entry_id as id, first_name as "firstName" from givers_of(?)`, [
    studentId,
  ]);
  return new Map(found.map(({ id, firstName }) => [id, firstName]));
}

/** Whether classmates have said anything to a student. */
export const hasFeedback = async (db: Database, studentId: StudentAccess<'read'>): Promise<boolean> =>
  (await db('entries as n')
    .join('forms as f', 'f.id', 'n.form_id')
    .where({ 'n.student_id': studentId, 'n.withdrawn': false, 'f.side': 'classmates' })
    .first('n.id')) !== undefined;
