import { Link } from 'react-router';
import { stepStates } from '~/core/school/step-words';
import { database } from '~/server/platform/db/current';
import { idFrom, personOf, signedIn } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/projected';
import { useLiveBoard } from './class-board';
import { classBoardView } from './class-board-view';
import { projectedWords } from './words';

export const middleware: Route.MiddlewareFunction[] = [signedIn];

/** For the wall: the steps and how many are at each; no student. */
export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const view = await classBoardView(database(), personOf(context), idFrom(params.workId), new URLSearchParams());
  return {
    ...{ id: view.work.id, title: view.work.title, stepCounts: view.stepCounts, done: view.done, words: view.words },
    studentIds: view.rows.map(({ studentId }) => studentId),
  };
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: projectedWords.pageTitle(loaderData?.title ?? '') },
];

export default function Projected({
  loaderData: { id, title, stepCounts, done, words, studentIds },
}: Route.ComponentProps) {
  useLiveBoard(studentIds);
  return (
    <main className="min-h-dvh overflow-x-auto px-4 py-8 text-2xl sm:px-10">
      <header className="flex items-baseline justify-between gap-6">
        <h1 className="text-5xl">{title}</h1>
        <p className="text-ink-2">{projectedWords.done(done.count, done.of)}</p>
      </header>
      <table className="mt-8 w-full text-left">
        <thead>
          <tr className="border-b border-rule text-xl text-ink-2">
            <th scope="col" className="py-3 font-semibold">
              {projectedWords.step}
            </th>
            {stepStates.map((state) => (
              <th key={state} scope="col" className="py-3 text-right font-semibold">
                {words[state]}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {stepCounts.map(({ step, counts }) => (
            <tr key={step} className="border-b border-dotted border-ink-3/50">
              <th scope="row" className="display py-4 text-3xl">
                {step}
              </th>
              {stepStates.map((state) => {
                const countClass = `py-4 text-right text-3xl ${counts[state] === 0 ? 'text-ink-3' : 'font-bold'}`;
                return (
                  <td key={state} className={countClass}>
                    {counts[state]}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="no-print mt-10 text-base">
        <Link to={`/class/works/${id}`} className="link">
          {projectedWords.back}
        </Link>
      </p>
    </main>
  );
}
