import { data, Link, useLocation } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { isoDateField } from '~/core/calendar/date-fields';
import { type IsoDate, longDate, shortDate } from '~/core/calendar/iso-date';
import { withoutDays } from '~/core/calendar/school-days';
import { phaseInput } from '~/core/entries/incidents/incident-input';
import { counted } from '~/core/words/counting';
import { behaviorOf } from '~/server/behavior/behavior';
import { addPhase, removePhase } from '~/server/behavior/phases';
import { database } from '~/server/platform/db/current';
import { requireStudent } from '~/server/students/students';
import { sayNext } from '../platform/http/cookies';
import { formOf } from '../platform/http/form-of';
import { idFrom, personOf } from '../platform/http/request-person';
import { submitted } from '../platform/http/submitted';
import { withErrors } from '../platform/http/with-errors';
import { Page } from '../platform/ui/page';
import { PrintSheet } from '../platform/ui/print-sheet';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/behavior';
import { Bars } from './bars';
import { type BehaviorView, behaviorView } from './behavior-view';
import { Check } from './check';
import { DidItHelp } from './did-it-help-section';
import { Beside, Figures, Watched } from './figures';
import { Filters } from './filters';
import { searchFrom } from './search';
import { StandsOut } from './stands-out';
import { behaviorWords } from './words';

const besideSearch = z.object({ from2: isoDateField, to2: isoDateField });

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const studentId = idFrom(params.studentId);
  const parameters = new URL(request.url).searchParams;
  const student = await requireStudent(database(), actor, studentId, 'see');
  const of = await behaviorOf(database(), student.id, { discreet });
  const beside = besideSearch.safeParse(Object.fromEntries(parameters));
  const asked = {
    studentId,
    search: searchFrom(request),
    phase: parameters.get('phase'),
    beside: beside.success ? { from: beside.data.from2, to: beside.data.to2 } : null,
    per: parameters.get('per') === 'hour' ? ('hour' as const) : ('schoolDay' as const),
  };
  return {
    student: headerStudent(student, { discreet }),
    schoolName: school.name,
    today: actor.today,
    hasChoices: of.choices.length > 0,
    asked: { search: asked.search, phase: asked.phase, beside: asked.beside },
    newPhaseId: newId(),
    discreet,
    view: behaviorView(of, asked, {
      calendar: withoutDays(school.calendar, of.absences),
      today: actor.today,
    }),
  };
});

const removal = z.object({ intent: z.literal('removePhase'), id: z.uuid() });

