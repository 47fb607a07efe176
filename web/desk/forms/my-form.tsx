import { useState } from 'react';
import { Link, redirect } from 'react-router';
import { v4 as newId } from 'uuid';
import { answersSentence } from '~/core/entries/forms/form';
import { ownNotesToday } from '~/server/desk/own-notes';
import { database } from '~/server/platform/db/current';
import { idFrom } from '../../platform/http/request-person';
import { withErrorsAtDesk } from '../at-desk';
import { useKept } from '../use-kept';
import { deskWords } from '../words';
import type { Route } from './+types/my-form';
import { FillForm } from './fill-form';
import { myFormWords } from './words';

export const loader = withErrorsAtDesk(async ({ params }: Route.LoaderArgs, desk) => {
  if (!desk) throw redirect('/desk');
  const { studentId, wall } = desk;
  const { form, notes } = await ownNotesToday(database(), studentId, idFrom(params.formId), wall.on);
  const { id, version, title, hint, questions } = form;
  return {
    ...{ studentId, form: { id, version, title, hint, questions } },
    notes: notes.map((note) => ({
      ...{
        id: note.id,
        time: note.time,
        answers: note.answers,
        version: note.formVersion,
        questions: note.form.questions,
      },
      said: answersSentence(note.form.questions, note.answers),
    })),
  };
});

export const meta: Route.MetaFunction = () => [
  { title: myFormWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

type Loaded = Route.ComponentProps['loaderData'];

/** A form that a student answers about themselves, as often as they like, and what they answered today. */
export default function MyForm({ loaderData: { studentId, form, notes } }: Route.ComponentProps) {
  const { waiting, message, say } = useKept(studentId);
  const [changing, setChanging] = useState<Loaded['notes'][number] | null>(null);
  const [saved, setSaved] = useState(0);
  const keptAs = `desk ${studentId} form ${form.id} ${changing?.id ?? form.version}`;
  const done = saved > 0 && waiting.length === 0 && !message;
  return (
    <main className="mx-auto max-w-xl px-5 py-6 text-lg sm:py-10">
      <Link to="/desk" className="tap text-base text-ink-2 link">
        {deskWords.backToDesk}
      </Link>
      <h1 className="mt-1 text-3xl">{form.title}</h1>
      {form.hint && <p className="mt-1 text-ink-2">{form.hint}</p>}
      <p role="status" className={message || done ? 'mt-4 rounded-box bg-wash p-4 text-base' : 'sr-only'}>
        {message ?? (done ? myFormWords.saved : '')}
      </p>
      <FillForm
        key={`${changing?.id} ${saved}`}
        keptAs={keptAs}
        questions={changing?.questions ?? form.questions}
        begun={changing?.answers ?? {}}
        isChange={changing !== null}
        onLeave={() => setChanging(null)}
        onSay={(said) => {
          say('note', {
            ...said,
            ...{ id: changing?.id ?? newId(), formId: form.id, formVersion: changing?.version ?? form.version },
          });
          setChanging(null);
          setSaved((count) => count + 1);
          window.scrollTo(0, 0);
        }}
      />
      {notes.length > 0 && (
        <section className="mt-10">
          <h2 className="text-xl">{myFormWords.today}</h2>
          <ul>
            {notes.map((note) => (
              <li key={note.id} className="border-b border-dotted border-ink-3/50 py-3 text-base">
                <span className="text-ink-2">{note.time}</span> {note.said}{' '}
                <button type="button" className="tap link" onClick={() => setChanging(note)}>
                  {myFormWords.changeIt}
                </button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}
