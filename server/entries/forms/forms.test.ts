import { randomUUID } from 'node:crypto';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import type { FormSide } from '~/core/entries/forms/form';
import { type FormInput, questionToChange } from '~/core/entries/forms/form-input';
import type { NoteInput } from '~/core/entries/forms/note-input';
import { shippedForms } from '~/core/entries/forms/shipped';
import { shownFields } from '~/core/sharing/visibility-rule';
import { freshDatabase } from '~/tests/database/fresh';
import {
  accessTo,
  actorOf,
  addStudent,
  now,
  type SmallSchool,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { goalsOf } from '../../goals/goals';
import { individualReport, type Reader } from '../../individual-report/individual-report';
import { Conflict, type Invalid, NotAllowed, NotFound } from '../../platform/failures';
import { formOf, formsOf, formVersionOf, saveForm, setFormClosed, staffForms } from './forms';
import { correctNote, historyOfNote, noteOf, notesOf, recordNote, withdrawNote } from './notes';

const fresh = freshDatabase();
let school: SmallSchool;
let ben: string;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  ben = await addStudent(fresh.db, 'Ben', [[school.manager, 'caseManager']]);
});
const manager = () => actorOf(school.manager);
const moment = { wall, now, timeZone: 'America/New_York' };

const input = (side: FormSide, changes: Partial<FormInput> = {}): FormInput => {
  const form = shippedForms.find((one) => one.side === side)!;
  return {
    ...{ id: randomUUID(), title: form.title, hint: form.hint, side, studentIds: [] },
    questions: form.questions.map((question) => questionToChange({ ...question, id: randomUUID() })),
    ...changes,
  };
};
async function made(side: FormSide, changes: Partial<FormInput> = {}) {
  const form = input(side, changes);
  await saveForm(fresh.db, manager(), form, now);
  return formOf(fresh.db, manager(), form.id);
}

describe('a form', () => {
  it('is kept once; a change of what it asks is a new version, and nothing else is', async () => {
    const form = input('staff');
    await saveForm(fresh.db, manager(), form, now);
    await saveForm(fresh.db, manager(), form, now);
    expect(await formOf(fresh.db, manager(), form.id)).toMatchObject({
      version: 1,
      isMine: true,
      title: 'A skill I saw',
    });
    await saveForm(fresh.db, manager(), { ...form, title: 'A skill' }, now);
    expect(await formOf(fresh.db, manager(), form.id)).toMatchObject({ version: 2, title: 'A skill' });
    const first = { schoolId: manager().schoolId, id: form.id, version: 1, side: 'staff' } as const;
    expect(await formVersionOf(fresh.db, first)).toMatchObject({ title: 'A skill I saw' });
    await expect(formVersionOf(fresh.db, { ...first, version: 3 })).rejects.toThrow(NotFound);
    await expect(formVersionOf(fresh.db, { ...first, side: 'self' })).rejects.toThrow(NotFound);
  });

  it('is seen by all staff, and changed by its maker', async () => {
    const form = await made('staff');
    expect(await formOf(fresh.db, actorOf(school.aide), form.id)).toMatchObject({ isMine: false });
    const theirs = { ...input('staff'), id: form.id };
    await expect(saveForm(fresh.db, actorOf(school.aide), theirs, now)).rejects.toThrow(NotFound);
    const closing = { id: form.id, isClosed: true };
    await expect(setFormClosed(fresh.db, actorOf(school.aide), closing, now)).rejects.toThrow(NotFound);
    await setFormClosed(fresh.db, manager(), closing, now);
    expect((await staffForms(fresh.db, manager())).map(({ id }) => id)).not.toContain(form.id);
    expect((await formsOf(fresh.db, manager())).at(-1)).toMatchObject({ id: form.id, isClosed: true });
    await setFormClosed(fresh.db, manager(), { id: form.id, isClosed: false }, now);
    expect((await staffForms(fresh.db, manager())).map(({ id }) => id)).toContain(form.id);
  });

  it('stands on the desks of those who are named, of one’s own students only', async () => {
    const form = await made('self', { studentIds: [school.student, ben] });
    expect(form.studentIds.toSorted()).toEqual([school.student, ben].toSorted());
    const mine = { ...input('self'), id: form.id, studentIds: [ben] };
    await saveForm(fresh.db, manager(), mine, now);
    expect((await formOf(fresh.db, manager(), form.id)).studentIds).toEqual([ben]);
    const strangers = input('self', { studentIds: [ben] });
    await expect(saveForm(fresh.db, actorOf(school.stranger), strangers, now)).rejects.toThrow(NotFound);
    await expect(formOf(fresh.db, actorOf(school.stranger), strangers.id)).rejects.toThrow(NotFound);
  });
});

