import { z } from 'zod';
import {
  type Answers,
  answersSchema,
  type FormVersion,
  fittingAnswers,
  questionsSchema,
} from '~/core/entries/forms/form';
import type { NoteCorrection, NoteInput } from '~/core/entries/forms/note-input';
import type { WithdrawalInput } from '~/core/entries/observation';
import type { Database } from '../../platform/db/database';
import { held, rowsOf } from '../../platform/db/rows';
import { Invalid, NotFound } from '../../platform/failures';
import type { Actor } from '../../school/school';
import type { StudentAccess } from '../../students/access';
import type { SessionFacts } from '../check-session';
import { changeRecord, recordedColumns, recordedNames, recordedRow, revisedEntries } from '../corrections';
import { insertEvidence, prepareEvidence } from '../evidence/add';
import { checkWhen, insertOnce, type Moment } from '../incidents/record-incident';
import { formVersionOf } from './forms';

const noteRow = recordedRow.extend({
  on: z.string(),
  time: z.string(),
  answers: held(answersSchema),
  formId: held(z.string()),
  formVersion: held(z.number()),
  /** The form as it stood when it was answered. */
  form: z.object({ title: z.string(), hint: z.string(), questions: questionsSchema }),
  /** Whether a classmate gave it. */
  isClassmates: z.boolean(),
});
/** What was answered about one student by a form. */
export type Note = z.infer<typeof noteRow>;

const query = (from = 'entries') => `
  select ${recordedColumns('n')}, n.observed_on as "on", n.observed_time as "time", n.answers, n.form_id as "formId", n.form_version as "formVersion",
         json_build_object('title', v.title, 'hint', v.hint, 'questions', v.questions) as form, f.side = 'classmates' as "isClassmates"
    from ${from} n ${recordedNames('n')} join forms f on f.id = n.form_id
    join form_versions v on v.form_id = n.form_id and v.version = n.form_version`;

interface NotesWanted {
  ids?: readonly string[] | undefined;
  formId?: string;
  /** From this day on. */
  from?: string | undefined;
}

/** The notes of some students that stand, newest first. */
export async function notesOf(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  { ids, formId, from }: NotesWanted = {},
): Promise<Note[]> {
  return rowsOf(
    db,
    noteRow,
    `${query()} where n.student_id = any(:studentIds) and n.kind = 'note' and not n.withdrawn
        ${ids ? 'and n.id = any(:ids)' : ''} ${formId ? 'and n.form_id = :formId' : ''} ${from ? 'and n.observed_on >= :from' : ''}
      order by n.observed_on desc, n.observed_time desc, n.recorded_at desc`,
    { studentIds: [...studentIds], ids: [...(ids ?? [])], formId: formId ?? '', from: from ?? '' },
  );
}

/** @throws NotFound when the student has no such note */
export async function noteOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  id: string,
  { lock = false } = {},
): Promise<Note> {
  const [note] = await rowsOf(
    db,
    noteRow,
    `${query()} where n.student_id = ? and n.id = ? and n.kind = 'note' ${lock ? 'for update of n' : ''}`,
    [studentId, id],
  );
  if (!note) throw new NotFound('No such note.');
  return note;
}

/** What a note said before each change, oldest first. */
export async function historyOfNote(db: Database, id: string): Promise<Note[]> {
  return rowsOf(db, noteRow, `${query(revisedEntries)} order by n.version`, { id });
}

interface Answered {
  answers: Answers;
  leavesOpen: boolean;
}

/**
 * Holds what was answered against its form.
 *
 * @returns what is kept
 * @throws Invalid with a message at each question; of open ones, that they are open, unless that was said
 */
export function mustFit(form: FormVersion, { answers: raw, leavesOpen }: Answered, hasPhotograph: boolean): Answers {
  const fitting = fittingAnswers(form.questions, raw, { leavesOpen, hasPhotograph });
  if ('messages' in fitting) throw new Invalid(fitting.messages);
  return fitting.answers;
}

/** A photograph as it arrived, made ready to be kept. */
export async function photographFrom(base64: string | null) {
  return base64 === null ? null : prepareEvidence(Buffer.from(base64, 'base64'), { takes: 'pictures' });
}

