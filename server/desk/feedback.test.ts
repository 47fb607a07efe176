// Feedback among classmates and answers about oneself, as the application's own role has them.
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { PresentationInput } from '~/core/desk/feedback';
import type { FormSide } from '~/core/entries/forms/form';
import { questionToChange } from '~/core/entries/forms/form-input';
import { shippedForms } from '~/core/entries/forms/shipped';
import { freshDatabase } from '~/tests/database/fresh';
import { accessTo, actorOf, addStudent, now, type SmallSchool, smallSchool, wall } from '~/tests/database/small-school';
import { canChangeEntry } from '../entries/corrections';
import { formOf, saveForm, setFormClosed } from '../entries/forms/forms';
import { historyOfNote, noteOf, notesOf, withdrawNote } from '../entries/forms/notes';
import { type Asking, tell } from '../platform/db/asking';
import { connect, type Database } from '../platform/db/database';
import { type Invalid, NotFound } from '../platform/failures';
import { requireStudent } from '../students/students';
import { makeCards } from './cards';
import { giversOf, givingOf, hasFeedback, presentationsFor, sayFeedback } from './feedback';
import { deskForms, ownNotesToday, saveOwnNote } from './own-notes';
import {
  feedbackAnswers,
  handOn,
  holdAnswer,
  movePresenter,
  newPresentationCode,
  presentationOf,
  presentationsOf,
  savePresentation,
  setPresentationClosed,
} from './presentations';
import { studentInSeat, whoPresents } from './seats';

const fresh = freshDatabase();
let app: Database;
let school: SmallSchool;
let ada: string;
let ben: string;
let cem: string;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  app = connect(fresh.url, { poolSize: 1, as: 'app' });
  ada = school.student;
  ben = await addStudent(fresh.db, 'Ben', [[school.manager, 'caseManager']]);
  cem = await addStudent(fresh.db, 'Cem', [[school.manager, 'caseManager']]);
});
afterAll(() => app.destroy());

const manager = () => actorOf(school.manager);
const timeZone = 'America/New_York';
const when = { now, timeZone };
const as = <Result>(who: Asking, what: (db: Database) => Promise<Result>) =>
  app.transaction(async (trx) => {
    await tell(trx, who);
    return what(trx);
  });
const teacher = <Result>(what: (db: Database) => Promise<Result>) => as(manager(), what);
const at = <Result>(student: string, what: (db: Database) => Promise<Result>) => as({ doorTo: student }, what);

async function formFor(side: FormSide, studentIds: string[] = []) {
  const { title, hint, questions } = shippedForms.find((one) => one.side === side)!;
  const id = randomUUID();
  const asked = questions.map((question) => questionToChange({ ...question, id: randomUUID() }));
  await teacher((db) => saveForm(db, manager(), { id, title, hint, side, questions: asked, studentIds }, now));
  return teacher((db) => formOf(db, manager(), id));
}

async function presentation(changes: Partial<PresentationInput> = {}) {
  const form = await formFor('classmates');
  const input = {
    ...{
      id: randomUUID(),
      title: 'Birdhouses',
      formId: form.id,
      studentIds: [ada, ben, cem],
      presenterIds: [ada, ben],
    },
    ...{ showsNames: false, looksThrough: true, ...changes },
  };
  await teacher((db) => savePresentation(db, manager(), input, now));
  const [clear, good] = form.questions;
  const said = (presenterId: string, text: string, more: object = {}) => ({
    ...{ id: randomUUID(), presentationId: input.id, presenterId, leavesOpen: false },
    ...{ answers: { [clear!.id]: 2, [good!.id]: text }, ...more },
  });
  const say = (giver: string, what: ReturnType<typeof said>) =>
    at(giver, (db) => sayFeedback(db, { studentId: accessTo(giver) }, what, when));
  const answers = () => teacher((db) => feedbackAnswers(db, manager(), input.id));
  return { input, form, said, say, answers, good: good!.id };
}
const notesAbout = (student: string) => at(student, (db) => notesOf(db, [accessTo(student)]));
const fieldsOf = (promise: Promise<unknown>) =>
  promise.then(
    (): Record<string, string> => ({}),
    (error: Invalid) => error.fields,
  );