export const action = withErrors(async ({ params, request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const studentId = idFrom(params.studentId);
  await requireStudent(database(), actor, studentId, 'editGoals');
  const form = await formOf(request);
  const toRemove = removal.safeParse(Object.fromEntries(form));
  if (toRemove.success) {
    await removePhase(database(), actor, studentId, toRemove.data.id, now);
    return data({ result: undefined }, { headers: await sayNext({ text: behaviorWords.takenAwayTheIncidentsAre }) });
  }
  const { refused } = await submitted(form, phaseInput, (input) => addPhase(database(), actor, studentId, input));
  if (refused) return refused;
  return data({ result: undefined }, { headers: await sayNext({ text: behaviorWords.writtenDownFromThatDay }) });
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  {
    title: loaderData?.discreet
      ? behaviorWords.notesGentleMargin
      : behaviorWords.behaviorOfGentleMargin(loaderData?.student.shortName ?? 'a student'),
  },
];

export default function Behavior({ loaderData }: Route.ComponentProps) {
  const { student, schoolName, today, view, hasChoices } = loaderData;
  const { chosen, range, figures } = view;
  const head = `${student.shortName} · behavior${chosen ? ` · ${chosen.name}` : ''} · ${shortDate(range.from)} – ${shortDate(range.to)} · ${schoolName} · ${longDate(today)}`;
  return (
    <Page marginName={behaviorWords.whatStandsOut} help="behavior" margin={<StandsOut view={view} />}>
      <PrintSheet head={head}>
        <StudentHeader student={student} isBehavior />
        {!chosen ? (
          <NothingYet student={student} hasChoices={hasChoices} />
        ) : (
          <>
            {view.behaviors.length > 1 && <ByBehavior view={view} studentId={student.id} />}
            <Filters key={student.id} view={view} asked={loaderData.asked} />
            {chosen.words && (
              <p className="mt-1 max-w-3xl text-small text-ink-3">
                {chosen.words}
                {chosen.unlike && ` Not: ${chosen.unlike}`}
              </p>
            )}
            {!figures && (
              <p className="py-8 text-ink-2">
                {view.all > 0 ? behaviorWords.noneOfThisBehaviorWas : behaviorWords.nothingHasBeenNotedIn}
              </p>
            )}
            {figures && <Figures figures={figures} />}
            {view.watched && <Watched watched={view.watched} studentId={student.id} />}
            {view.beside && <Beside beside={view.beside} />}
            {view.help && <Help loaderData={loaderData} help={view.help} chosen={chosen} />}
            {view.check && <Check check={view.check} studentId={student.id} />}
            <Foot studentId={student.id} mayEditGoals={student.mayEditGoals} />
          </>
        )}
      </PrintSheet>
    </Page>
  );
}

type Loaded = Route.ComponentProps['loaderData'];

/** All behaviors side by side: each leads to its own figures. */
function ByBehavior({ view, studentId }: { view: BehaviorView; studentId: string }) {
  const { behaviors } = view;
  const most = Math.max(1, ...behaviors.map(({ n }) => n));
  const rows = behaviors.map(({ id, name, n }) => ({
    ...{ name, share: n / most, said: counted(n, 'incident', 'incidents') },
    to: `/students/${studentId}/behavior?behavior=${id}`,
  }));
  return (
    <div className="mt-4 max-w-2xl">
      <Bars title={behaviorWords.byBehavior} rows={rows} none={behaviorWords.noIncidentYet} />
    </div>
  );
}

function NothingYet({ student, hasChoices }: { student: Loaded['student']; hasChoices: boolean }) {
  return (
    <div className="py-10">
      <p className="max-w-xl text-ink-2">
        {hasChoices ? behaviorWords.noTargetBehaviorIsFollowed : behaviorWords.nothingOfThisStudentsBehavior}
      </p>
      {student.mayEditGoals && (
        <p className="mt-4">
          <Link to={`/students/${student.id}/behavior/set-up`} className="btn">
            {behaviorWords.setUpBehavior}
          </Link>
        </p>
      )}
    </div>
  );
}

function Help({
  loaderData,
  help,
  chosen,
}: {
  loaderData: Loaded;
  help: NonNullable<BehaviorView['help']>;
  chosen: { id: string; name: string };
}) {
  const { search } = useLocation();
  const linkTo = (per: 'schoolDay' | 'hour') => {
    const parameters = new URLSearchParams(search);
    parameters.set('per', per);
    return `?${parameters}`;
  };
  return (
    <DidItHelp
      key={loaderData.newPhaseId}
      help={help}
      behavior={chosen}
      newPhaseId={loaderData.newPhaseId}
      mayEditGoals={loaderData.student.mayEditGoals && !loaderData.discreet}
      today={loaderData.today as IsoDate}
      perLinks={{ schoolDay: linkTo('schoolDay'), hour: linkTo('hour') }}
    />
  );
}

function Foot({ studentId, mayEditGoals }: { studentId: string; mayEditGoals: boolean }) {
  const links = [
    ...(mayEditGoals ? [['behavior/set-up', behaviorWords.behaviorSetup] as const] : []),
    ['incidents', behaviorWords.allIncidentsAsATable] as const,
    ['behavior/agreement', behaviorWords.twoObservers] as const,
    ['absences', behaviorWords.daysAway] as const,
  ];
  return (
    <p className="no-print mt-8 flex flex-wrap gap-2 pb-20">
      {links.map(([path, label]) => (
        <Link key={path} to={`/students/${studentId}/${path}`} className="btn">
          {label}
        </Link>
      ))}
      <Link to={`/students/${studentId}/behavior/sheet`} reloadDocument className="btn">
        {behaviorWords.blankSheet}
      </Link>
      <a href={`/students/${studentId}/incidents.csv`} download className="btn">
        {behaviorWords.asAFile}
      </a>
      <a href={`/students/${studentId}/incidents.xlsx`} download className="btn">
        {behaviorWords.asASpreadsheet}
      </a>
      <a href={`/students/${studentId}/behavior/windows.xlsx`} download className="btn">
        {behaviorWords.countsAsASpreadsheet}
      </a>
    </p>
  );
}
