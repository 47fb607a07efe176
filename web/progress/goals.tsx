import { Link } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import { discreetGoal } from '~/core/goals/discreet';
import { retirementWords } from '~/core/goals/retirement-words';
import { measureOf } from '~/core/measures/measure';
import { smallGraphShape } from '~/core/progress/graph/small-graph-shape';
import { criterionSentence } from '~/core/progress/mastery';
import type { Progress } from '~/core/progress/progress';
import { nowText } from '~/core/progress/sentences';
import { type Goal, goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { newestEntries } from '~/server/individual-report/entries-said';
import { database } from '~/server/platform/db/current';
import { progressOfGoals } from '~/server/progress/progress';
import { followUpsOf } from '~/server/rules/follow-ups';
import { marksFor } from '~/server/rules/marks';
import { can } from '~/server/students/rights';
import { requireStudent, supportTeam } from '~/server/students/students';
import { MarginEntries } from '../entries/margin-entries';
import { shownEntries } from '../entries/shown-entry';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { DecisionMark } from '../platform/ui/decision-mark';
import { FirstSteps } from '../platform/ui/first-steps';
import { MarginTitle, Page } from '../platform/ui/page';
import { firstStepsOf } from '../students/first-steps';
import { headerStudent } from '../students/header-student';
import { StudentHeader } from '../students/student-header';
import type { Route } from './+types/goals';
import { goalsWords } from './goals-words';
import { SmallGraph } from './small-graph';

const NEWEST = 6;

export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const studentId = idFrom(params.studentId);
  const student = await requireStudent(database(), actor, studentId, 'see');
  const stored = await goalsOf(database(), [student.id]);
  const all = discreet ? stored.map(discreetGoal) : stored;
  const goals = goalsWorkedOn(all);
  const [progress, entries, followUps] = await Promise.all([
    progressOfGoals(database(), goals, { school, today: actor.today }),
    newestEntries(database(), [student.id], all, { limit: NEWEST, discreet }),
    followUpsOf(database(), [student.id], { isDone: false }),
  ]);
  // Only of a student who is new: asked no more once the first entry is in.
  const isNew = entries.length === 0 && can(student, 'editGoals');
  const withoutBaseline = goals.find(
    ({ baseline, phases }) => baseline === null && !phases.some((phase) => phase.isBaseline),
  );
  const firstSteps = isNew && {
    plan: student.plan !== null,
    goals: goals.length > 0,
    baseline: goals.length > 0 && !withoutBaseline,
    withoutBaseline: withoutBaseline?.id ?? null,
    team: (await supportTeam(database(), student.id, actor.today)).length > 1,
  };
  return {
    student: headerStudent(student, { discreet }),
    firstSteps,
    today: actor.today,
    followUps: followUps.length,
    entries: shownEntries(entries, all, { discreet, marks: await marksFor(database(), actor, entries, [student.id]) }),
    retired: all.flatMap(({ id, number, shortName, retired }) =>
      retired ? { id, number, shortName, ...retired } : [],
    ),
    goals: goals.map((goal) => {
      const of = defined(progress.get(goal.id));
      return {
        id: goal.id,
        number: goal.number,
        shortName: goal.shortName,
        wording: goal.wording,
        criterion: criterionSentence(goal),
        now: nowText(goal, of),
        against: againstCriterion(goal, of),
        decision: of.decision,
        graph: smallGraphShape(goal, of, actor.today),
      };
    }),
  };
});

/** “of 80% · 2 of 3 days”, or when it was reached. */
function againstCriterion(goal: Goal, { mastery }: Progress): string {
  const reached = measureOf(goal.measure).said(goal.criterion.value);
  if (mastery.metOn) return goalsWords.ofReached(reached, shortDate(mastery.metOn).replace(' ', '\u00a0'));
  return goalsWords.passing(reached, mastery.passing, mastery.needed, goal.pointPer);
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: goalsWords.pageTitle(loaderData?.student.shortName ?? 'Student') },
];

