import { Link } from 'react-router';
import { stackOf } from '~/server/entries/ratings/stacks';
import { database } from '~/server/platform/db/current';
import { recordAccess } from '~/server/sharing/access-log';
import { stackListWords } from '../../entries/ratings/words';
import { idFrom, personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import type { Route } from './+types/pages';
import { stackPages } from './stack-view';
import { pagesWords } from './words';

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, now, school, discreet } = personOf(context);
  const stack = await stackOf(database(), actor, idFrom(params.stackId));
  const pages = await stackPages(database(), stack, { discreet });
  for (const { id } of pages) {
    const studentId = stack.samples.find((sample) => sample.id === id)?.studentId;
    const taken = { what: pagesWords.what(stack.title), how: 'exported' } as const;
    if (studentId) await recordAccess(database(), { personId: actor.personId }, { ...taken, studentId }, now);
  }
  return { id: stack.id, title: stack.title, schoolName: school.name, pages };
});

export const meta: Route.MetaFunction = () => [{ title: pagesWords.pageTitle }];

/** One page of each student to hand out: what was rated, by whom, with every word. */
export default function Pages({ loaderData: { id, title, schoolName, pages } }: Route.ComponentProps) {
  return (
    <main id="page" className="mx-auto max-w-3xl px-5 py-6 print:max-w-none print:p-0">
      <p className="no-print flex flex-wrap items-center gap-4">
        <Link to={`/class/work-samples/${id}`} className="tap text-small text-ink-2 link">
          {title}
        </Link>
        <button type="button" className="btn btn-primary ml-auto" onClick={() => window.print()}>
          {pagesWords.print(pages.length)}
        </button>
      </p>
      {pages.length === 0 && <p className="mt-6 text-ink-2">{pagesWords.none}</p>}
      {pages.map((page) => (
        <article key={page.id} className="mt-8 break-after-page border-t border-rule pt-5 last:break-after-auto">
          <p className="text-small text-ink-2">{[schoolName, title, stackListWords.sample(page.number)].join(' · ')}</p>
          <h1 className="text-2xl">{page.name}</h1>
          <div className="mt-3 overflow-x-auto print:overflow-visible">
            <table className="table table-sm [&_td]:align-top [&_th]:align-top">
              <thead>
                <tr className="text-ink-2">
                  <th scope="col">{pagesWords.criterion}</th>
                  {page.raters.map((rater) => (
                    <th key={rater} scope="col">
                      {rater}
                    </th>
                  ))}
                  <th scope="col">{pagesWords.together}</th>
                </tr>
              </thead>
              <tbody>
                {page.criteria.map(({ key, label, cells, said }) => (
                  <tr key={key}>
                    <th scope="row">{label}</th>
                    {cells.map((cell, i) => (
                      <td key={page.raters[i]}>
                        {cell ? pagesWords.level(cell.points, cell.words) : pagesWords.leftOut}
                      </td>
                    ))}
                    <td>{said}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {page.words.map(({ id: ratingId, by, words }) => (
            <p key={ratingId} className="mt-3 whitespace-pre-line">
              <strong>{by}</strong> {words}
            </p>
          ))}
        </article>
      ))}
    </main>
  );
}
