import { useState } from 'react';
import { data, Link } from 'react-router';
import { z } from 'zod';
import { longDate, shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { defined } from '~/core/defined';
import { answersSentence, answerWords } from '~/core/entries/forms/form';
import { noteCorrection } from '~/core/entries/forms/note-input';
import { answersToSend, textsIn } from '~/core/entries/forms/typed-answers';
import { withdrawalInput } from '~/core/entries/observation';
import { readable } from '~/core/words/readable';
import { canChangeEntry } from '~/server/entries/corrections';
import { correctNote, historyOfNote, type Note, noteOf, withdrawNote } from '~/server/entries/forms/notes';
import { database } from '~/server/platform/db/current';
import { Conflict, Invalid } from '~/server/platform/failures';
import { ruledEntry } from '~/server/rules/ruled-entry';
import { requireStudent, supportTeam } from '~/server/students/students';
import type { EntryVersion } from '../entries/change-messages';
import { Correction } from '../entries/correction';
import { EntryEvidence } from '../entries/evidence/entry-evidence-section';
import { AnswerFields } from '../entries/forms/answer-fields';
import { noteMessages } from '../entries/forms/notes';
import { WhenInputs } from '../entries/forms/when-inputs';
import { HowItCameAbout, RecordChanges, WithdrawnNotice } from '../entries/record-changes';
import { sayNext } from '../platform/http/cookies';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { Page } from '../platform/ui/page';
import { saveOrStay } from '../platform/ui/use-saving';
import { EntryRules } from '../rules/entry-rules';
import { headerStudent } from '../students/header-student';
import { NamesInNote } from '../students/names-in-note';
import type { Route } from './+types/note';
import { noteWords } from './words';

function versionOf(note: Note, timeZone: string, discreet: boolean): EntryVersion {
  const { on, time } = wallTime(note.changedAt ?? note.recordedAt, timeZone);
  return {
    version: note.version,
    about: [longDate(note.on), note.time, note.observerName].join(' · '),
    sentence: answersSentence(note.form.questions, note.answers, { words: !discreet }),
    ...{ note: '', tones: [] },
    written: `${note.changedByName ?? note.recordedByName}, ${shortDate(on)} ${time}`,
    why: discreet ? null : note.changeReason,
    isWithdrawn: note.isWithdrawn,
  };
}

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, now, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'see');
  const note = await noteOf(database(), student.id, idFrom(params.noteId));
  const history = await historyOfNote(database(), note.id);
  const team = await supportTeam(database(), student.id, actor.today);
  const mayChange = !note.isWithdrawn && !discreet && canChangeEntry(student, actor, note, now);
  const shown = note.form.questions.filter(({ kind }) => kind !== 'photograph' && !(discreet && kind === 'text'));
  const { id, version, on, time, observerId, form, isSelfRecorded } = note;
  return {
    student: headerStudent(student, { discreet }),
    title: form.title,
    said: shown.map((question) => ({
      ...{ id: question.id, ask: question.ask, answer: answerWords(question, note.answers[question.id]) },
    })),
    note: { id, version, isSelfRecorded },
    // What students said stays in their words: it is taken out, and not put otherwise.
    toCorrect:
      mayChange && !isSelfRecorded ? { on, time, observerId, answers: note.answers, questions: form.questions } : null,
    mayChange,
    ruled: discreet || note.isWithdrawn ? null : await ruledEntry(database(), actor, student.id, note.id),
    today: actor.today,
    people: team.map((member) => ({ id: member.id, name: member.shortName })),
    versions: [...history, note].map((version) => versionOf(version, school.timeZone, discreet)),
  };
});

const change = z.object({ intent: z.enum(['correct', 'withdraw']) }).loose();

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, school, wall, now, discreet } = personOf(context);
  const ids = { studentId: idFrom(params.studentId), noteId: idFrom(params.noteId) };
  await requireStudent(database(), actor, ids.studentId, 'see');
  const asked = change.safeParse(await jsonOf(request));
  if (!asked.success) return refusedWith({ form: noteWords.thisCannotBeRead });
  try {
    if (asked.data.intent === 'correct') {
      const parsed = readable(noteCorrection).safeParse(asked.data);
      if (!parsed.success) return refusedWith(noteMessages(parsed.error));
      await correctNote(database(), actor, ids, parsed.data, { wall, now, timeZone: school.timeZone });
      return data({ saved: 1 }, { headers: await sayNext({ text: noteWords.corrected }) });
    }
    const parsed = readable(withdrawalInput).safeParse(asked.data);
    if (!parsed.success) return refusedWith(noteMessages(parsed.error));
    await withdrawNote(database(), actor, ids, parsed.data, now);
    return data({ saved: 1 }, { headers: await sayNext({ text: noteWords.withdrawn }) });
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    if (!(error instanceof Conflict)) throw error;
    return data({ conflict: versionOf(error.current as Note, school.timeZone, discreet) }, { status: 409 });
  }
});

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => saveOrStay(serverAction);