async function noteFor(changes: Partial<NoteInput> = {}): Promise<NoteInput> {
  const form = await made('staff');
  const [did, help] = form.questions;
  return {
    ...{ id: randomUUID(), formId: form.id, formVersion: 1, observerId: school.manager, leavesOpen: false },
    ...{ on: today, time: '09:10', photograph: null, answers: { [did!.id]: 'Sorted the screws.', [help!.id]: 0 } },
    ...changes,
  };
}
const record = (note: NoteInput, person = school.manager) =>
  recordNote(fresh.db, actorOf(person), school.student, note, moment);
const stored = (note: NoteInput) => noteOf(fresh.db, accessTo(school.student), note.id);
const fieldsOf = (promise: Promise<unknown>) =>
  promise.then(
    (): Record<string, string> => ({}),
    (error: Invalid) => error.fields,
  );

describe('a note', () => {
  it('is recorded once, with the form as it was answered', async () => {
    const note = await noteFor();
    await record(note);
    await record(note);
    expect(await stored(note)).toMatchObject({
      answers: note.answers,
      version: 1,
      isClassmates: false,
      isSelfRecorded: false,
    });
    expect(await notesOf(fresh.db, [accessTo(school.student)], { formId: note.formId })).toHaveLength(1);
    const other = { ...note, answers: { ...note.answers, [Object.keys(note.answers)[1]!]: 2 } };
    expect((await fieldsOf(record(other))).form).toMatch(/saved already, and says something else/);
    await expect(recordNote(fresh.db, manager(), ben, note, moment)).rejects.toThrow(NotFound);
  });

  it('stays with the version that was answered, also when the form was changed meanwhile', async () => {
    const note = await noteFor();
    const form = await formOf(fresh.db, manager(), note.formId);
    const questions = form.questions.slice(0, 1).map(questionToChange);
    await saveForm(fresh.db, manager(), { ...input('staff'), id: note.formId, questions }, now);
    await record(note);
    expect((await stored(note)).form.questions).toEqual(form.questions);
  });

  it('asks once about what is required and open', async () => {
    const note = await noteFor();
    const [did, help] = Object.keys(note.answers) as [string, string];
    const open = { ...note, answers: { [help]: 1 } };
    expect(await fieldsOf(record(open))).toEqual({
      [`answers.${did}`]: 'This one is still open.',
      open: expect.stringContaining('still open'),
    });
    await record({ ...open, leavesOpen: true });
    expect((await stored(open)).answers).toEqual({ [help]: 1 });
    const empty = await noteFor({ answers: {}, leavesOpen: true });
    expect(await fieldsOf(record(empty))).toEqual({ form: 'Nothing is answered yet.' });
  });

  it.each([
    ['in the future', { on: '2030-01-01' }, 'on'],
    ['by somebody who is not on the team', { observerId: randomUUID() }, 'observerId'],
  ])('%s is refused at its field', async (_, changes, field) => {
    expect(Object.keys(await fieldsOf(record(await noteFor(changes))))).toEqual([field]);
  });

  it('is nobody’s who is not on the team, and is no student’s form', async () => {
    const note = await noteFor();
    await expect(record(note, school.stranger)).rejects.toThrow(NotFound);
    const self = await made('self');
    await expect(record({ ...note, formId: self.id, answers: {} })).rejects.toThrow(NotFound);
  });

  it('brings its photograph along, once, without what a camera writes into it', async () => {
    const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: 'green' } })
      .jpeg()
      .toBuffer();
    const note = await noteFor({ photograph: picture.toString('base64') });
    await record(note);
    await record(note);
    const files = await fresh.db('evidence').where({ entry_id: note.id }).select('type', 'width', 'added_by');
    expect(files).toEqual([{ type: 'image/jpeg', width: 40, added_by: school.manager }]);
    const broken = await noteFor({ photograph: Buffer.from('no picture').toString('base64') });
    expect(Object.keys(await fieldsOf(record(broken)))).toEqual(['file']);
    expect(await fresh.db('entries').where({ id: broken.id }).first('id')).toBeUndefined();
  });

  it('is corrected with its history, and withdrawn; another’s change meanwhile is shown', async () => {
    const note = await noteFor();
    await record(note);
    const ids = { studentId: school.student, noteId: note.id };
    const help = Object.keys(note.answers)[1]!;
    const { on, time, observerId } = note;
    const better = { on, time, observerId, answers: { ...note.answers, [help]: 3 }, leavesOpen: false };
    await correctNote(fresh.db, manager(), ids, { ...better, version: 1, why: 'It took none.' }, moment);
    expect(await stored(note)).toMatchObject({ version: 2, answers: { [help]: 3 }, changeReason: 'It took none.' });
    expect((await historyOfNote(fresh.db, note.id)).map(({ answers }) => answers[help])).toEqual([0]);
    const late = { ...better, answers: note.answers, version: 1, why: 'Another view.' };
    await expect(correctNote(fresh.db, manager(), ids, late, moment)).rejects.toThrow(Conflict);
    await expect(correctNote(fresh.db, actorOf(school.aide), ids, { ...late, version: 2 }, moment)).rejects.toThrow(
      NotAllowed,
    );
    await withdrawNote(fresh.db, manager(), ids, { version: 2, why: 'A mistake.' }, now);
    expect(await notesOf(fresh.db, [accessTo(school.student)], { ids: [note.id] })).toEqual([]);
    expect((await stored(note)).isWithdrawn).toBe(true);
  });
});

