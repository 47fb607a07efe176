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
import { changesWords } from './words';

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

export const meta: Route.MetaFunction = () => [{ title: changesWords.pageTitle }];

export default function Changes({ loaderData }: Route.ComponentProps) {
  const { wanted, total, pages, changes, discreet } = loaderData;
  const [search] = useSearchParams();
  return (
    <Page
      marginName={changesWords.aboutThisList}
      margin={
        <>
          <MarginTitle>{changesWords.aboutThisList}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{changesWords.whoMayDoAndSee}</p>
            <p>{changesWords.whatWasObservedHasIts}</p>
            <p>
              {changesWords.whatAFamilyCouldSee}
              <em>{changesWords.whoCanSeeThis}</em>
              {changesWords.onThatStudentsPage}
            </p>
            {!discreet && (
              <p>
                <Link to={`/school/changes.csv?${search}`} reloadDocument className="font-semibold text-ink link">
                  {changesWords.theseChangesAsAFile}
                </Link>
              </p>
            )}
            <p>
              <Link to="/school" className="font-semibold link">
                {changesWords.toTheSchool}
              </Link>
            </p>
          </div>
        </>
      }
    >
      <h1 className="text-3xl">{changesWords.changes}</h1>
      <Form role="search" className="no-print mt-4 flex flex-wrap items-end gap-3">
        <label className="grid gap-1 text-small">
          <span className="font-semibold">{changesWords.what}</span>
          <select name="kind" key={wanted.kind} defaultValue={wanted.kind ?? ''} className="select w-52">
            <option value="">{changesWords.everything}</option>
            {changeKinds.map((kind) => (
              <option key={kind} value={kind}>
                {changeKindWords[kind]}
              </option>
            ))}
          </select>
        </label>
        <label className="grid gap-1 text-small">
          <span className="font-semibold">{changesWords.nameOfAStudentOr}</span>
          <input name="about" key={wanted.about} defaultValue={wanted.about} className="input w-56" />
        </label>
        <label className="grid gap-1 text-small">
          <span className="font-semibold">{changesWords.from}</span>
          <input type="date" name="from" key={wanted.from} defaultValue={wanted.from} className="input w-40" />
        </label>
        <label className="grid gap-1 text-small">
          <span className="font-semibold">{changesWords.to}</span>
          <input type="date" name="to" key={wanted.to} defaultValue={wanted.to} className="input w-40" />
        </label>
        <button type="submit" className="btn">
          {changesWords.showThese}
        </button>
      </Form>
      {discreet && <p className="py-8 text-ink-2">{changesWords.namesAreHiddenInThe}</p>}
      {!discreet && changes.length === 0 && (
        <p className="py-8 text-ink-2">
          {total === 0 && search.size === 0
            ? changesWords.nothingHasBeenChangedYet
            : changesWords.nothingThatFitsAskFor}
        </p>
      )}
      {changes.length > 0 && (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a part that scrolls is scrolled by key
        <section aria-label={changesWords.changesNewestFirst} tabIndex={0} className="mt-5 keeps-head">
          <table className="w-full min-w-176 text-left" aria-label={changesWords.changesNewestFirst}>
            <thead className="text-small text-ink-2">
              <tr className="border-b border-rule">
                <th scope="col" className="py-2 pr-4 font-semibold">
                  {changesWords.when}
                </th>
                <th scope="col" className="py-2 pr-4 font-semibold">
                  {changesWords.what}
                </th>
                <th scope="col" className="py-2 pr-4 font-semibold">
                  {changesWords.of}
                </th>
                <th scope="col" className="py-2 pr-4 font-semibold">
                  {changesWords.fromWhatToWhat}
                </th>
                <th scope="col" className="py-2 font-semibold">
                  {changesWords.by}
                </th>
              </tr>
            </thead>
            <tbody>
              {changes.map((change) => (
                <ChangeRow key={change.id} change={change} />
              ))}
            </tbody>
          </table>
        </section>
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
      <td className="py-2.5 pr-4">{about ?? changesWords.theSchool}</td>
      <td className="py-2.5 pr-4">
        <ul>
          {fields.map(({ label, before, after }) => (
            <li key={label}>
              <span className="text-ink-2">{label}:</span>{' '}
              {before !== null && (
                <>
                  <del className="text-ink-3">{before}</del>
                  <span className="sr-only">{changesWords.became}</span>
                  <span aria-hidden> → </span>
                </>
              )}
              {after === null ? (
                <span className="text-ink-2">{changesWords.nothing}</span>
              ) : (
                <ins className="no-underline">{after}</ins>
              )}
            </li>
          ))}
        </ul>
      </td>
      <td className="py-2.5">{by ?? changesWords.aReaderFromOutside}</td>
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
          {changesWords.later}
        </Link>
      )}
      <span>
        {counted(total, 'change', 'changes')}
        {pages > 1 && changesWords.pageOf(page, pages)}
      </span>
      {page < pages && (
        <Link to={to(page + 1)} rel="next" className="btn">
          {changesWords.earlier}
        </Link>
      )}
    </footer>
  );
}