describe('a presentation', () => {
  it('is kept once, with its order, which is changed one place at a time', async () => {
    const { input } = await presentation();
    await teacher((db) => savePresentation(db, manager(), { ...input, presenterIds: [ada, ben, cem] }, now));
    await teacher((db) => movePresenter(db, manager(), { id: input.id, studentId: cem, by: -1 }));
    const { members } = await teacher((db) => presentationOf(db, manager(), input.id));
    expect(members.map(({ studentId, place }) => [studentId, place])).toEqual([
      [ada, 1],
      [cem, 2],
      [ben, 3],
    ]);
    await teacher((db) => savePresentation(db, manager(), { ...input, studentIds: [ada, ben] }, now));
    expect((await teacher((db) => presentationOf(db, manager(), input.id))).members).toHaveLength(2);
    expect((await teacher((db) => presentationsOf(db, manager()))).map(({ id }) => id)).toContain(input.id);
  });

  it('is its maker’s alone, of students of theirs, with a form for classmates', async () => {
    const { input } = await presentation();
    const other = actorOf(school.stranger);
    await expect(as(other, (db) => presentationOf(db, other, input.id))).rejects.toThrow(NotFound);
    await expect(as(other, (db) => savePresentation(db, other, { ...input, id: randomUUID() }, now))).rejects.toThrow(
      NotFound,
    );
    await expect(as(other, (db) => newPresentationCode(db, other, input.id))).rejects.toThrow(NotFound);
    await expect(
      as(other, (db) => setPresentationClosed(db, other, { id: input.id, isClosed: true }, now)),
    ).rejects.toThrow(NotFound);
    const self = await formFor('self');
    const wrong = { ...input, id: randomUUID(), formId: self.id };
    expect(Object.keys(await fieldsOf(teacher((db) => savePresentation(db, manager(), wrong, now))))).toEqual([
      'formId',
    ]);
    const outside = { ...input, id: randomUUID(), studentIds: [ada, ben], presenterIds: [cem] };
    const refused = fieldsOf(teacher((db) => savePresentation(db, manager(), outside, now)));
    expect(Object.keys(await refused)).toEqual(['presenterIds']);
  });

  it('keeps its form and those who are in it, once somebody has answered', async () => {
    const { input, say, said } = await presentation();
    await say(cem, said(ada, 'The roof.'));
    const form = await formFor('classmates');
    const other = fieldsOf(teacher((db) => savePresentation(db, manager(), { ...input, formId: form.id }, now)));
    expect(Object.keys(await other)).toEqual(['formId']);
    const without = { ...input, studentIds: [ada, ben] };
    const gone = fieldsOf(teacher((db) => savePresentation(db, manager(), without, now)));
    expect(Object.keys(await gone)).toEqual(['studentIds']);
  });
});

