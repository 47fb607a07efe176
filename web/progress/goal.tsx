import { Form, Link, useNavigate } from 'react-router';
import { longDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { discreetGoal } from '~/core/goals/discreet';
import { retirementWords } from '~/core/goals/retirement-words';
import { comparableWith } from '~/core/goals/same-meaning';
import { usualAgreement } from '~/core/measures/agreement/over-sessions';
import { measureOf } from '~/core/measures/measure';

import { agreementSaid } from '~/core/progress/agreement-said';
import { offeredBaseline } from '~/core/progress/baseline';
import { computedSaid, luckDoubt, luckSaid } from '~/core/progress/computed';
import { optionsOfPage } from '~/core/progress/data-of-page';
import { goalGraph } from '~/core/progress/graph/goal-graph';
import { criterionSentence } from '~/core/progress/mastery';
import type { Progress } from '~/core/progress/progress';
import { progressSentences, valueSaid } from '~/core/progress/sentences';
import { graphPicture } from '~/server/documents/graph-svg';
import { pairsAmong } from '~/server/entries/pairs';
import { observationsOf, sessionsOfGoal } from '~/server/entries/read';
import { earlierGoals, type Goal, goalOf, measureAt } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { progressFrom } from '~/server/progress/progress';
import { marksFor } from '~/server/rules/marks';
import { can } from '~/server/students/rights';
import { requireStudent } from '~/server/students/students';
import { EntriesTable, FIRST_ROWS } from '../entries/entries-table';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { UnderThumb } from '../platform/ui/at-foot';
import { DecisionMark } from '../platform/ui/decision-mark';
import { MarginTitle, Page } from '../platform/ui/page';
import { useKey } from '../platform/ui/use-key';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/goal';
import { breakdownOf } from './breakdown';
import { BreakdownTable } from './breakdown-table';
import { ByDayAndPerson } from './by-day-and-person';
import { Fidelity } from './fidelity';
import { GoalChart } from './goal-chart';
import { byCategory, fidelityShown, figuresOf, mediansOf, pooledShares, sharesOf, tableEntries } from './goal-tables';
import { HowComputed } from './how-computed';
import { PooledSharesBar } from './pooled-shares';
import { SameNumbers } from './same-numbers';
import { SharesChart } from './shares-chart';
import { pointEntry, throughYears } from './through-years';
import { goalWords } from './words';

export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const studentId = idFrom(params.studentId);
  const student = await requireStudent(database(), actor, studentId, 'see');
  const stored = await goalOf(database(), student.id, idFrom(params.goalId));
  const goal = discreet ? discreetGoal(stored) : stored;
  const [sessions, newest, earlier] = await Promise.all([
    sessionsOfGoal(database(), student.id, goal.id),
    observationsOf(database(), [student.id], { goalId: goal.id, limit: FIRST_ROWS }),
    discreet ? [] : earlierWordings(goal, school.timeZone),
  ]);
  const progress = progressFrom(goal, sessions, { school, today: actor.today });
  const measure = measureOf(goal.measure);
  const isCompared = comparableWith(goal.measure);
  const asNow = sessions
    .filter(({ version, pairsWith }) => pairsWith === null && isCompared(measureAt(goal, version)))
    .map(({ on, observerName, locationName, outcome, fidelity }) => ({
      ...{ on, observer: observerName, location: locationName, outcome, marks: fidelity },
    }))
    .reverse();
  const pointEntries = sessions.map((session) => pointEntry(session, discreet));
  const asMeasured = sessions.map((session) => ({ ...session, measure: measureAt(goal, session.version) }));
  const agreed = agreementSaid(goal, pairsAmong(asMeasured), asNow);
  const years = await throughYears(goal, progress, {
    studentId: student.id,
    pointEntries,
    discreet,
    school,
    today: actor.today,
  });
  const showsYears = years !== null && new URL(request.url).searchParams.get('years') === 'all';
  const graph = showsYears ? years.graph : goalGraph(goal, progress, pointEntries, actor.today);
  const when = { today: actor.today, calendar: school.calendar };
  return {
    student: headerStudent(student, { discreet }),
    goal: {
      id: goal.id,
      number: goal.number,
      shortName: goal.shortName,
      area: goal.area,
      wording: goal.wording,
      criterion: criterionSentence(goal),
      hasRubric: goal.measure.kind === 'rubric',
    },
    decision: progress.decision,
    said: [...progressSentences(goal, progress, when), ...[luckDoubt(goal, progress)].flatMap((doubt) => doubt ?? [])],
    computed: computedSaid(goal, progress),
    luck: luckSaid(goal, school.calendar),
    command: optionsOfPage(goal, progress, actor.today).join(' '),
    years: years && { isShown: showsYears, leftOut: years.leftOut },
    next: goal.retired?.how === 'replaced' ? goal.retired.replacedBy : null,
    graph,
    picture: graphPicture(graph),
    points: progress.points.map((point) => ({
      on: point.on,
      value: `${point.isBeyond ? '> ' : ''}${valueSaid(goal, point.value)}`,
      of: measure.basis(point),
      phase: goal.phases[point.phase]?.label ?? '',
    })),
    figures: figuresOf(goal, progress),
    shares: sharesOf(goal, asNow),
    pooled: pooledShares(goal, asNow, when),
    breakdown: breakdownOf(goal.measure, asNow),
    medians: mediansOf(goal, asNow),
    categories: byCategory(goal, asNow),
    fidelity: discreet ? null : fidelityShown(goal, asNow, actor.today),
    agreement: agreed.length > 0 ? [...agreed, usualAgreement] : [],
    // The newest only: the table asks for the others when the page is there.
    entries: tableEntries(goal, newest, { discreet, marks: await marksFor(database(), actor, newest, [student.id]) }),
    allEntries: sessions.length,
    offered: goal.baseline || progress.baseline || discreet ? null : baselineOffer(goal, progress.points),
    mayObserve: can(student, 'observe') && goal.retired === null,
    mayEditGoals: can(student, 'editGoals'),
    retired: goal.retired,
    earlier,
  };
});

