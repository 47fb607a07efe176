import { z } from 'zod';
import { dateSeenFrom } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import { type AnsweredForm, answerCounts, answerRows, hasColumn } from '~/core/desk/form-answers';
import { textsIn } from '~/core/entries/forms/typed-answers';
import { discreetStudent } from '~/core/goals/discreet';
import { formOf } from '~/server/entries/forms/forms';
import { type Note, notesOf } from '~/server/entries/forms/notes';
import type { Database } from '~/server/platform/db/database';
import { rosterFinder } from '~/server/sharing/other-children';
import { can } from '~/server/students/rights';
import { studentsOf } from '~/server/students/students';
import type { RequestPerson } from '../../platform/http/request-person';

const asked = z.object({
  group: z.string().nullable().catch(null),
  on: z.iso.date().nullable().catch(null),
  out: z.literal('1').nullable().catch(null),
  all: z.literal('1').nullable().catch(null),
});

/** Days that can be chosen. */
const MOST_DAYS = 20;

/** What is asked for, from an address; what is unknown is passed over. */
const askedFrom = (search: URLSearchParams) =>
  asked.parse(Object.fromEntries(['group', 'on', 'out', 'all'].map((key) => [key, search.get(key)])));

const answeredFrom = ({ id, studentId, on, time, observerName, form, answers }: Note): AnsweredForm => ({
  ...{ id, studentId, on, time, by: observerName, questions: form.questions, answers },
});

/**
 * All answers of a class by one form, as the page and its file show them.
 *
 * @throws NotFound for a form that is not the school's
 */
export async function answersView(db: Database, person: RequestPerson, formId: string, search: URLSearchParams) {
  const { actor, discreet } = person;
  const form = await formOf(db, actor, formId);
  const { group: wanted, on, out, all } = askedFrom(search);
  const everyone = (await studentsOf(db, actor)).filter((student) => can(student, 'see'));
  const groups = [...new Set(everyone.flatMap((student) => student.groups))].sort();
  const group = groups.find((name) => name === wanted) ?? null;
  const inGroup = group === null ? everyone : everyone.filter((student) => student.groups.includes(group));
  const found = await notesOf(
    db,
    inGroup.map(({ id }) => id),
    { formId },
  );
  // Staff may write of everybody; who has no such form at their desk, or did not present, is not missing.
  const has = new Set([...form.studentIds, ...found.map(({ studentId }) => studentId as string)]);
  const students = form.side === 'staff' ? inGroup : inGroup.filter(({ id }) => has.has(id));
  const days = [...new Set(found.map((note) => note.on))].slice(0, MOST_DAYS);
  const notes = on === null ? found : found.filter((note) => note.on === on);
  const answered = notes.map(answeredFrom);
  const rows = answerRows(
    students.map(({ id }) => id),
    answered,
    form.questions,
    { all: all !== null },
  );
  const names = new Map<string, string>(
    students.map((student) => [student.id, (discreet ? discreetStudent(student) : student).shortName]),
  );
  const [first] = students;
  const find = first && (await rosterFinder(db, first.id));
  const textOf = new Map(notes.map((note) => [note.id, textsIn(note.form.questions, note.answers)]));
  const namedIn = (studentId: string, noteId: string) => {
    const named = find?.(textOf.get(noteId) ?? '', studentId) ?? [];
    return discreet ? [] : [...new Set(named.map(({ text }) => text))];
  };
  const shown = new Set(rows.flatMap((row) => row.answered?.id ?? []));
  const columns = form.questions.filter(hasColumn);
  const isHidden = (at: number) => discreet && columns[at]?.kind === 'text';
  return {
    form: { id: form.id, title: form.title, side: form.side, isMine: form.isMine, questions: form.questions },
    ...{ groups, group, on, days: days.map((day) => ({ on: day, words: dateSeenFrom(day, actor.today) })) },
    ...{ isOnlyOut: out !== null, isAll: all !== null, today: actor.today, discreet },
    columns: columns.map(({ id, ask }) => ({ id, ask })),
    rows: rows
      .filter((row) => out === null || row.standsOut)
      .map(({ studentId, answered: note, times, standsOut }) => ({
        ...{ studentId, name: defined(names.get(studentId)), times, standsOut },
        answered: note && {
          ...{ ...note, when: `${dateSeenFrom(note.on, actor.today)}, ${note.time}` },
          cells: note.cells.map((cell, at) => (isHidden(at) ? { ...cell, words: '' } : cell)),
          names: namedIn(studentId, note.id),
        },
      })),
    counts: answerCounts(
      answered.filter(({ id }) => shown.has(id)),
      form.questions,
    ),
    summary: {
      answered: new Set(notes.map(({ studentId }) => studentId)).size,
      of: students.length,
      out: rows.filter(({ standsOut }) => standsOut).length,
    },
  };
}
export type AnswersView = Awaited<ReturnType<typeof answersView>>;