export default function Goals({ loaderData }: Route.ComponentProps) {
  const { student, firstSteps, goals, retired, entries, today, followUps } = loaderData;
  return (
    <Page
      marginName={goalsWords.inTheMargin}
      help="student"
      margin={
        <>
          <MarginTitle>{goalsWords.inTheMargin}</MarginTitle>
          <MarginEntries entries={entries} today={today} />
          <p className="mt-4">
            <Link to={`/students/${student.id}/individual-report`} className="font-semibold text-ink-2 hover:underline">
              {goalsWords.seeTheWholeReport}
            </Link>
          </p>
          <p className="mt-2">
            <Link to={`/students/${student.id}/follow-ups`} className="font-semibold text-ink-2 hover:underline">
              {followUps > 0 ? goalsWords.followUpsOpen(followUps) : goalsWords.followUps}
            </Link>
          </p>
          {goals.length > 0 && (
            <p className="mt-2">
              <Link to={`/students/${student.id}/meeting`} className="font-semibold text-ink-2 hover:underline">
                {goalsWords.meetingView}
              </Link>
            </p>
          )}
        </>
      }
    >
      <StudentHeader student={student} />
      {firstSteps && <FirstSteps steps={firstStepsOf(student.id, firstSteps, firstSteps.withoutBaseline)} />}
      {goals.length === 0 && !firstSteps && (
        <p className="py-10 text-ink-2">
          {student.mayEditGoals ? goalsWords.noGoalIsWorkedOn : goalsWords.noGoalsYetTheyCome}
        </p>
      )}
      <ol>
        {goals.map((goal) => (
          <GoalRow key={goal.id} goal={goal} studentId={student.id} />
        ))}
      </ol>
      {student.mayEditGoals && (
        <p className="no-print mt-4 flex flex-wrap gap-2">
          <Link to={`/students/${student.id}/goals/new`} className="btn">
            {goalsWords.addAGoal}
          </Link>
          {(goals.length > 0 || retired.length > 0) && (
            <Link to={`/students/${student.id}/goals`} className="btn">
              {goalsWords.arrangeOrRetire}
            </Link>
          )}
          {goals.length > 0 && (
            <Link to={`/students/${student.id}/next-plan`} className="btn">
              {goalsWords.nextPlan}
            </Link>
          )}
        </p>
      )}
      {retired.length > 0 && (
        <section className="mt-8">
          <h2 className="text-lg">{goalsWords.retired}</h2>
          <ul className="mt-1">
            {retired.map(({ id, number, shortName, how, on }) => (
              <li key={id} className="py-1 text-small text-ink-2">
                <Link to={`/students/${student.id}/goals/${id}`} className="link">
                  {number} · {shortName}
                </Link>
                {goalsWords.on(retirementWords[how].toLowerCase(), shortDate(on))}
              </li>
            ))}
          </ul>
        </section>
      )}
      {goals.length > 0 && <p className="pt-4 pb-20 text-small text-ink-3">{goalsWords.solidLineThisStudentDotted}</p>}
    </Page>
  );
}

type GoalInRow = Route.ComponentProps['loaderData']['goals'][number];

function GoalRow({ goal, studentId }: { goal: GoalInRow; studentId: string }) {
  return (
    <li className="grid grid-cols-[3.25rem_minmax(0,1fr)] gap-x-2 gap-y-3 border-b border-rule py-5 md:grid-cols-[3.25rem_minmax(0,1fr)_14.75rem_10.5rem] md:items-center">
      <span className="display text-2xl text-ink-3">{goal.number}</span>
      <div className="min-w-0 md:pr-4">
        <h2 className="text-lg">
          <Link to={`/students/${studentId}/goals/${goal.id}`} className="hover:underline">
            {goal.shortName}
          </Link>
        </h2>
        {goal.wording && <p className="mt-0.5 text-small whitespace-pre-line text-ink-2">{goal.wording}</p>}
        <p className="mt-1 text-small text-ink-3">{goal.decision.reason}</p>
      </div>
      <div className="max-md:col-start-2">
        <SmallGraph shape={goal.graph} />
      </div>
      <div className="text-right max-md:col-start-2 max-md:text-left">
        <p className="display text-3xl">{goal.now ?? '–'}</p>
        <p className="mt-1 text-small text-ink-2">{goal.against}</p>
        <p className="mt-1 text-small">
          <DecisionMark {...goal.decision} />
        </p>
      </div>
    </li>
  );
}