describe('in the individual report', () => {
  const reportFor = async (kind: Reader['kind'], fields: Parameters<typeof shownFields>[0], discreet = false) => {
    const access = accessTo(school.student);
    const reader: Reader = { kind, linkId: null, discreet, shows: shownFields(fields) };
    const wanted = { only: null, find: '', page: 1, day: null, oldestFirst: false } as const;
    return individualReport(fresh.db, access, await goalsOf(fresh.db, [access]), reader, wanted);
  };
  const find = (report: Awaited<ReturnType<typeof reportFor>>, { id }: NoteInput) =>
    report.entries.find((entry) => entry.id === id);

  it('a note stands where forms are shown, its texts where notes are, and no other child’s name outside', async () => {
    const note = await noteFor();
    const did = Object.keys(note.answers)[0]!;
    const named = { ...note, answers: { ...note.answers, [did]: 'Showed Ben the saw.' } };
    await record(named);
    expect(find(await reportFor('family', ['numbers', 'note']), note)).toBeUndefined();
    expect(find(await reportFor('family', ['forms']), note)?.sentence).toBe(
      'How much help did it take? With a lot of help.',
    );
    const whole = find(await reportFor('family', ['forms', 'note']), note)!;
    expect(whole).toMatchObject({ kind: 'note', title: 'A skill I saw', observer: null });
    expect(whole.sentence).toContain('Showed a classmate the saw.');
    expect(find(await reportFor('team', ['forms', 'note', 'observer']), note)?.sentence).toContain('Ben');
    expect(find(await reportFor('team', ['forms', 'note'], true), note)?.sentence).not.toContain('saw');
  });
});