describe('what a classmate says', () => {
  it('waits until the teacher has looked through it, then is a note of who presented, by no name', async () => {
    const { input, say, said, answers } = await presentation();
    await say(cem, said(ada, 'The roof.'));
    expect(await notesAbout(ada)).toEqual([]);
    expect(await answers()).toMatchObject([{ presenterId: ada, giverId: cem, isHandedOn: false, times: 1 }]);
    const handed = () => teacher((db) => handOn(db, manager(), { id: input.id, presenterId: ada }, when));
    expect([await handed(), await handed()]).toEqual([1, 0]);
    const [note] = await notesAbout(ada);
    expect(note).toMatchObject({ observerName: 'Classmate', recordedByName: 'Classmate', isClassmates: true });
    expect((await answers())[0]).toMatchObject({ isHandedOn: true });
    expect(await at(ada, (db) => giversOf(db, accessTo(ada)))).toEqual(new Map());
    // It is in nobody's own words but the classmate's: it can be taken out, and not put otherwise.
    const student = await teacher((db) => requireStudent(db, manager(), ada, 'see'));
    expect(canChangeEntry(student, manager(), note!, now)).toBe(true);
    await teacher((db) =>
      withdrawNote(db, manager(), { studentId: ada, noteId: note!.id }, { version: 1, why: 'Unkind.' }, now),
    );
    expect((await answers())[0]).toMatchObject({ isWithdrawn: true, isHandedOn: false });
    expect(await handed()).toBe(0);
    expect(await at(ada, (db) => hasFeedback(db, accessTo(ada)))).toBe(false);
  });

  it('is corrected until it is closed, and the last counts; sent twice it is said once', async () => {
    const { input, say, said, answers, good } = await presentation();
    const first = said(ben, 'The door.');
    await say(cem, first);
    await say(cem, first);
    await say(cem, said(ben, 'The door and the roof.'));
    expect(await answers()).toMatchObject([{ times: 2, answers: { [good]: 'The door and the roof.' } }]);
    await teacher((db) => setPresentationClosed(db, manager(), { id: input.id, isClosed: true }, now));
    expect((await fieldsOf(say(cem, said(ben, 'Too late.')))).form).toMatch(/closed/);
    await say(cem, first);
    expect(await answers()).toMatchObject([{ times: 2 }]);
    expect(await at(cem, (db) => presentationsFor(db, accessTo(cem)))).not.toContainEqual(
      expect.objectContaining({ id: input.id }),
    );
  });

  it('goes on at once where nobody looks through it; a correction replaces it and keeps its history', async () => {
    const { say, said, good } = await presentation({ looksThrough: false, showsNames: true });
    await say(cem, said(ben, 'The door.'));
    const [note] = await notesAbout(ben);
    expect(note).toMatchObject({ answers: { [good]: 'The door.' }, version: 1 });
    await say(cem, said(ben, 'The hinges.'));
    expect((await notesAbout(ben))[0]).toMatchObject({ id: note!.id, answers: { [good]: 'The hinges.' }, version: 2 });
    const history = await at(ben, (db) => historyOfNote(db, note!.id));
    expect(history.map(({ answers }) => answers[good])).toEqual(['The door.']);
    expect(await at(ben, (db) => giversOf(db, accessTo(ben)))).toEqual(new Map([[note!.id, 'Cem']]));
    expect(await at(cem, (db) => giversOf(db, accessTo(ben)))).toEqual(new Map());
  });

  it('is told of at once to whoever is told of each new entry, also where a classmate’s tap made it', async () => {
    const link = {
      id: randomUUID(),
      student_id: ada,
      reader_name: 'Ada',
      kind: 'student' as const,
      purpose: 'Their own',
    };
    const told = { email: 'ada@school.example', frequency: 'entry' as const, ends_on: '2027-06-11' };
    await fresh.db('share_links').insert({ ...link, ...told, created_by: school.manager, created_at: now });
    const { say, said } = await presentation({ looksThrough: false });
    await say(cem, said(ada, 'The roof.'));
    const [note] = await notesAbout(ada);
    const events = await fresh.db('entry_events').where({ student_id: ada }).pluck('entry_id');
    expect(events).toContain(note!.id);
    await fresh.db('share_links').where({ id: link.id }).update({ frequency: 'byHand' });
  });

  it('that is held back goes on to nobody, until it is let go', async () => {
    const { input, say, said, answers } = await presentation();
    await say(cem, said(ada, 'Ben’s was better.'));
    const answerId = (await answers())[0]!.id;
    const hold = (isHeld: boolean) =>
      teacher((db) => holdAnswer(db, manager(), { id: input.id, answerId, isHeld }, now));
    await hold(true);
    const handed = () => teacher((db) => handOn(db, manager(), { id: input.id, presenterId: ada }, when));
    expect(await handed()).toBe(0);
    await hold(false);
    expect(await handed()).toBe(1);
    const unknown = { id: input.id, answerId: randomUUID(), isHeld: true };
    await expect(teacher((db) => holdAnswer(db, manager(), unknown, now))).rejects.toThrow(NotFound);
  });

  it('is about others who present, in what one is in oneself', async () => {
    const { input, say, said } = await presentation({ studentIds: [ada, ben], presenterIds: [ada] });
    const giving = await at(ben, (db) => givingOf(db, accessTo(ben), input.id));
    expect(giving.presenters.map(({ firstName }) => firstName)).toEqual(['Ada']);
    expect((await at(ada, (db) => givingOf(db, accessTo(ada), input.id))).presenters).toEqual([]);
    await expect(say(ada, said(ada, 'Mine is best.'))).rejects.toThrow(NotFound);
    await expect(say(ada, said(ben, 'He does not present.'))).rejects.toThrow(NotFound);
    await expect(say(cem, said(ada, 'I am not in it.'))).rejects.toThrow(NotFound);
    const open = said(ada, '');
    expect((await fieldsOf(say(ben, open))).open).toContain('still open');
    await say(ben, { ...open, leavesOpen: true });
  });
});