export const meta: Route.MetaFunction = () => [{ title: noteWords.pageTitle }];

export default function NotePage({ loaderData }: Route.ComponentProps) {
  const { student, title, said, note, toCorrect, mayChange, people, today, versions } = loaderData;
  const now = defined(versions.at(-1));
  const path = `/students/${student.id}/notes/${note.id}`;
  const lineClass = now.isWithdrawn ? 'border-rule text-ink-3 line-through' : 'border-clay';
  return (
    <Page marginName={noteWords.history} margin={<HowItCameAbout versions={versions} />}>
      <p className="text-small">
        <Link to={`/students/${student.id}/individual-report`} className="text-ink-2 link">
          {student.shortName} · {noteWords.report}
        </Link>
      </p>
      <h1 className="mt-1 text-2xl">{title}</h1>
      <p className="mt-1 text-ink-2">{now.about}</p>
      <WithdrawnNotice now={now} />
      <dl className={`mt-5 grid max-w-2xl gap-3 border-l-2 pl-4 ${lineClass}`}>
        {said.map(({ id, ask, answer }) => (
          <div key={id}>
            <dt className="text-small text-ink-2">{ask}</dt>
            <dd className={answer ? 'whitespace-pre-line' : 'text-ink-3'}>{answer || noteWords.leftOpen}</dd>
          </div>
        ))}
      </dl>
      {!student.isDiscreet && (
        <EntryEvidence
          studentId={student.id}
          entryId={note.id}
          mayAdd={student.mayObserve && !note.isSelfRecorded && !now.isWithdrawn}
        />
      )}
      {mayChange && note.isSelfRecorded && <p className="mt-5 text-small text-ink-2">{noteWords.theirWords}</p>}
      {mayChange && (
        <RecordChanges
          action={path}
          version={note.version}
          correcting={
            toCorrect &&
            ((close) => (
              <CorrectNote
                {...{ action: path, studentId: student.id, version: note.version, people, today, onDone: close }}
                note={toCorrect}
              />
            ))
          }
        />
      )}
      {loaderData.ruled && (
        <EntryRules ruled={loaderData.ruled} studentId={student.id} entryId={note.id} mayMake={student.mayObserve} />
      )}
    </Page>
  );
}

interface CorrectNoteProps {
  action: string;
  studentId: string;
  version: number;
  people: { id: string; name: string }[];
  today: string;
  note: NonNullable<Route.ComponentProps['loaderData']['toCorrect']>;
  onDone: () => void;
}

function CorrectNote({ action, studentId, version, people, today, note, onDone }: CorrectNoteProps) {
  const { questions, ...content } = note;
  const [fields, setFields] = useState(content);
  const [leavesOpen, setLeavesOpen] = useState(false);
  const change = (changes: Partial<typeof fields>) => setFields({ ...fields, ...changes });
  const sent = () => ({ ...fields, answers: answersToSend(questions, fields.answers), leavesOpen });
  return (
    <Correction what="note" action={action} version={version} content={sent} onDone={onDone}>
      {(messages) => (
        <div className="grid gap-5">
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
            <WhenInputs when={fields} people={people} latest={today} messages={messages} onChange={change} />
          </div>
          <AnswerFields
            questions={questions}
            answers={fields.answers}
            photograph={null}
            hidesPhotograph
            messages={messages}
            onAnswer={(answers) => change({ answers })}
            onPhotograph={() => {}}
          />
          <NamesInNote studentId={studentId} text={textsIn(questions, fields.answers)} />
          {messages.open && (
            <label className="flex tap items-center gap-2.5">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={leavesOpen}
                onChange={(event) => setLeavesOpen(event.target.checked)}
              />
              {noteWords.leaveOpen}
            </label>
          )}
        </div>
      )}
    </Correction>
  );
}
