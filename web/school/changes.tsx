import { Form, Link, useSearchParams } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { type ChangeKind, changedFields, changeKinds, changeKindWords, changesWanted } from '~/core/sharing/change';
import { counted } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { CHANGES_A_PAGE, changesOf } from '~/server/school/changes';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/changes';

export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const wanted = changesWanted.parse(Object.fromEntries(new URL(request.url).searchParams));
  const { changes, total } = await changesOf(database(), await requireSchoolAdmin(database(), actor), wanted);
  return {
    wanted,
    total,
    pages: Math.max(1, Math.ceil(total / CHANGES_A_PAGE)),
    changes: discreet
      ? []
      : changes.map(({ id, at, what, student, person, by, before, after }) => {
          const { on, time } = wallTime(at, school.timeZone);
          return { id, on, time, what, about: student ?? person, by, fields: changedFields(before, after) };
        }),
    discreet,
  };
});

export const meta: Route.MetaFunction = () => [{ title: 'Changes · Gentle Margin' }];

export default function Changes({ loaderData }: Route.ComponentProps) {
  const { wanted, total, pages, changes, discreet } = loaderData;
  const [search] = useSearchParams();
  return (
    <Page
      marginName="About this list"
      margin={
        <>
          <MarginTitle>About this list</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>
              Who may do and see what, and what the school and its figures rest on: each change with how it was before
              and after. Nothing is taken out of it: the database refuses.
            </p>
            <p>What was observed has its own history, on each entry’s page.</p>
            <p>
              What a family could see of a student on a day is told under <em>Who can see this</em> on that student’s
              page.
            </p>
            {!discreet && (
              <p>
                <Link to={`/school/changes.csv?${search}`} reloadDocument className="font-semibold text-ink link">
                  These changes as a file (CSV)
                </Link>
              </p>
            )}
            <p>
              <Link to="/school" className="font-semibold link">
                To the school
              </Link>
            </p>
          </div>
        </>
      }
    >
      <h1 className="text-3xl">Changes</h1>
      <Form role="search" className="no-print mt-4 flex flex-wrap items-end gap-3">
        <label className="grid gap-1 text-small">
          <span className="font-semibold">What</span>
          <select name="kind" key={wanted.kind} defaultValue={wanted.kind ?? ''} className="select w-52">
            <option value="">Everything</option>
            {changeKinds.map((kind) => (
              <option key={kind} value={kind}>
                {changeKindWords[kind]}
              </option>
            ))}
          </select>
        </label>
        <label className="grid gap-1 text-small">
          <span className="font-semibold">Name of a student or person</span>
          <input name="about" key={wanted.about} defaultValue={wanted.about} className="input w-56" />
        </label>
        <label className="grid gap-1 text-small">
          <span className="font-semibold">From</span>
          <input type="date" name="from" key={wanted.from} defaultValue={wanted.from} className="input w-40" />
        </label>
        <label className="grid gap-1 text-small">
          <span className="font-semibold">To</span>
          <input type="date" name="to" key={wanted.to} defaultValue={wanted.to} className="input w-40" />
        </label>
        <button type="submit" className="btn">
          Show these
        </button>
      </Form>
      {discreet && (
        <p className="py-8 text-ink-2">Names are hidden in the discreet view, and this list is made of them.</p>
      )}
      {!discreet && changes.length === 0 && (
        <p className="py-8 text-ink-2">
          {total === 0 && search.size === 0
            ? 'Nothing has been changed yet.'
            : 'Nothing that fits. Ask for less at once.'}
        </p>
      )}
      {changes.length > 0 && (
        <div className="mt-5 overflow-x-auto">
          <table className="w-full text-left" aria-label="Changes, newest first">
            <thead className="text-small text-ink-2">
              <tr className="border-b border-rule">
                <th scope="col" className="py-2 pr-4 font-semibold">
                  When
                </th>
                <th scope="col" className="py-2 pr-4 font-semibold">
                  What
                </th>
                <th scope="col" className="py-2 pr-4 font-semibold">
                  Of
                </th>
                <th scope="col" className="py-2 pr-4 font-semibold">
                  From what to what
                </th>
                <th scope="col" className="py-2 font-semibold">
                  By
                </th>
              </tr>
            </thead>
            <tbody>
              {changes.map((change) => (
                <ChangeRow key={change.id} change={change} />
              ))}
            </tbody>
          </table>
        </div>
      )}
      <Pages page={Math.min(wanted.page, pages)} pages={pages} total={total} />
    </Page>
  );
}

type Shown = Route.ComponentProps['loaderData']['changes'][number];

function ChangeRow({ change: { on, time, what, about, by, fields } }: { change: Shown }) {
  return (
    <tr className="border-b border-dotted border-ink-3/40 align-top">
      <th scope="row" className="py-2.5 pr-4 font-normal whitespace-nowrap">
        {shortDate(on)} <span className="text-small text-ink-3">{time}</span>
      </th>
      <td className="py-2.5 pr-4">{changeKindWords[what as ChangeKind]}</td>
      <td className="py-2.5 pr-4">{about ?? 'the school'}</td>
      <td className="py-2.5 pr-4">
        <ul>
          {fields.map(({ label, before, after }) => (
            <li key={label}>
              <span className="text-ink-2">{label}:</span>{' '}
              {before !== null && (
                <>
                  <del className="text-ink-3">{before}</del>
                  <span className="sr-only"> became </span>
                  <span aria-hidden> → </span>
                </>
              )}
              {after === null ? (
                <span className="text-ink-2">nothing</span>
              ) : (
                <ins className="no-underline">{after}</ins>
              )}
            </li>
          ))}
        </ul>
      </td>
      <td className="py-2.5">{by ?? 'a reader from outside'}</td>
    </tr>
  );
}

function Pages({ page, pages, total }: { page: number; pages: number; total: number }) {
  const [search] = useSearchParams();
  const to = (at: number) => {
    const next = new URLSearchParams(search);
    next.set('page', String(at));
    return `?${next}`;
  };
  return (
    <footer className="mt-5 flex flex-wrap items-center gap-3 pb-20 text-small text-ink-2">
      {page > 1 && (
        <Link to={to(page - 1)} rel="prev" className="btn">
          ← Later
        </Link>
      )}
      <span>
        {counted(total, 'change', 'changes')}
        {pages > 1 && `, page ${page} of ${pages}`}
      </span>
      {page < pages && (
        <Link to={to(page + 1)} rel="next" className="btn">
          Earlier →
        </Link>
      )}
    </footer>
  );
}
