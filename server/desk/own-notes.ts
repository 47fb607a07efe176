import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { WallTime } from '~/core/calendar/zone';
import { type Answers, questionsSchema } from '~/core/entries/forms/form';
import type { OwnNoteInput } from '~/core/entries/forms/note-input';
import { CHANGED_BY_STUDENT } from '../entries/corrections';
import { formVersionOf } from '../entries/forms/forms';
import { insertNote, mustFit, type Note, notesOf, photographFrom } from '../entries/forms/notes';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import { tellLive } from '../platform/live';
import type { School } from '../school/school';
import type { StudentAccess } from '../students/access';
import { mustBeChangeable } from './log';

const deskFormRow = z.object({
  id: z.string(),
  version: z.number(),
  title: z.string(),
  hint: z.string(),
  questions: questionsSchema,
  /** How often the student has answered it today. */
  timesToday: z.number(),
});
/** A form as it stands at a student's desk. */
export type DeskForm = z.infer<typeof deskFormRow>;

/** The forms that stand at a student's desk, the newest given first. */
export async function deskForms(db: Database, studentId: StudentAccess<'read'>, today: IsoDate): Promise<DeskForm[]> {
  return rowsOf(
    db,
    deskFormRow,
    `select f.id, v.version, v.title, v.hint, v.questions,
            (select count(*)::int from entries n where n.student_id = g.student_id and n.form_id = f.id and n.kind = 'note'
                and n.self_recorded and n.giver_id is null and not n.withdrawn and n.observed_on = :today) as "timesToday"
       from student_forms g join forms f on f.id = g.form_id and f.closed_at is null and f.side = 'self'
       join lateral (select * from form_versions x where x.form_id = f.id order by x.version desc limit 1) v on true
      where g.student_id = :studentId and g.taken_at is null order by g.given_at desc, f.id`,
    { studentId, today },
  );
}

/**
 * What a student answered by one form at their desk today, newest first.
 *
 * @throws NotFound for a form that does not stand there
 */
export async function ownNotesToday(
  db: Database,
  studentId: StudentAccess<'read'>,
  formId: string,
  today: IsoDate,
): Promise<{ form: DeskForm; notes: Note[] }> {
  const form = (await deskForms(db, studentId, today)).find(({ id }) => id === formId);
  if (!form) throw new NotFound('No such form.');
  const notes = (await notesOf(db, [studentId], { formId })).filter(
    (note) => note.isSelfRecorded && !note.isClassmates && note.on === today,
  );
  return { form, notes };
}

interface AtDesk {
  studentId: StudentAccess<'read'>;
  cardId: string;
  school: School;
}

interface Moment {
  wall: WallTime;
  now: Date;
}

/**
 * Keeps what a student answers about themselves, marked as theirs. Sent again alike it changes nothing; sent again otherwise on the same
 * day it is corrected, and its history stays. A form that was changed meanwhile is answered as they had it before them.
 *
 * @throws NotFound for a form that does not stand at their desk; Invalid with a message at the question
 */
export async function saveOwnNote(
  db: Database,
  { studentId, cardId, school }: AtDesk,
  input: OwnNoteInput,
  { wall, now }: Moment,
): Promise<void> {
  const photograph = await photographFrom(input.photograph);
  await db.transaction(async (trx) => {
    const { id, formId, formVersion } = input;
    const given = await trx('student_forms').where({ student_id: studentId, form_id: formId }).first('taken_at');
    if (!given) throw new NotFound('No such form.');
    const asked = { schoolId: school.id, id: formId, version: formVersion, side: 'self' } as const;
    const form = await formVersionOf(trx, asked);
    const before = await trx('entries')
      .where({ id, student_id: studentId, form_id: formId, self_recorded: true, withdrawn: false })
      .forUpdate()
      .first('answers', 'recorded_at', 'version', 'changed_by', 'change_reason', 'recorded_by');
    const hasPhotograph = photograph !== null || (before && (await hasPicture(trx, id))) === true;
    const answers = mustFit(form, input, hasPhotograph);
    if (before) return changeOwn(trx, { id, studentId, answers, before, timeZone: school.timeZone }, { wall, now });
    if (given.taken_at || form.isClosed) throw new Invalid({ form: 'Your teacher has put this away. Ask them.' });
    const card = await trx('cards').where({ id: cardId }).first('made_by');
    if (!card) throw new NotFound('No such card.');
    // Who gave the student their card answers for what comes in by it; the entry itself names the student.
    const made = { id, studentId, ...wall, observerId: card.made_by, recordedBy: card.made_by, isOwn: true };
    await insertNote(trx, { ...made, form: { id: formId, version: formVersion }, answers, photograph }, now);
  });
}

const hasPicture = async (trx: Database, entryId: string) =>
  (await trx('evidence').where({ entry_id: entryId, withdrawn_at: null }).first('id')) !== undefined;

interface OwnChange {
  id: string;
  studentId: StudentAccess<'read'>;
  answers: Answers;
  before: { answers: unknown; recorded_at: Date; version: number; change_reason: string | null; recorded_by: string };
  timeZone: string;
}

async function changeOwn(
  trx: Database,
  { id, studentId, answers, before, timeZone }: OwnChange,
  { wall, now }: Moment,
): Promise<void> {
  if (isDeepStrictEqual(before.answers, answers)) return;
  mustBeChangeable(before, wall.on, timeZone);
  await trx('entries')
    .where({ id })
    .update({
      ...{ answers, version: before.version + 1 },
      ...{ changed_by: before.recorded_by, changed_at: now, change_reason: CHANGED_BY_STUDENT },
    });
  await tellLive(trx, { studentId, what: 'entries', by: null });
}
