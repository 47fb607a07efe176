import { ArrowLeft, ArrowRight } from 'lucide-react';
import { Link, useSearchParams } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import { discreetGoal, discreetStudent } from '~/core/goals/discreet';
import { templateFor } from '~/core/goals/other-student';
import { goalGraph } from '~/core/progress/graph/goal-graph';
import { criterionSentence } from '~/core/progress/mastery';
import { progressSentences } from '~/core/progress/sentences';
import { dueAfter } from '~/core/rules/follow-up';
import { sessionsOfGoal } from '~/server/entries/read';
import { goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { progressFrom } from '~/server/progress/progress';
import { followUpsOf } from '~/server/rules/follow-ups';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { idFrom, personOf, signedIn } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { DecisionMark } from '../platform/ui/decision-mark';
import { useKey } from '../platform/ui/use-key';
import { GoalChart } from '../progress/goal-chart';
import { figuresOf } from '../progress/goal-tables';
import type { Route } from './+types/meeting';
import { Decided } from './decided';
import { meetingWords } from './words';

export const middleware: Route.MiddlewareFunction[] = [signedIn];

/** What was decided in a meeting is due in so many school days, unless it is put off. */
const DUE_IN = 5;

/** One student's goals for all who sit around a table: by initials, as doors stand open. */
export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'see');
  const stored = goalsWorkedOn(await goalsOf(database(), [student.id]));
  const goals = discreet ? stored.map(discreetGoal) : stored;
  const initials = discreetStudent(student).shortName;
  const when = { today: actor.today, calendar: school.calendar };
  const shown = [];
  for (const goal of goals) {
    const sessions = await sessionsOfGoal(database(), student.id, goal.id);
    const progress = progressFrom(goal, sessions, { school, today: actor.today });
    shown.push({
      ...{ id: goal.id, number: goal.number, shortName: goal.shortName },
      wording: templateFor(goal.wording, { from: student.firstName, to: initials }),
      criterion: criterionSentence(goal),
      decision: progress.decision,
      figures: figuresOf(goal, progress),
      said: progressSentences(goal, progress, when).filter(({ text }) => text !== progress.decision.reason),
      graph: progress.points.length > 0 ? goalGraph(goal, progress, [], actor.today) : null,
    });
  }
  const open = await followUpsOf(database(), [student.id], { isDone: false });
  return {
    student: { id: student.id, initials },
    goals: shown,
    mayEditGoals: can(student, 'editGoals'),
    mayNote: can(student, 'observe') && !discreet,
    forPerson: actor.personId,
    dueOn: dueAfter(actor.today, DUE_IN, school.calendar),
    decided: discreet ? [] : open.map(({ id, what, forName, dueOn }) => ({ id, what, forName, due: shortDate(dueOn) })),
  };
});

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: meetingWords.pageTitle(loaderData?.student.initials ?? '') },
];

export default function Meeting({ loaderData }: Route.ComponentProps) {
  const { student, goals } = loaderData;
  const [search, setSearch] = useSearchParams();
  const at = Math.min(Math.max(0, goals.length - 1), Math.max(0, Number(search.get('goal') ?? 1) - 1 || 0));
  const goTo = (next: number) => {
    if (next >= 0 && next < goals.length) setSearch({ goal: `${next + 1}` }, { replace: true });
  };
  // Within the graph the arrows go from point to point.
  useKey('ArrowRight', (event) => !event.defaultPrevented && goTo(at + 1));
  useKey('ArrowLeft', (event) => !event.defaultPrevented && goTo(at - 1));
  const goal = goals[at];
  return (
    <main className="min-h-dvh px-4 py-5 sm:px-10">
      <header className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
        <p className="display text-2xl text-ink-2">{student.initials}</p>
        <nav aria-label={meetingWords.goals} className="flex items-center gap-3">
          <button type="button" className="btn" disabled={at === 0} onClick={() => goTo(at - 1)}>
            <ArrowLeft size={18} aria-hidden />
            {meetingWords.previous}
          </button>
          <span aria-live="polite">{meetingWords.goalOf(goals.length === 0 ? 0 : at + 1, goals.length)}</span>
          <button type="button" className="btn" disabled={at >= goals.length - 1} onClick={() => goTo(at + 1)}>
            {meetingWords.next}
            <ArrowRight size={18} aria-hidden />
          </button>
        </nav>
        <Link to={`/students/${student.id}`} className="tap flex items-center link">
          {meetingWords.leave}
        </Link>
      </header>
      {goal ? <GoalPanel key={goal.id} goal={goal} loaded={loaderData} /> : <NoGoal />}
    </main>
  );
}

function NoGoal() {
  return (
    <>
      <h1 className="mt-8 text-4xl">{meetingWords.meeting}</h1>
      <p className="mt-3 text-xl text-ink-2">{meetingWords.noGoal}</p>
    </>
  );
}

type Loaded = Route.ComponentProps['loaderData'];

function GoalPanel({ goal, loaded }: { goal: Loaded['goals'][number]; loaded: Loaded }) {
  const { number, shortName, wording, criterion, decision, figures, said, graph } = goal;
  return (
    <>
      <h1 className="mt-5 text-4xl">
        <span className="mr-4 text-ink-3">{number}</span>
        {shortName}
      </h1>
      {wording && <p className="mt-2 max-w-4xl text-xl whitespace-pre-line">{wording}</p>}
      <p className="mt-1 text-ink-2">{criterion}</p>
      <div className="mt-5 grid gap-8 lg:grid-cols-[minmax(0,1fr)_22rem]">
        <div className="min-w-0">
          {graph ? (
            <GoalChart graph={graph} />
          ) : (
            <p className="py-8 text-xl text-ink-2">{meetingWords.nothingMeasuredYet}</p>
          )}
          <p className="mt-4 text-xl">
            <DecisionMark is={decision.is} label={decision.label} />
          </p>
          <p className="mt-1 text-lg">{decision.reason}</p>
          {said.map(({ title, text }) => (
            <p key={title} className="mt-1 text-lg text-ink-2">
              <span className="font-semibold">{title}:</span> {text}
            </p>
          ))}
        </div>
        <div>
          <dl className="grid grid-cols-2 gap-4">
            {figures.map(([label, value]) => (
              <div key={label}>
                <dt className="text-ink-2">{label}</dt>
                <dd className="display text-4xl">{defined(value)}</dd>
              </div>
            ))}
          </dl>
          <Decided goal={goal} {...loaded} />
        </div>
      </div>
    </>
  );
}