/** What is written of a note, whoever made it. */
export interface NewNote {
  id: string;
  studentId: string;
  on: string;
  time: string;
  observerId: string;
  recordedBy: string;
  isOwn: boolean;
  giverId?: string;
  form: { id: string; version: number };
  answers: Answers;
  photograph: Awaited<ReturnType<typeof photographFrom>>;
}

/**
 * Writes a note once, with its photograph.
 *
 * @throws NotFound for an id that is somebody else's; Invalid where it was sent before and said something else
 */
export async function insertNote(trx: Database, note: NewNote, now: Date): Promise<void> {
  const { id, studentId, photograph } = note;
  await insertOnce(trx, {
    ...{ id, student_id: studentId, kind: 'note', observed_on: note.on, observed_time: note.time, note: '' },
    ...{ observer_id: note.observerId, recorded_by: note.recordedBy, recorded_at: now, self_recorded: note.isOwn },
    ...{ form_id: note.form.id, form_version: note.form.version, giver_id: note.giverId ?? null },
    answers: note.answers,
  });
  if (!photograph) return;
  // It has the id of its note: sent twice, it is there once.
  const file = { id, studentId, entryId: id, name: 'photograph.jpg', by: note.recordedBy };
  await insertEvidence(trx, file, photograph, now);
}

/**
 * Records what staff note of a student by a form. Sent again, nothing changes.
 *
 * @throws NotFound; Invalid with messages by field
 */
export async function recordNote(
  db: Database,
  actor: Actor,
  studentId: string,
  input: NoteInput,
  moment: Moment,
): Promise<SessionFacts['student']> {
  const photograph = await photographFrom(input.photograph);
  return db.transaction(async (trx) => {
    const asked = { studentId, right: 'observe' } as const;
    const { student, messages } = await checkWhen(trx, actor, asked, input, moment);
    const ofForm = { id: input.formId, version: input.formVersion };
    const form = await formVersionOf(trx, { ...ofForm, schoolId: actor.schoolId, side: 'staff' });
    if (Object.keys(messages).length > 0) throw new Invalid(messages);
    const answers = mustFit(form, input, photograph !== null);
    const { id, on, time, observerId } = input;
    const made = { id, studentId, on, time, observerId, recordedBy: actor.personId, isOwn: false };
    await insertNote(trx, { ...made, form: ofForm, answers, photograph }, moment.now);
    return student;
  });
}

interface NoteIds {
  studentId: string;
  noteId: string;
}

/** Replaces what a note says; its history is kept, with the reason. */
export function correctNote(
  db: Database,
  actor: Actor,
  ids: NoteIds,
  { version, why, on, time, observerId, ...answered }: NoteCorrection,
  moment: Moment,
): Promise<Note> {
  return changeNote(db, actor, ids, { version, why, now: moment.now }, async (note, trx) => {
    const asked = { studentId: ids.studentId, right: 'see' } as const;
    const { messages } = await checkWhen(trx, actor, asked, { on, time, observerId }, moment);
    if (Object.keys(messages).length > 0) throw new Invalid(messages);
    const pictures = await trx('evidence').where({ entry_id: ids.noteId, withdrawn_at: null }).first('id');
    const answers = mustFit(note.form, answered, pictures !== undefined);
    return { observed_on: on, observed_time: time, observer_id: observerId, answers };
  });
}

/** Takes a note out of the report; it stays readable on its own page, with the reason. */
export function withdrawNote(db: Database, actor: Actor, ids: NoteIds, input: WithdrawalInput, now: Date) {
  return changeNote(db, actor, ids, { ...input, now }, async () => ({ withdrawn: true }));
}

function changeNote(
  db: Database,
  actor: Actor,
  { studentId, noteId }: NoteIds,
  change: { version: number; why: string; now: Date },
  changesTo: (note: Note, trx: Database) => Promise<Record<string, unknown>>,
): Promise<Note> {
  return changeRecord<Note>(db, actor, {
    ...change,
    studentId,
    id: noteId,
    read: (trx, access, options) => noteOf(trx, access, noteId, options),
    changesTo,
  });
}
