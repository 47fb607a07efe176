import { Link, useSearchParams } from 'react-router';
import { type IsoDate, shortDate } from '~/core/calendar/iso-date';
import { discreetGoal } from '~/core/goals/discreet';
import { decisionWords } from '~/core/progress/decision-words';
import { counted } from '~/core/words/counting';
import { goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { newestEntries } from '~/server/individual-report/entries-said';
import { database } from '~/server/platform/db/current';
import { standingOfGoals } from '~/server/progress/progress';
import { marksFor } from '~/server/rules/marks';
import { studentsOf, studentsWhoLeft } from '~/server/students/students';
import { MarginEntries } from '../entries/margin-entries';
import { shownEntries } from '../entries/shown-entry';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { personOf } from '../platform/http/request-person';
import { DecisionMark } from '../platform/ui/decision-mark';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/students';
import { byGroup, type StudentSummary, summaryOf } from './summary';
import { studentsWords } from './words';

const NEWEST = 6;

export const loader = withErrorsInTurn(async ({ context }: Route.LoaderArgs) => {
  const { actor, person, school, discreet } = personOf(context);
  const students = await studentsOf(database(), actor);
  const ids = students.map(({ id }) => id);
  const all = await goalsOf(database(), ids);
  const goals = discreet ? all.map(discreetGoal) : all;
  const [progress, entries] = await Promise.all([
    standingOfGoals(database(), goalsWorkedOn(goals), { school, today: actor.today }),
    newestEntries(database(), ids, goals, { limit: NEWEST, discreet }),
  ]);
  const summaries = students.map((student) => summaryOf(student, goalsWorkedOn(goals), progress, { discreet }));
  return {
    today: actor.today,
    setsUp: person.isSchoolAdmin,
    left: (await studentsWhoLeft(database(), actor)).map(({ id, shortName, initials }) => ({
      ...{ id, name: discreet ? initials : shortName },
    })),
    summaries,
    names: Object.fromEntries(summaries.map(({ id, name }) => [id, name])),
    entries: shownEntries(entries, goals, { discreet, marks: await marksFor(database(), actor, entries, ids) }),
  };
});

export const meta: Route.MetaFunction = () => [{ title: studentsWords.pageTitle }];

export default function Students({
  loaderData: { today, setsUp, summaries, names, entries, left },
}: Route.ComponentProps) {
  const [search] = useSearchParams();
  const onlyAttention = search.get('show') === 'attention';
  const needing = summaries.filter(({ needsAttention }) => needsAttention);
  const groups = byGroup(onlyAttention ? needing : summaries);
  return (
    <Page
      marginName={studentsWords.whatCameIn}
      help="students"
      margin={
        <>
          <MarginTitle>{studentsWords.whatCameIn}</MarginTitle>
          <MarginEntries entries={entries} today={today} names={names} />
        </>
      }
    >
      <header className="flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
        <div>
          <h1 className="text-3xl">{studentsWords.students}</h1>
          <p className="mt-1.5 text-small text-ink-2">
            {counted(summaries.length, 'student', 'students')} ·{' '}
            {needing.length === 0
              ? studentsWords.nobodyNeedsACloserLook
              : studentsWords.withAGoalThatNeeds(needing.length)}
            {setsUp && (
              <>
                {' · '}
                <Link to="/roster" className="link">
                  {studentsWords.theRoster}
                </Link>
              </>
            )}
          </p>
        </div>
        {summaries.length > 0 && (
          <nav aria-label={studentsWords.whichStudents} className="flex gap-1 rounded-field bg-wash p-1 text-small">
            <Choice to="/students" isChosen={!onlyAttention}>
              {studentsWords.everyone}
            </Choice>
            <Choice to="?show=attention" isChosen={onlyAttention}>
              {studentsWords.needsACloserLook}
            </Choice>
          </nav>
        )}
      </header>
      {summaries.length === 0 && <p className="py-10 text-ink-2">{studentsWords.youAreNotOnAny}</p>}
      {onlyAttention && needing.length === 0 && summaries.length > 0 && (
        <p className="py-10 text-ink-2">{studentsWords.noGoalNeedsACloser}</p>
      )}
      {groups.map(({ group, students }) => (
        <section key={group} className="mt-7">
          <h2 className="border-b border-rule pb-2 text-lg">{group}</h2>
          <ul>
            {students.map((student) => (
              <StudentRow key={student.id} student={student} today={today} />
            ))}
          </ul>
        </section>
      ))}
      {left.length > 0 && (
        <section className="mt-9 pb-10 text-small text-ink-2">
          <h2 className="text-base">{studentsWords.haveLeft}</h2>
          <p>{studentsWords.haveLeftAbout}</p>
          <ul className="mt-1 flex flex-wrap gap-x-5">
            {left.map(({ id, name }) => (
              <li key={id}>
                <Link to={`/students/${id}`} className="inline-flex tap items-center text-ink link">
                  {name}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </Page>
  );
}

function Choice({ to, isChosen, children }: { to: string; isChosen: boolean; children: string }) {
  return (
    <Link
      to={to}
      aria-current={isChosen ? 'true' : undefined}
      className={`rounded-[0.45rem] px-3 py-1.5 ${isChosen ? 'bg-sheet font-semibold' : 'text-ink-2'}`}
    >
      {children}
    </Link>
  );
}

function StudentRow({ student, today }: { student: StudentSummary; today: IsoDate }) {
  const { id, name, grade, goals, lastOn } = student;
  return (
    <li className="grid grid-cols-1 gap-x-5 gap-y-1.5 border-b border-rule py-3 md:grid-cols-[11rem_minmax(0,1fr)_7.5rem] md:items-baseline">
      <div>
        <Link to={`/students/${id}`} className="display text-lg hover:underline">
          {name}
        </Link>
        <span className="ml-2 text-small text-ink-3">{grade}</span>
      </div>
      <ul className="flex flex-wrap gap-x-5 gap-y-1 text-small">
        {goals.map((goal) => (
          <li key={goal.id}>
            <Link
              to={`/students/${id}/goals/${goal.id}`}
              title={goal.reason}
              className="group inline-block py-[3px] pointer-coarse:py-2.5"
            >
              <span className="mr-1 text-ink-3 group-hover:underline">{goal.number}</span>
              {decisionWords[goal.decision].needsAttention ? (
                <span className="-my-0.5 rounded bg-clay-wash px-1.5 py-0.5">
                  <DecisionMark is={goal.decision} label={goal.label} />
                </span>
              ) : (
                <DecisionMark is={goal.decision} label={goal.label} />
              )}
            </Link>
          </li>
        ))}
        {goals.length === 0 && <li className="text-ink-3">{studentsWords.noGoalsYet}</li>}
      </ul>
      <p className="text-small text-ink-2 md:text-right">
        {lastOn === null
          ? studentsWords.notObservedYet
          : studentsWords.seen(lastOn === today ? 'today' : shortDate(lastOn))}
      </p>
    </li>
  );
}
