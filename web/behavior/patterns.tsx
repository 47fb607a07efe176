import { Form, Link, useLocation, useSubmit } from 'react-router';
import { changeSentence, sharedKinds } from '~/core/behavior/patterns';
import type { WeekRate } from '~/core/behavior/rates';
import { dayNumber, longDate, shortDate } from '~/core/calendar/iso-date';
import { counted, rateFigure } from '~/core/words/counting';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { personOf } from '../platform/http/request-person';
import { MarginTitle, Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import type { Route } from './+types/patterns';
import { patternsSeen, RECENT_DAYS, STRETCHES, sharedNamed } from './patterns-seen';
import { patternsWords } from './words';

export const loader = withErrorsInTurn(async ({ request, context }: Route.LoaderArgs) => {
  const asker = personOf(context);
  const { groups, group, weeks, from, patterns, names } = await patternsSeen(request, asker);
  const { actor, school, discreet } = asker;
  const named = (id: string) => ({ id, name: names.get(id) ?? '' });
  return {
    groups,
    ...{ group, weeks, from, to: actor.today, discreet },
    stretches: STRETCHES,
    recentDays: RECENT_DAYS,
    students: patterns.students
      .filter(({ n }) => n > 0)
      .sort((a, b) => b.n - a.n)
      .map(({ id, n, weeks: rates }) => ({ ...named(id), n, weeks: rates })),
    without: patterns.students.filter(({ n }) => n === 0).length,
    highest: patterns.highest,
    changed: patterns.changed.map(({ id, change }) => ({
      ...named(id),
      sentence: change ? changeSentence(change) : '',
    })),
    parts: patterns.parts.filter(({ n }) => n > 0),
    shared: sharedNamed(patterns.shared, (id) => names.get(id) ?? ''),
    schoolName: school.name,
  };
});

export const meta: Route.MetaFunction = () => [{ title: patternsWords.pageTitle }];

type Loaded = Route.ComponentProps['loaderData'];

export default function PatternsPage({ loaderData }: Route.ComponentProps) {
  const { students, without, highest, parts, shared, from, to, group, schoolName } = loaderData;
  const { search } = useLocation();
  const head = patternsWords.printed(schoolName, shortDate(from), shortDate(to), group ?? '', longDate(to));
  return (
    <Page marginName={patternsWords.changedMost} help="patterns" margin={<Changed loaderData={loaderData} />}>
      <PrintSheet head={head}>
        <header className="flex flex-wrap items-end justify-between gap-4">
          <div>
            <h1 className="text-3xl">{patternsWords.patterns}</h1>
            <p className="mt-1.5 text-small text-ink-2">
              {patternsWords.withIncidents(
                shortDate(from),
                shortDate(to),
                counted(students.length, 'student', 'students'),
              )}
              {without > 0 && patternsWords.moreFollowedWithoutAny(without)}
            </p>
          </div>
          <Choose loaderData={loaderData} />
        </header>
        {students.length > 0 && (
          <p className="no-print mt-2 flex items-center gap-4 text-small">
            {patternsWords.ofThese}
            <a href={`/patterns.csv${search}`} download className="inline-flex tap items-center link">
              {patternsWords.asAFile}
            </a>
            <a href={`/patterns.xlsx${search}`} download className="inline-flex tap items-center link">
              {patternsWords.asASpreadsheet}
            </a>
            <button type="button" className="btn btn-sm" onClick={() => window.print()}>
              {patternsWords.print}
            </button>
          </p>
        )}
        {students.length === 0 && <p className="py-10 text-ink-2">{patternsWords.noIncidentWasNotedIn}</p>}
        {students.length > 0 && (
          <>
            <h2 className="mt-6 text-lg">
              {patternsWords.weekByWeek}
              <span className="font-normal text-ink-2">{patternsWords.incidentsASchoolDayAll}</span>
            </h2>
            <ul className="mt-2 grid gap-x-8 gap-y-4 sm:grid-cols-2 xl:grid-cols-3">
              {students.map(({ id, name, n, weeks }) => (
                <li key={id}>
                  <Link to={`/students/${id}/behavior`} className="group block">
                    <span className="flex justify-between gap-3">
                      <span className="display group-hover:underline">{name}</span>
                      <span className="text-small text-ink-2">{counted(n, 'incident', 'incidents')}</span>
                    </span>
                    <SmallWeeks weeks={weeks} highest={highest} />
                  </Link>
                </li>
              ))}
            </ul>
            <p className="mt-1 text-small text-ink-3">{patternsWords.allOfThemShareOne(rateFigure(highest))}</p>
            <div className="mt-8 grid gap-x-10 gap-y-8 pb-20 xl:grid-cols-2">
              <Parts parts={parts} />
              {sharedKinds.map((kind) => (
                <Shared
                  key={kind}
                  title={patternsWords.withSeveral[kind]}
                  rows={shared[kind]}
                  isDates={kind === 'dates'}
                />
              ))}
            </div>
          </>
        )}
      </PrintSheet>
    </Page>
  );
}

interface SharedProps {
  title: string;
  rows: Loaded['shared']['dates'];
  isDates: boolean;
}

/** What two students or more have in common, with their names. */
function Shared({ title, rows, isDates }: SharedProps) {
  return (
    <section className="break-inside-avoid">
      <h2 className="mb-1 text-lg">{title}</h2>
      {rows.length === 0 && <p className="text-small text-ink-2">{patternsWords.nothingRecursAcrossStudents}</p>}
      <ul>
        {rows.slice(0, 10).map(({ name, n, students: several }) => (
          <li key={name} className="border-b border-rule py-2">
            <span className="flex justify-between gap-3">
              <b>{isDates ? longDate(name) : name}</b>
              <span className="text-small text-ink-2">
                {patternsWords.ofStudents(counted(n, 'incident', 'incidents'), several.length)}
              </span>
            </span>
            <span className="text-small text-ink-2">{several.join(', ')}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Choose({ loaderData: { groups, group, weeks, stretches } }: { loaderData: Loaded }) {
  const submit = useSubmit();
  return (
    <Form
      method="get"
      onChange={(event) => submit(event.currentTarget, { replace: true })}
      className="no-print flex flex-wrap gap-3 text-small"
    >
      {groups.length > 1 && (
        <label className="flex items-center gap-2">
          {patternsWords.group}
          <select name="group" defaultValue={group ?? ''} className="select w-40">
            <option value="">{patternsWords.all}</option>
            {groups.map((name) => (
              <option key={name}>{name}</option>
            ))}
          </select>
        </label>
      )}
      <label className="flex items-center gap-2">
        {patternsWords.weeks}
        <select name="weeks" defaultValue={weeks} className="select w-20">
          {stretches.map((stretch) => (
            <option key={stretch}>{stretch}</option>
          ))}
        </select>
      </label>
      <noscript>
        <button type="submit" className="btn">
          {patternsWords.show}
        </button>
      </noscript>
    </Form>
  );
}

const GRAPH = { width: 240, height: 56 };

/** A student’s weeks, drawn without a script, on the scale of all. */
function SmallWeeks({ weeks, highest }: { weeks: WeekRate[]; highest: number }) {
  const [first, last] = [weeks[0], weeks.at(-1)];
  if (!first || !last) return null;
  const days = dayNumber(last.monday) + 7 - dayNumber(first.monday);
  const wide = (7 * GRAPH.width) / days;
  const newest = weeks.findLast(({ rate }) => rate !== null);
  return (
    <svg
      role="img"
      aria-label={patternsWords.weeksFrom(shortDate(first.monday), rateFigure(newest?.rate ?? null))}
      viewBox={`0 0 ${GRAPH.width} ${GRAPH.height}`}
      className="mt-1 block h-auto w-full"
    >
      <path d={`M0 ${GRAPH.height - 0.5}H${GRAPH.width}`} className="stroke-rule" />
      {weeks.map(({ monday, rate }) => {
        if (rate === null || highest === 0) return null;
        const high = Math.max(1.5, ((GRAPH.height - 4) * rate) / highest);
        const x = ((dayNumber(monday) - dayNumber(first.monday)) * GRAPH.width) / days + wide * 0.12;
        return (
          <rect
            key={monday}
            x={x}
            y={GRAPH.height - high}
            width={wide * 0.76}
            height={high}
            className="fill-clay-deep"
          />
        );
      })}
    </svg>
  );
}

function Parts({ parts }: { parts: Loaded['parts'] }) {
  const highest = Math.max(0.01, ...parts.map(({ rate }) => rate ?? 0));
  return (
    <section>
      <h2 className="mb-1 text-lg">{patternsWords.partsOfTheDay}</h2>
      {parts.length === 0 && <p className="text-small text-ink-2">{patternsWords.noIncidentFallsIntoA}</p>}
      {parts.length > 0 && (
        <table className="w-full text-small">
          <thead>
            <tr className="text-left text-ink-2">
              <td />
              {[patternsWords.incidents, patternsWords.perHour, patternsWords.students].map((heading) => (
                <th key={heading} scope="col" className="pb-1 pl-3 font-normal">
                  {heading}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {parts.map(({ part, n, rate, students, of }) => (
              <tr key={part}>
                <th scope="row" className="w-32 py-1 text-left text-base font-normal">
                  {part}
                </th>
                <td className="pl-3 font-bold">{n}</td>
                <td className="w-1/3 pl-3">
                  <span className="flex items-center gap-2">
                    <span className="w-8">{rateFigure(rate)}</span>
                    <span aria-hidden className="h-3.5 grow rounded-sm bg-wash">
                      <span
                        className="bar block h-3.5 rounded-sm bg-clay-deep"
                        style={{ width: `${(100 * (rate ?? 0)) / highest}%` }}
                      />
                    </span>
                  </span>
                </td>
                <td className="pl-3 text-ink-2">{patternsWords.of(students, of)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Changed({ loaderData: { changed, students, recentDays } }: { loaderData: Loaded }) {
  const any = students.length > 0;
  return (
    <>
      <MarginTitle about={patternsWords.theLastSchoolDaysAgainst(recentDays)}>{patternsWords.changedMost}</MarginTitle>
      {changed.length === 0 && (
        <p className="text-ink-2">
          {any ? patternsWords.noClearChangeForAnyone : patternsWords.thereIsNothingToCompare}
        </p>
      )}
      <ul>
        {changed.map(({ id, name, sentence }) => (
          <li key={id} className="border-b border-dotted border-ink-3/50 py-3.5 first:pt-0">
            <h3 className="text-base">
              <Link to={`/students/${id}/behavior`} className="hover:underline">
                {name}
              </Link>
            </h3>
            <p className="mt-0.5 text-small text-ink-2">{sentence}</p>
          </li>
        ))}
      </ul>
    </>
  );
}
