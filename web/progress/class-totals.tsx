import { Printer } from 'lucide-react';
import { Form, Link, useLocation, useSubmit } from 'react-router';
import { dateSeenFrom, type IsoDate, longDate, shortDate } from '~/core/calendar/iso-date';
import { counted, figure } from '~/core/words/counting';
import { database } from '~/server/platform/db/current';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { personOf } from '../platform/http/request-person';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/class-totals';
import { ClassNav } from './class-nav';
import { classTotalsView, type Sorting } from './class-totals-view';
import { classTotalsWords } from './words';

export const loader = withErrorsInTurn(({ request, context }: Route.LoaderArgs) =>
  classTotalsView(database(), personOf(context), new URL(request.url).searchParams),
);

export const meta: Route.MetaFunction = () => [{ title: classTotalsWords.pageTitle }];

type Loaded = Route.ComponentProps['loaderData'];
type Row = Loaded['rows'][number];

/** A group and a kind of log: how far each student is, side by side, with what all of them come to. */
export default function ClassTotals({ loaderData }: Route.ComponentProps) {
  const { rows, unit, today, schoolName, group, sum, discreet } = loaderData;
  const { search } = useLocation();
  return (
    <Page marginName={classTotalsWords.notByTheTarget} help="class" margin={<Late rows={rows} today={today} />}>
      <p className="hidden text-small print:block">
        {classTotalsWords.printedHeading(group ?? classTotalsWords.everyone, schoolName, longDate(today))}
      </p>
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl">{classTotalsWords.classTotals}</h1>
          <p className="mt-1.5 text-small text-ink-2">
            {rows.length > 0 &&
              classTotalsWords.altogether(counted(rows.length, 'log', 'logs'), figure(sum.amount), unit)}
          </p>
          <ClassNav />
        </div>
        <Choose loaderData={loaderData} />
      </header>
      {rows.length === 0 ? (
        <div className="max-w-2xl py-10 text-ink-2">
          <p>{classTotalsWords.noLogYet}</p>
          <p className="mt-2 flex gap-5">
            <Link to="/students" className="link">
              {classTotalsWords.chooseAStudent}
            </Link>
            <Link to="/class/goal" className="link">
              {classTotalsWords.goalForAGroup}
            </Link>
          </p>
        </div>
      ) : (
        <>
          <Totals loaderData={loaderData} />
          <p className="no-print mt-3 flex items-center gap-5 text-small">
            {!discreet && (
              <a href={`/class/totals.csv${search}`} download className="tap link">
                {classTotalsWords.csv}
              </a>
            )}
            {!discreet && (
              <a href={`/class/totals.xlsx${search}`} download className="tap link">
                {classTotalsWords.xlsx}
              </a>
            )}
            <button type="button" onClick={() => window.print()} className="flex tap items-center gap-1.5 link">
              <Printer size={14} aria-hidden /> {classTotalsWords.print}
            </button>
            <Link to="/class/goal" className="tap link">
              {classTotalsWords.goalForAGroup}
            </Link>
          </p>
          <OverTime loaderData={loaderData} />
        </>
      )}
    </Page>
  );
}