describe('the code of a class', () => {
  it('lets in those of the presentation, while it is open and the newest', async () => {
    const { input } = await presentation({ studentIds: [ada, ben], presenterIds: [ada] });
    const code = () => teacher((db) => newPresentationCode(db, manager(), input.id));
    const first = await code();
    const nobody = (token: string) => app.transaction((trx) => whoPresents(trx, token));
    expect((await nobody(first)).map(({ firstName }) => firstName)).toEqual(['Ada', 'Ben']);
    const second = await code();
    expect(await nobody(first)).toEqual([]);
    await teacher((db) => setPresentationClosed(db, manager(), { id: input.id, isClosed: true }, now));
    expect(await nobody(second)).toEqual([]);
    expect(await app.transaction((trx) => studentInSeat(trx, 'no seat'))).toBeNull();
  });

  it('shows at a seat what was said at it, since anybody with the code may sit down as anybody', async () => {
    const { input, said, good } = await presentation();
    const [seatId, other] = [randomUUID(), randomUUID()];
    for (const id of [seatId, other]) {
      const seat = { id, presentation_id: input.id, student_id: cem, began_at: now };
      await at(cem, (db) => db('presentation_seats').insert({ ...seat, token_hash: Buffer.from(id) }));
    }
    await at(cem, (db) => sayFeedback(db, { studentId: accessTo(cem), seatId }, said(ada, 'The roof.'), when));
    const shown = async (seat?: string) =>
      (await at(cem, (db) => givingOf(db, accessTo(cem), input.id, seat))).presenters.find(
        ({ studentId }) => studentId === ada,
      );
    expect((await shown(seatId))?.answers?.[good]).toBe('The roof.');
    expect(await shown(other)).toMatchObject({ answers: null, isAnswered: true });
    // At their own desk, to which they came by their own card, it is theirs.
    expect((await shown())?.answers?.[good]).toBe('The roof.');
    const { members } = await teacher((db) => presentationOf(db, manager(), input.id));
    expect(members.find(({ studentId }) => studentId === cem)?.seats).toBe(2);
  });

  it('shows one student’s door nothing of what others said', async () => {
    const { say, said } = await presentation();
    await say(cem, said(ada, 'The roof.'));
    const seen = (student: string) =>
      at(student, (db) => db('feedback_answers').where({ giver_id: cem, presenter_id: ada }).pluck('giver_id'));
    expect(new Set(await seen(cem))).toEqual(new Set([cem]));
    expect([await seen(ada), await seen(ben)]).toEqual([[], []]);
    const other = actorOf(school.stranger);
    expect(await as(other, (db) => db('feedback_said').pluck('id'))).toEqual([]);
    expect(await as(other, (db) => db('presentations').pluck('id'))).toEqual([]);
  });
});

describe('a form at one’s own desk', () => {
  const school5 = () => ({ id: manager().schoolId, timeZone }) as Parameters<typeof saveOwnNote>[1]['school'];
  async function desk(student: string) {
    await makeCards(fresh.db, manager(), [student], now);
    const { id: cardId } = (await fresh.db('cards').where({ student_id: student, ended_at: null }).first('id'))!;
    const form = await formFor('self', [student]);
    const went = form.questions[0]!.id;
    const input = {
      id: randomUUID(),
      formId: form.id,
      formVersion: 1,
      leavesOpen: false,
      photograph: null,
      answers: { [went]: 1 },
    };
    const save = (changes: object = {}, moment: object = {}) => {
      const whose = { studentId: accessTo(student), cardId: cardId as string, school: school5() };
      return at(student, (db) => saveOwnNote(db, whose, { ...input, ...changes }, { wall, now, ...moment }));
    };
    return { form, went, input, save };
  }
  const stored = (student: string, id: string) => at(student, (db) => noteOf(db, accessTo(student), id));

  it('is answered as often as wanted, marked as theirs, and corrected that day', async () => {
    const { form, went, input, save } = await desk(ben);
    await save();
    await save();
    expect(await stored(ben, input.id)).toMatchObject({
      isSelfRecorded: true,
      observerName: 'Student',
      version: 1,
      isClassmates: false,
    });
    await save({ answers: { [went]: 3 } });
    expect(await stored(ben, input.id)).toMatchObject({ version: 2, answers: { [went]: 3 }, changedByName: 'Student' });
    await save({ id: randomUUID() });
    const { notes } = await at(ben, (db) => ownNotesToday(db, accessTo(ben), form.id, wall.on));
    expect(notes).toHaveLength(2);
    const forms = await at(ben, (db) => deskForms(db, accessTo(ben), wall.on));
    expect(forms.find(({ id }) => id === form.id)).toMatchObject({ timesToday: 2 });
    const tomorrow = { wall: { ...wall, on: '2030-01-01' } };
    expect((await fieldsOf(save({ answers: { [went]: 0 } }, tomorrow))).form).toMatch(/on the day you made it/);
  });

  it('that was put away while it was answered says so; one that is not theirs is not found', async () => {
    const { form, input, save } = await desk(cem);
    await teacher((db) => setFormClosed(db, manager(), { id: form.id, isClosed: true }, now));
    expect((await fieldsOf(save())).form).toMatch(/put this away/);
    expect(await at(cem, (db) => deskForms(db, accessTo(cem), wall.on))).toEqual([]);
    await expect(at(cem, (db) => ownNotesToday(db, accessTo(cem), form.id, wall.on))).rejects.toThrow(NotFound);
    const { save: saveBens } = await desk(ben);
    await expect(saveBens({ formId: form.id, id: input.id })).rejects.toThrow(NotFound);
  });
});