/** The baseline that the first three scores would make, in words; null with fewer. */
function baselineOffer(goal: Goal, points: Progress['points']): string | null {
  const offered = offeredBaseline(points);
  return offered && valueSaid(goal, offered.value);
}

/** Wordings that the goal had before, each with the day until which it stood. */
async function earlierWordings(goal: Goal, timeZone: string) {
  const earlier = await earlierGoals(database(), goal.id);
  return earlier
    .map(({ goal: { wording }, until, changedBy }) => ({ wording, until: wallTime(until, timeZone).on, changedBy }))
    .filter(({ wording }, i, all) => wording !== (all[i - 1]?.wording ?? goal.wording));
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: loaderData ? goalWords.pageTitle(loaderData.goal.number, loaderData.student.shortName) : 'Goal' },
];

export default function GoalPage({ loaderData }: Route.ComponentProps) {
  const { student, goal, decision, said, graph, points, figures, shares, breakdown, medians, entries, mayObserve } =
    loaderData;
  const {
    mayEditGoals,
    retired,
    earlier,
    agreement,
    allEntries,
    picture,
    computed,
    luck,
    command,
    pooled,
    offered,
    fidelity,
    categories,
    years,
    next,
  } = loaderData;
  const navigate = useNavigate();
  const observe = `/students/${student.id}/observe?goal=${goal.id}`;
  useKey('o', () => mayObserve && navigate(observe));
  return (
    <Page
      marginName={goalWords.whatItSays}
      help="goal"
      margin={
        <>
          <MarginTitle>{goalWords.whatItSays}</MarginTitle>
          <ul>
            {said.map(({ title, text }) => (
              <li key={title} className="border-b border-dotted border-ink-3/50 py-3.5 first:pt-0">
                <h3 className="text-base">{title}</h3>
                <p className="mt-0.5 text-small text-ink-2">{text}</p>
              </li>
            ))}
          </ul>
        </>
      }
    >
      <header className="flex items-start justify-between gap-4">
        <div className="min-w-0">
          <p className="text-small">
            <Link to={`/students/${student.id}`} className="text-ink-2 link">
              {student.shortName}
            </Link>
            {goal.area && <span className="text-ink-3"> · {goal.area}</span>}
            {goal.hasRubric && (
              <>
                <span className="text-ink-3"> · </span>
                <Link to={`/students/${student.id}/goals/${goal.id}/ratings`} className="no-print text-ink-2 link">
                  {goalWords.ratedBySeveral}
                </Link>
              </>
            )}
            {mayEditGoals && (
              <>
                <span className="text-ink-3"> · </span>
                <Link to={`/students/${student.id}/goals/${goal.id}/edit`} className="no-print text-ink-2 link">
                  {goalWords.editTheGoal}
                </Link>
              </>
            )}
          </p>
          <h1 className="mt-1 text-2xl">
            <span className="mr-3 text-ink-3">{goal.number}</span>
            {goal.shortName}
          </h1>
        </div>
        {mayObserve && (
          <UnderThumb>
            <Link to={observe} className="btn btn-primary px-5 text-base max-sm:h-12 max-sm:grow">
              {goalWords.observe}
              <kbd className="keycap">O</kbd>
            </Link>
          </UnderThumb>
        )}
      </header>
      {goal.wording && <p className="mt-2 max-w-3xl whitespace-pre-line text-ink-2">{goal.wording}</p>}
      <p className="mt-1 text-small text-ink-2">{goal.criterion}</p>
      {retired && (
        <p className="mt-2 text-small font-semibold">
          {goalWords.on(retirementWords[retired.how], longDate(retired.on), retired.note && `: ${retired.note}`)}
          {next && (
            <>
              {' '}
              <Link to={`/students/${student.id}/goals/${next}`} className="link">
                {goalWords.toTheNext}
              </Link>
            </>
          )}
        </p>
      )}
      {earlier.length > 0 && (
        <details className="mt-1">
          <summary className="tap py-1.5 text-small text-ink-2 link">{goalWords.earlierTextsOfThisGoal}</summary>
          {earlier.map(({ wording, until, changedBy }) => (
            <p key={`${until} ${wording}`} className="mt-1 max-w-3xl text-small whitespace-pre-line text-ink-2">
              <span className="text-ink-3">{goalWords.untilChangedBy(longDate(until), changedBy)}</span> {wording}
            </p>
          ))}
        </details>
      )}
      <dl className="mt-5 mb-4 flex flex-wrap items-end gap-x-9 gap-y-3">
        {figures.map(([label, value]) => (
          <div key={label}>
            <dt className="text-small text-ink-2">{label}</dt>
            <dd className="display text-2xl">{value}</dd>
          </div>
        ))}
      </dl>
      <p className="mb-4 max-w-3xl">
        <DecisionMark is={decision.is} label={decision.label} /> <span className="text-ink-2">{decision.reason}</span>
      </p>
      {offered && mayEditGoals && (
        <Form method="post" action="edit" className="no-print mb-4 flex max-w-3xl flex-wrap items-center gap-3">
          <p className="text-small text-ink-2">{goalWords.thereIsNoBaselineSo}</p>
          <button type="submit" name="intent" value="baseline" className="btn">
            {goalWords.takeTheMedianOfThe(offered)}
          </button>
        </Form>
      )}
      {years && (
        <p className="no-print mb-2 text-small">
          <Link to={years.isShown ? '?' : '?years=all'} preventScrollReset className="tap text-ink-2 link">
            {years.isShown ? goalWords.thisPlanOnly : goalWords.throughItsYears}
          </Link>
          {years.isShown && years.leftOut > 0 && <span className="text-ink-2"> {goalWords.measuredOtherwise}</span>}
        </p>
      )}
      {points.length > 0 || years?.isShown ? (
        <GoalChart graph={graph} picture={picture} />
      ) : (
        <p className="py-8 text-ink-2">{goalWords.nothingMeasuredYetSoThere}</p>
      )}
      <SameNumbers points={points} shares={shares} />
      {categories && (
        <section className="mt-8">
          <h2 className="mb-2 text-lg">{goalWords.byCategory}</h2>
          <ByDayAndPerson tables={[categories]} />
        </section>
      )}
      {medians.length > 0 && (
        <section className="mt-8">
          <h2 className="mb-2 text-lg">{goalWords.byWhomWhereAndWhen}</h2>
          <ByDayAndPerson tables={medians} />
        </section>
      )}
      {agreement.length > 0 && (
        <section className="mt-8 max-w-3xl">
          <h2 className="mb-1 text-lg">
            {goalWords.twoObservers} <span className="text-small font-normal text-ink-2">{goalWords.ioa}</span>
          </h2>
          {agreement.map((sentence) => (
            <p key={sentence}>{sentence}</p>
          ))}
        </section>
      )}
      {fidelity && <Fidelity fidelity={fidelity} />}
      {shares.sessions.length > 0 && (
        <section className="mt-8">
          <h2 className="mb-2 text-lg">{goalWords.howMuchHelp}</h2>
          <PooledSharesBar times={pooled} />
          <h3 className="mt-6 mb-2 text-base">{goalWords.sessionBySession}</h3>
          <SharesChart shares={shares} />
        </section>
      )}
      {breakdown && (
        <section className="mt-8">
          <h2 className="mb-2 text-lg">{goalWords.sessionBySession}</h2>
          <BreakdownTable breakdown={breakdown} />
        </section>
      )}
      <HowComputed
        computed={computed}
        luck={luck}
        command={command}
        data={`/students/${student.id}/goals/${goal.id}/data.csv`}
      />
      <section className="mt-8 pb-20">
        <h2 className="mb-2 flex items-center justify-between gap-4 text-lg">
          {goalWords.entries}
          {mayObserve && (
            <Link
              to={`/students/${student.id}/goals/${goal.id}/table`}
              className="no-print inline-flex tap items-center font-sans text-small text-ink-2 link"
            >
              {goalWords.enterSeveralFromPaper}
            </Link>
          )}
        </h2>
        <EntriesTable
          key={goal.id}
          newest={entries}
          all={allEntries}
          from={`/students/${student.id}/goals/${goal.id}/entries`}
        />
      </section>
    </Page>
  );
}
