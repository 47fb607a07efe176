import type { ColumnDef, SortingFn } from '@tanstack/react-table';
import { Printer } from 'lucide-react';
import { Form, Link, useSearchParams } from 'react-router';
import { incidentsBehind } from '~/core/behavior/filter';
import { entryDay, type IsoDate, longDate, shortDate, weekdayName } from '~/core/calendar/iso-date';
import { incidentSentence } from '~/core/entries/incidents/incident-sentence';
import { counted, lengthOfTime } from '~/core/words/counting';
import { behaviorOf } from '~/server/behavior/behavior';
import { newestIncidents, saidIncident } from '~/server/entries/incidents/incidents';
import { database } from '~/server/platform/db/current';
import { marksFor } from '~/server/rules/marks';
import { requireStudent } from '~/server/students/students';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { DataTable, sinceDay } from '../platform/ui/data-table';
import { EntryMarks } from '../platform/ui/entry-marks';
import { MarginTitle, Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/incidents';
import { filterFrom, type IncidentSearch, searchFrom, searchText } from './search';
import { incidentsWords } from './words';

/** As many incidents as a table begins with; the whole is one tap away. */
const FIRST_NOTES = 200;

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const studentId = idFrom(params.studentId);
  const search = searchFrom(request);
  const showsAll = new URL(request.url).searchParams.has('all');
  const student = await requireStudent(database(), actor, studentId, 'see');
  const of = await behaviorOf(database(), student.id, { discreet });
  const behind = incidentsBehind(of.incidents, filterFrom(search, of.naming), of.timetable).reverse();
  const ids = (showsAll ? behind : behind.slice(0, FIRST_NOTES)).map(({ id }) => id);
  const isUnfiltered = searchText(search) === '';
  // Unfiltered, second observers’ are listed too; behind a figure they do not stand.
  const incidents = await newestIncidents(
    database(),
    [student.id],
    isUnfiltered ? { limit: showsAll ? undefined : FIRST_NOTES } : { ids },
  );
  const marks = discreet ? {} : await marksFor(database(), actor, incidents, [student.id]);
  return {
    student: headerStudent(student, { discreet }),
    schoolName: school.name,
    today: actor.today,
    search,
    asked: askedWords(search, (id) => of.naming.choices.get(id)?.name ?? of.people.get(id) ?? '?'),
    all: isUnfiltered ? Math.max(incidents.length, behind.length) : behind.length,
    hasMore: !showsAll && behind.length > FIRST_NOTES,
    discreet,
    incidents: incidents.map((incident) => {
      const said = saidIncident(incident, of.naming);
      return {
        ...{ id: incident.id, studentId, on: incident.on, time: incident.time, isGoing: incident.isGoing },
        behaviors: said.behaviors,
        sentence: incidentSentence(said),
        note: discreet ? '' : incident.note,
        seconds: incident.seconds,
        location: incident.locationId ? (of.naming.choices.get(incident.locationId)?.name ?? '–') : '–',
        observer: incident.observerName,
        isCorrected: incident.version > 1,
        isSecond: incident.besideId !== null,
        marks: marks[incident.id] ?? [],
      };
    }),
  };
});

/** What an address asks for, in words. */
function askedWords(search: IncidentSearch, nameOf: (id: string) => string): string[] {
  const {
    behavior,
    antecedent,
    consequence,
    location,
    observer,
    intensity,
    from,
    to,
    weekday,
    part,
    quarter,
    month,
    week,
  } = search;
  const said = [
    behavior && nameOf(behavior),
    antecedent && incidentsWords.after(nameOf(antecedent)),
    consequence && incidentsWords.followedBy(nameOf(consequence)),
    search.function && incidentsWords.takenToBeFor(nameOf(search.function)),
    location && nameOf(location),
    observer && incidentsWords.notedBy(nameOf(observer)),
    intensity && incidentsWords.intensity(intensity),
    weekday && incidentsWords.onS(weekdayName(weekday)),
    part,
    search.outside && incidentsWords.outsideTheDay,
    quarter && incidentsWords.fromOnAQuarterOf(quarter),
    month && incidentsWords.in(month),
    week && incidentsWords.inTheWeekOf(shortDate(week)),
    search.timed && incidentsWords.withALength,
    from && incidentsWords.sinceDay(shortDate(from)),
    to && incidentsWords.untilDay(shortDate(to)),
  ];
  return said.filter((one): one is string => Boolean(one));
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  {
    title: loaderData?.discreet
      ? incidentsWords.notesGentleMargin
      : incidentsWords.incidentsOfGentleMargin(loaderData?.student.shortName ?? 'a student'),
  },
];

type TableIncident = Route.ComponentProps['loaderData']['incidents'][number];

/** By what is listed first. */
const byNames: SortingFn<TableIncident> = (a, b) =>
  a.original.behaviors.join(', ').localeCompare(b.original.behaviors.join(', '));