function Choose({ loaderData: { groups, group, kinds, kind, sort } }: { loaderData: Loaded }) {
  const submit = useSubmit();
  return (
    <Form
      method="get"
      onChange={(event) => submit(event.currentTarget, { replace: true })}
      className="no-print flex flex-wrap gap-3 text-small"
    >
      <input type="hidden" name="sort" value={sort} />
      {groups.length > 1 && (
        <label className="flex items-center gap-2">
          {classTotalsWords.group}
          <select name="group" defaultValue={group ?? ''} className="select w-40">
            <option value="">{classTotalsWords.everyone}</option>
            {groups.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
      )}
      {kinds.length > 1 && (
        <label className="flex items-center gap-2">
          {classTotalsWords.log}
          <select name="kind" key={kind} defaultValue={kind ?? ''} className="select w-36">
            {kinds.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
      )}
      <noscript>
        <button type="submit" className="btn">
          {classTotalsWords.show}
        </button>
      </noscript>
    </Form>
  );
}

function Totals({ loaderData: { rows, sum, categories, unit, sort } }: { loaderData: Loaded }) {
  const numberClass = 'py-2.5 print:py-1 pr-5 text-right whitespace-nowrap';
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard
    <section aria-label={classTotalsWords.tableOf(unit)} tabIndex={0} className="mt-6 keeps-head">
      <table className="w-full min-w-160 text-left">
        <thead className="border-b border-rule text-small text-ink-2">
          <tr>
            <SortHead by="name" sort={sort} label={classTotalsWords.student} />
            <SortHead by="share" sort={sort} label={classTotalsWords.soFar} isNumber />
            <th scope="col" className="w-40 py-2 pr-5 font-semibold">
              <span className="sr-only">{classTotalsWords.share}</span>
            </th>
            <SortHead by="week" sort={sort} label={classTotalsWords.thisWeek} isNumber />
            <th scope="col" className="py-2 pr-5 font-semibold">
              {classTotalsWords.recently}
            </th>
            <th scope="col" className="py-2 pr-5 font-semibold">
              {classTotalsWords.fullAbout}
            </th>
            {categories.map((name) => (
              <th key={name} scope="col" className="py-2 pr-5 text-right font-semibold">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.goalId} className="border-b border-dotted border-ink-3/50">
              <th scope="row" className="py-2.5 print:py-1 pr-5 font-normal">
                <Link to={`/students/${row.studentId}/goals/${row.goalId}`} className="tap hover:underline">
                  <span className="display">{row.student}</span>{' '}
                  <span className="text-small text-ink-2">{row.shortName}</span>
                </Link>
              </th>
              <td className={numberClass}>{classTotalsWords.of(figure(row.amount), figure(row.total))}</td>
              <td className="py-2.5 print:py-1 pr-5">
                <Share amount={row.amount} total={row.total} said={row.share} />
              </td>
              <td className={numberClass}>
                <Amount amount={row.thisWeek} blank={classTotalsWords.nothingThisWeek} />
              </td>
              <td className="py-2.5 print:py-1 pr-5 text-small whitespace-nowrap">{row.lately ?? '–'}</td>
              <td
                className={`py-2.5 print:py-1 pr-5 whitespace-nowrap ${row.isLate ? 'font-semibold text-clay-deep' : ''}`}
              >
                {row.projected}
              </td>
              {row.categories.map((amount, i) => (
                <td key={categories[i]} className={numberClass}>
                  <Amount amount={amount} blank={classTotalsWords.notPartOfIt} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr className="font-semibold">
            <th scope="row" className="py-2.5 print:py-1 pr-5">
              {classTotalsWords.allTogether}
            </th>
            <td className={numberClass}>{classTotalsWords.of(figure(sum.amount), figure(sum.total))}</td>
            <td className="py-2.5 print:py-1 pr-5">
              <Share amount={sum.amount} total={sum.total} said={sum.share} />
            </td>
            <td className={numberClass}>
              <Amount amount={sum.thisWeek} blank={classTotalsWords.nothingThisWeek} />
            </td>
            <td colSpan={2} />
            {sum.categories.map((amount, i) => (
              <td key={categories[i]} className={numberClass}>
                {figure(amount)}
              </td>
            ))}
          </tr>
        </tfoot>
      </table>
    </section>
  );
}

/** An amount in a table; what is blank is no zero. */
function Amount({ amount, blank }: { amount: number | null; blank: string }) {
  if (amount !== null) return figure(amount);
  return (
    <span className="text-ink-3">
      <span aria-hidden>–</span>
      <span className="sr-only">{blank}</span>
    </span>
  );
}

function SortHead({ by, sort, label, isNumber }: { by: Sorting; sort: Sorting; label: string; isNumber?: boolean }) {
  const { search } = useLocation();
  const to = new URLSearchParams(search);
  to.set('sort', by);
  return (
    <th
      scope="col"
      aria-sort={sort === by ? 'ascending' : undefined}
      className={`py-2 pr-5 font-semibold ${isNumber ? 'text-right' : ''}`}
    >
      <Link to={`?${to}`} replace className={`tap ${sort === by ? 'underline' : 'hover:underline'}`}>
        {label}
      </Link>
    </th>
  );
}

/** How much of the target is there: a bar, and the percentage beside it. */
function Share({ amount, total, said }: { amount: number; total: number; said: string }) {
  return (
    <span className="flex items-center gap-2.5">
      <span aria-hidden className="h-2.5 grow overflow-hidden rounded-full bg-wash">
        <span
          className="block h-full rounded-full bg-fern"
          style={{ width: `${Math.min(100, Math.max(0, (100 * amount) / total))}%` }}
        />
      </span>
      <span className="w-10 text-right text-small">{said}</span>
    </span>
  );
}

/** Who will not be there by the target date, at the present pace. */
function Late({ rows, today }: { rows: Row[]; today: IsoDate }) {
  const late = rows.filter(({ isLate }) => isLate);
  return (
    <>
      <MarginTitle about={classTotalsWords.byThePace}>{classTotalsWords.notByTheTarget}</MarginTitle>
      {late.length === 0 && (
        <p className="text-small text-ink-2">
          {rows.every(({ isWithoutPace }) => isWithoutPace)
            ? classTotalsWords.nothingToSay
            : rows.some(({ isWithoutPace }) => isWithoutPace)
              ? classTotalsWords.thoseWithPace
              : classTotalsWords.everyoneIsOnTheWay}
        </p>
      )}
      <ul>
        {late.map(({ goalId, studentId, student, needed, targetOn }) => (
          <li key={goalId} className="border-b border-dotted border-ink-3/50 py-3">
            <Link to={`/students/${studentId}/goals/${goalId}`} className="display hover:underline">
              {student}
            </Link>
            <p className="text-small text-ink-2">
              {needed} {classTotalsWords.targetOn(dateSeenFrom(targetOn, today))}
            </p>
          </li>
        ))}
      </ul>
    </>
  );
}

const GRAPH = { width: 240, height: 72 };

/** Each log over the weeks, all as shares of their own target. */
function OverTime({ loaderData: { rows, weeks } }: { loaderData: Loaded }) {
  const [first, last] = [weeks[0], weeks.at(-1)];
  if (!first || !last || weeks.length < 2) return null;
  return (
    <section className="mt-9 pb-20 print:mt-3 print:pb-0">
      <h2 className="text-lg">
        {classTotalsWords.overTime}{' '}
        <span className="text-small font-normal text-ink-2">{classTotalsWords.eachOfItsTarget}</span>
      </h2>
      <ul className="mt-2 grid gap-x-8 gap-y-4 sm:grid-cols-2 xl:grid-cols-3 print:grid-cols-3">
        {rows.map((row) => (
          <li key={row.goalId}>
            <span className="flex justify-between gap-3">
              <span className="display">{row.student}</span>
              <span className="text-small text-ink-2">
                {classTotalsWords.of(figure(row.amount), figure(row.total))}
              </span>
            </span>
            <SmallTotal weeks={row.weeks} total={row.total} said={classTotalsWords.since(shortDate(first))} />
          </li>
        ))}
      </ul>
    </section>
  );
}

function SmallTotal({ weeks, total, said }: { weeks: number[]; total: number; said: string }) {
  const most = Math.max(total, ...weeks);
  const y = (amount: number) => GRAPH.height - 2 - ((GRAPH.height - 4) * Math.max(0, amount)) / most;
  const x = (i: number) => (GRAPH.width * i) / Math.max(1, weeks.length - 1);
  return (
    <svg role="img" aria-label={said} viewBox={`0 0 ${GRAPH.width} ${GRAPH.height}`} className="mt-1 block w-full">
      <line x1={0} x2={GRAPH.width} y1={y(total)} y2={y(total)} className="stroke-rule" strokeDasharray="3 3" />
      <line x1={0} x2={GRAPH.width} y1={y(0)} y2={y(0)} className="stroke-rule" />
      <polyline
        points={weeks.map((amount, i) => `${x(i)},${y(amount)}`).join(' ')}
        fill="none"
        className="stroke-fern"
        strokeWidth={2}
      />
    </svg>
  );
}
