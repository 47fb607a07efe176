import { Link, redirect } from 'react-router';
import { dateSeenFrom } from '~/core/calendar/iso-date';
import { answerWords } from '~/core/entries/forms/form';
import { giversOf } from '~/server/desk/feedback';
import { notesOf } from '~/server/entries/forms/notes';
import { database } from '~/server/platform/db/current';
import { withErrorsAtDesk } from '../at-desk';
import { deskWords } from '../words';
import type { Route } from './+types/said-of-me';
import { saidOfMeWords } from './words';

export const loader = withErrorsAtDesk(async (_: Route.LoaderArgs, desk) => {
  if (!desk) throw redirect('/desk');
  const { studentId, wall } = desk;
  const notes = (await notesOf(database(), [studentId])).filter(({ isClassmates }) => isClassmates);
  const givers = await giversOf(database(), studentId);
  return {
    said: notes.map(({ id, on, form, answers }) => ({
      ...{ id, about: `${form.title} · ${dateSeenFrom(on, wall.on)}`, from: givers.get(id) ?? null },
      answers: form.questions.flatMap((question) => {
        const words = answerWords(question, answers[question.id]);
        return words === '' ? [] : [{ id: question.id, ask: question.ask, words }];
      }),
    })),
  };
});

export const meta: Route.MetaFunction = () => [
  { title: saidOfMeWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** What classmates said to the one whose desk this is, newest first; by name only where that was agreed. */
export default function SaidOfMe({ loaderData: { said } }: Route.ComponentProps) {
  return (
    <main className="mx-auto max-w-xl px-5 py-6 text-lg sm:py-10">
      <Link to="/desk" className="tap text-base text-ink-2 link">
        {deskWords.backToDesk}
      </Link>
      <h1 className="mt-1 text-3xl">{saidOfMeWords.heading}</h1>
      {said.length === 0 && <p className="mt-4">{saidOfMeWords.nothing}</p>}
      {said.map(({ id, about, from, answers }) => (
        <section key={id} className="mt-5 rounded-box border border-rule bg-sheet p-4">
          <h2 className="text-base font-normal text-ink-2">
            {about}
            {from && ` · ${saidOfMeWords.from(from)}`}
          </h2>
          <dl className="mt-2 grid gap-2">
            {answers.map((answer) => (
              <div key={answer.id}>
                <dt className="text-base text-ink-2">{answer.ask}</dt>
                <dd className="whitespace-pre-line">{answer.words}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </main>
  );
}