const columns: ColumnDef<TableIncident>[] = [
  {
    id: 'when',
    header: 'When',
    accessorFn: ({ on, time }) => `${on} ${time}`,
    filterFn: sinceDay,
    cell: ({ row: { original: incident } }) => (
      <>
        <Link to={`/students/${incident.studentId}/incidents/${incident.id}`} className="link">
          {entryDay(incident.on as IsoDate)}
        </Link>
        <span className="block text-small text-ink-3">
          {incident.time}
          {incident.isCorrected && ' · changed'}
          {incident.isSecond && incidentsWords.secondObserver}
          {incident.isGoing && incidentsWords.noEndYet}
        </span>
      </>
    ),
  },
  {
    id: 'behavior',
    header: 'Behavior',
    accessorFn: ({ behaviors }) => behaviors,
    filterFn: 'arrIncludes',
    sortingFn: byNames,
    cell: ({ row: { original: incident } }) => incident.behaviors.join(', '),
  },
  {
    id: 'said',
    header: incidentsWords.whatWasNoted,
    enableSorting: false,
    cell: ({ row: { original: incident } }) => (
      <>
        <EntryMarks marks={incident.marks} />
        {incident.sentence}
        {incident.note && <span className="block text-small text-ink-2">{incident.note}</span>}
      </>
    ),
  },
  {
    id: 'long',
    header: 'Lasted',
    accessorFn: ({ seconds }) => seconds ?? undefined,
    sortUndefined: 'last',
    cell: ({ row: { original: incident } }) => (incident.seconds === null ? '–' : lengthOfTime(incident.seconds)),
  },
  { id: 'place', header: 'Where', accessorFn: ({ location }) => location, filterFn: 'equalsString' },
  { id: 'person', header: 'By', accessorFn: ({ observer }) => observer, filterFn: 'equalsString' },
];

const filters = [
  { id: 'behavior', label: incidentsWords.behavior },
  { id: 'place', label: incidentsWords.where },
  { id: 'person', label: incidentsWords.by },
];

export default function Incidents({ loaderData }: Route.ComponentProps) {
  const { student, schoolName, today, asked, all, hasMore, incidents } = loaderData;
  const [search] = useSearchParams();
  const showAll = `?${new URLSearchParams([...search.entries(), ['all', '1']])}`;
  return (
    <Page
      marginName={incidentsWords.whichIncidents}
      margin={
        <>
          <MarginTitle>{asked.length > 0 ? incidentsWords.behindTheFigure : incidentsWords.allIncidents}</MarginTitle>
          <ul className="grid gap-1">
            {asked.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
          <p className="mt-3 text-small text-ink-2">
            {asked.length > 0
              ? incidentsWords.asManyAsTheFigure(counted(all, 'incident', 'incidents'))
              : incidentsWords.everyIncidentThatStandsWhat}
          </p>
          {asked.length > 0 && (
            <p className="mt-3">
              <Link to={`/students/${student.id}/incidents`} className="font-semibold text-ink-2 hover:underline">
                {incidentsWords.toAllIncidents}
              </Link>
            </p>
          )}
        </>
      }
    >
      <PrintSheet
        head={incidentsWords.printedHeading(
          student.shortName,
          asked.join(' · '),
          asked.length > 0 ? ' · ' : '',
          schoolName,
          longDate(today),
        )}
      >
        <p className="no-print text-small">
          <Link to={`/students/${student.id}/behavior`} className="text-ink-2 link">
            {student.shortName} · {student.isDiscreet ? incidentsWords.notes : incidentsWords.behavior}
          </Link>
        </p>
        <div className="mt-1 mb-4 flex items-start justify-between gap-4">
          <h1 className="text-2xl">{student.isDiscreet ? incidentsWords.notes : incidentsWords.abcIncidents}</h1>
          <button type="button" className="btn no-print" onClick={() => window.print()}>
            <Printer size={16} aria-hidden />
            {incidentsWords.print}
          </button>
        </div>
        <Range loaded={loaderData} />
        {incidents.length === 0 ? (
          <p className="py-8 text-ink-2">
            {asked.length > 0 ? incidentsWords.thereIsNoSuchIncident : incidentsWords.noIncidentHasBeenRecorded}
          </p>
        ) : (
          <DataTable
            rows={incidents}
            columns={columns}
            names="when"
            wide="said"
            filters={filters}
            all={all}
            noun={['incident', 'incidents']}
            caption={incidentsWords.incidentsAsATable}
            first={FIRST_NOTES * 100}
          />
        )}
        {hasMore && (
          <p className="no-print mt-4 pb-10">
            <Link to={showAll} preventScrollReset className="btn">
              {incidentsWords.showTheEarlierOnesToo}
            </Link>
          </p>
        )}
      </PrintSheet>
    </Page>
  );
}

/** Only the incidents of some days: to read, or to print for a meeting. What else was asked for stays. */
function Range({ loaded: { search } }: { loaded: Route.ComponentProps['loaderData'] }) {
  const { from, to, ...others } = search;
  return (
    <Form method="get" className="no-print mb-3 flex flex-wrap items-end gap-3 text-small">
      {Object.entries(others).map(
        ([name, value]) => value !== undefined && <input key={name} type="hidden" name={name} value={value} />,
      )}
      {[
        { name: 'from', label: incidentsWords.from, value: from },
        { name: 'to', label: incidentsWords.to, value: to },
      ].map(({ name, label, value }) => (
        <label key={name} className="flex items-center gap-2 text-ink-2">
          {label}
          <input key={value} type="date" name={name} defaultValue={value} className="input w-auto" />
        </label>
      ))}
      <button type="submit" className="btn">
        {incidentsWords.showTheseDays}
      </button>
    </Form>
  );
}
