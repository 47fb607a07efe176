import { Form, Link, useSubmit } from 'react-router';
import { listed } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { idFrom, personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import { useAskAnew, useLive } from '../../platform/ui/use-live';
import type { Route } from './+types/answers';
import { type AnswersView, answersView } from './answers-view';
import { formAnswersWords, sideWords } from './words';

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) =>
  answersView(database(), personOf(context), idFrom(params.formId), new URL(request.url).searchParams),
);

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.form.title ?? ''} · ${formAnswersWords.pageTitle}` },
];

/** What all students of a group answered by one form, side by side. */
export default function Answers({ loaderData }: Route.ComponentProps) {
  const { form, rows, summary, counts, discreet } = loaderData;
  const askAnew = useAskAnew();
  useLive((heard) => {
    if (heard.some(({ what }) => what === 'entries')) askAnew();
  });
  const search = searchOf(loaderData);
  return (
    <Page
      marginName={formAnswersWords.about}
      margin={
        <>
          <MarginTitle>{formAnswersWords.counts}</MarginTitle>
          <Counts counts={counts} />
          <div className="mt-6 grid gap-3 text-small text-ink-2">
            <p>{formAnswersWords.aboutTable}</p>
            <p>{formAnswersWords.aboutOut}</p>
            <p>{formAnswersWords.aboutConfer}</p>
          </div>
        </>
      }
    >
      <p className="no-print text-small">
        <Link to="/class/forms" className="text-ink-2 link">
          {formAnswersWords.forms}
        </Link>
      </p>
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="mt-1 text-3xl">{form.title}</h1>
          <p className="mt-1 text-small text-ink-2">
            {[
              sideWords[form.side],
              formAnswersWords.summary(summary.answered, summary.of),
              formAnswersWords.outs(summary.out),
            ].join(' · ')}
          </p>
        </div>
        <span className="no-print flex items-baseline gap-4 text-small">
          {form.isMine && (
            <Link to={`/class/forms/${form.id}/edit`} className="tap link">
              {formAnswersWords.change}
            </Link>
          )}
          {!discreet && (
            <>
              <a href={`/class/forms/${form.id}/answers.csv${search}`} className="tap link">
                {formAnswersWords.csv}
              </a>
              <a href={`/class/forms/${form.id}/answers.xlsx${search}`} className="tap link">
                {formAnswersWords.xlsx}
              </a>
            </>
          )}
        </span>
      </header>
      <Choose view={loaderData} />
      {summary.of === 0 && <p className="mt-6 max-w-xl text-ink-2">{formAnswersWords.nobody[form.side]}</p>}
      {summary.of > 0 && rows.length === 0 && <p className="mt-6 text-ink-2">{formAnswersWords.nothingOut}</p>}
      {rows.length > 0 && <Table view={loaderData} search={search} />}
    </Page>
  );
}

/** What was chosen, as it stands in an address. */
function searchOf({ group, on, isOnlyOut, isAll }: AnswersView): string {
  const search = new URLSearchParams({
    ...(group && { group }),
    ...(on && { on }),
    ...(isOnlyOut && { out: '1' }),
    ...(isAll && { all: '1' }),
  }).toString();
  return search ? `?${search}` : '';
}

function Choose({ view: { groups, group, on, days, isOnlyOut, isAll } }: { view: AnswersView }) {
  const submit = useSubmit();
  return (
    <Form
      className="no-print mt-4 flex flex-wrap items-end gap-x-4 gap-y-2"
      onChange={(event) => submit(event.currentTarget, { replace: true })}
    >
      {groups.length > 1 && (
        <label className="grid gap-1 text-small font-semibold">
          {formAnswersWords.group}
          <select name="group" defaultValue={group ?? ''} className="select w-40">
            <option value="">{formAnswersWords.everyone}</option>
            {groups.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
      )}
      <label className="grid gap-1 text-small font-semibold">
        {formAnswersWords.day}
        <select name="on" defaultValue={on ?? ''} className="select w-40">
          <option value="">{formAnswersWords.anyDay}</option>
          {days.map((day) => (
            <option key={day.on} value={day.on}>
              {day.words}
            </option>
          ))}
        </select>
      </label>
      <label className="grid gap-1 text-small font-semibold">
        {formAnswersWords.whatToShow}
        <select name="all" defaultValue={isAll ? '1' : ''} className="select w-56">
          <option value="">{formAnswersWords.newest}</option>
          <option value="1">{formAnswersWords.all}</option>
        </select>
      </label>
      <label className="flex tap items-center gap-2.5">
        <input type="checkbox" name="out" value="1" defaultChecked={isOnlyOut} className="checkbox checkbox-sm" />
        {formAnswersWords.onlyOut}
      </label>
    </Form>
  );
}

function Table({ view: { form, columns, rows }, search }: { view: AnswersView; search: string }) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard
    <section tabIndex={0} aria-label={form.title} className="mt-5 overflow-x-auto">
      <table className="table table-sm [&_td]:align-top [&_th]:align-top">
        <thead>
          <tr className="text-ink-2">
            <th scope="col">{formAnswersWords.student}</th>
            <th scope="col">{formAnswersWords.when}</th>
            {columns.map(({ id, ask }) => (
              <th key={id} scope="col" className="min-w-36 whitespace-normal">
                {ask}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ studentId, name, answered, times }) => (
            <tr key={answered?.id ?? studentId}>
              <th scope="row" className="whitespace-nowrap">
                <Link to={`/class/forms/${form.id}/students/${studentId}${search}`} className="tap hover:underline">
                  {name}
                </Link>
                {times > 1 && (
                  <span className="block text-xs font-normal text-ink-2">{formAnswersWords.times(times)}</span>
                )}
              </th>
              {answered ? (
                <>
                  <td className="whitespace-nowrap text-ink-2">
                    {answered.when}
                    <span className="block text-xs">{answered.by}</span>
                    {answered.names.length > 0 && (
                      <span className="block text-xs font-semibold text-clay-deep">
                        {formAnswersWords.names(listed(answered.names))}
                      </span>
                    )}
                  </td>
                  {answered.cells.map((cell, at) => (
                    <Cell key={columns[at]?.id} {...cell} />
                  ))}
                </>
              ) : (
                <td colSpan={columns.length + 1} className="text-ink-3">
                  {formAnswersWords.noAnswer}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

type CellProps = NonNullable<AnswersView['rows'][number]['answered']>['cells'][number];

/** What stands out has a border and a word; nothing else is marked. */
function Cell({ words, wasAsked, standsOut }: CellProps) {
  if (words === '')
    return <td className="text-ink-3">{wasAsked ? formAnswersWords.leftOpen : formAnswersWords.notAsked}</td>;
  if (!standsOut) return <td className="whitespace-pre-line">{words}</td>;
  return (
    <td>
      <span className="inline-block rounded-field border-2 border-clay px-1.5 font-semibold">
        {words}
        <span className="sr-only"> ({formAnswersWords.standsOut})</span>
      </span>
    </td>
  );
}

function Counts({ counts }: { counts: AnswersView['counts'] }) {
  return counts.map(({ questionId, ask, counts: said, answered }) => (
    <section key={questionId} className="mb-5">
      <h3 className="text-small font-semibold">{ask}</h3>
      <ul className="mt-1 grid gap-1">
        {said.map(({ words, n, standsOut }) => (
          <li key={words} className="grid grid-cols-[1fr_auto] gap-x-3 text-small">
            <span className={standsOut && n > 0 ? 'font-semibold' : ''}>{words}</span>
            <span className="tabular-nums">{n}</span>
            <span aria-hidden className="col-span-2 h-1.5 rounded-full bg-wash">
              <span
                className={`block h-full rounded-full ${standsOut ? 'bg-clay' : 'bg-fern'}`}
                style={{ width: answered === 0 ? 0 : `${(100 * n) / answered}%` }}
              />
            </span>
          </li>
        ))}
      </ul>
    </section>
  ));
}
