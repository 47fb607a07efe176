import { v5 as idFrom } from 'uuid';
import { wallTime } from '~/core/calendar/zone';
import type { Answers, FormSide, Question } from '~/core/entries/forms/form';
import { questionToChange } from '~/core/entries/forms/form-input';
import { shippedForms } from '~/core/entries/forms/shipped';
import { sayFeedback } from '~/server/desk/feedback';
import { saveOwnNote } from '~/server/desk/own-notes';
import { handOn, savePresentation } from '~/server/desk/presentations';
import { saveForm } from '~/server/entries/forms/forms';
import { recordNote } from '~/server/entries/forms/notes';
import { tell } from '~/server/platform/db/asking';
import type { Database } from '~/server/platform/db/database';
import type { School } from '~/server/school/school';
import { grant } from '~/server/students/access';
import { timeZone } from './school';

/** Ids that are the same in every demo. */
const SPACE = '6f0f6a1c-98f1-4c6a-9d7b-64c8e4a1d002';
const id = (...of: string[]) => idFrom(of.join(' '), SPACE);

const MINUTE = 60_000;

const formIdOf = (side: FormSide) => id('form', side);

/** The form that ships for a side, with ids of its own. */
function formFor(side: FormSide) {
  const shipped = shippedForms.find((one) => one.side === side);
  const questions: Question[] = (shipped?.questions ?? []).map((question, at) => ({
    ...question,
    id: id('question', side, String(at)),
  }));
  return { id: formIdOf(side), title: shipped?.title ?? '', hint: shipped?.hint ?? '', side, questions };
}

/** Answers in the order of the questions; null for one that was left open. */
const answersTo = (side: FormSide, given: readonly (Answers[string] | null)[]): Answers =>
  Object.fromEntries(
    formFor(side).questions.flatMap((question, at) => {
      const answer = given[at];
      return answer === null || answer === undefined ? [] : [[question.id, answer]];
    }),
  );

type Given = [name: string, minutesAgo: number, ...answers: (Answers[string] | null)[]];

const staffSaw: Given[] = [
  ['Linnea', 65, 'Showed a visitor how the cold frame opens.', 3, 'She had the picture card in her pocket.'],
  ['Jory', 50, 'Fetched the watering can without being asked.', 2, null],
];

const saidOfThemselves: Given[] = [
  ['Linnea', 9, 3, [0, 1], 2, 'Write the label.'],
  ['Jory', 7, 0, [3], 0, 'Ask where the line is.'],
  ['Kestrel', 5, 2, [0, 2], 3, null],
];

/** By whom, to whom, how clear, what was good, a tip. */
const saidToOthers: [string, string, number, string, string | null][] = [
  ['Ione', 'Kestrel', 3, 'You showed the seed inside the pod.', null],
  ['Linnea', 'Kestrel', 2, 'The drawing of the roots.', 'Hold it a bit higher.'],
  ['Jory', 'Kestrel', 3, 'It was funny.', null],
  ['Ione', 'Linnea', 2, 'You knew all the names.', 'Louder, like Kestrel.'],
];

/** The three forms of the school, what staff and students of the garden answered, and talks that classmates answer for. */
export async function setClassForms(db: Database, now: Date): Promise<void> {
  const teacher = await db('people').where({ demo_order: 1 }).first('id');
  const garden = await db('student_groups as g')
    .join('class_groups as c', 'c.id', 'g.group_id')
    .join('students as s', 's.id', 'g.student_id')
    .where({ 'c.name': 'Garden group', 's.archived_at': null })
    .distinct('s.id', 's.first_name', 's.school_id');
  const schoolId = garden[0]?.school_id;
  if (!teacher || !schoolId) return;
  const byName = new Map(garden.map((student) => [student.first_name, student.id]));
  const studentOf = (name: string) => byName.get(name) ?? '';
  const actor = { personId: teacher.id, schoolId, today: wallTime(now, timeZone).on };
  for (const side of ['staff', 'self', 'classmates'] as const) {
    const { questions, ...form } = formFor(side);
    const studentIds = side === 'self' ? [...byName.values()] : [];
    const made = new Date(now.getTime() - 6 * 24 * 60 * MINUTE);
    await saveForm(db, actor, { ...form, questions: questions.map(questionToChange), studentIds }, made);
  }
  const momentOf = (minutesAgo: number) => {
    const at = new Date(now.getTime() - minutesAgo * MINUTE);
    return { now: at, wall: wallTime(at, timeZone), timeZone };
  };
  for (const [name, ago, ...answers] of staffSaw) {
    const moment = momentOf(ago);
    const note = {
      ...{ id: id('note', name), formId: formIdOf('staff'), formVersion: 1, ...moment.wall, observerId: teacher.id },
      ...{ answers: answersTo('staff', answers), leavesOpen: false, photograph: null },
    };
    await recordNote(db, actor, studentOf(name), note, moment);
  }
  for (const [name, ago, ...answers] of saidOfThemselves) {
    const card = await db('cards')
      .where({ student_id: studentOf(name), ended_at: null })
      .first('id');
    if (!card) continue;
    const school = { id: schoolId, timeZone } as School;
    const desk = { studentId: grant(studentOf(name), 'card'), cardId: card.id, school };
    const said = { id: id('own', name), formId: formIdOf('self'), formVersion: 1, leavesOpen: false, photograph: null };
    await saveOwnNote(db, desk, { ...said, answers: answersTo('self', answers) }, momentOf(ago));
  }
  await setTalks(db, { actor, studentOf, members: [...byName.values()] }, now);
}

interface Talks {
  actor: { personId: string; schoolId: string; today: string };
  studentOf: (name: string) => string;
  members: string[];
}

/** Two have talked; what was said to the first was looked through already. */
async function setTalks(db: Database, { actor, studentOf, members }: Talks, now: Date): Promise<void> {
  const presentationId = id('talks');
  const presenterIds = ['Kestrel', 'Linnea'].map(studentOf);
  const talks = { id: presentationId, title: 'Seed talks', formId: formIdOf('classmates'), studentIds: members };
  await savePresentation(db, actor, { ...talks, presenterIds, showsNames: true, looksThrough: true }, now);
  for (const [from, to, clear, good, tip] of saidToOthers) {
    // Who asks decides what is seen of others, here as anywhere.
    await tell(db, { doorTo: studentOf(from) });
    await sayFeedback(
      db,
      { studentId: grant(studentOf(from), 'card') },
      {
        ...{ id: id('said', from, to), presentationId, presenterId: studentOf(to), leavesOpen: false },
        answers: answersTo('classmates', [clear, good, tip]),
      },
      { now: new Date(now.getTime() - 4 * MINUTE), timeZone },
    );
  }
  await db.raw(`select set_config('app.door', '', true)`);
  await tell(db, actor);
  const looked = { now: new Date(now.getTime() - 2 * MINUTE), timeZone };
  await handOn(db, actor, { id: presentationId, presenterId: studentOf('Kestrel') }, looked);
}
