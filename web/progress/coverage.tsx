import { Link, useSearchParams } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import { discreetGoal, discreetStudent } from '~/core/goals/discreet';
import { countsByPerson, countsByWeek, lastWeeks, schoolDaysInWeek, silenceOf } from '~/core/progress/coverage';
import { counted } from '~/core/words/counting';
import { goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { newestDates, weekCounts } from '~/server/progress/coverage';
import { studentsOf } from '~/server/students/students';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { personOf } from '../platform/http/request-person';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/coverage';
import { coverageWords } from './words';

const WEEKS = 8;

function groupedBy<One>(all: readonly One[], keyOf: (one: One) => string): Map<string, One[]> {
  const groups = new Map<string, One[]>();
  for (const one of all) {
    const group = groups.get(keyOf(one));
    if (group) group.push(one);
    else groups.set(keyOf(one), [one]);
  }
  return groups;
}

export const loader = withErrorsInTurn(async ({ context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const { calendar } = school;
  const students = await studentsOf(database(), actor);
  const ids = students.map(({ id }) => id);
  const weeks = lastWeeks(actor.today, WEEKS);
  const [all, counts, newest] = await Promise.all([
    goalsOf(database(), ids),
    weekCounts(database(), ids, defined(weeks[0])),
    newestDates(database(), ids),
  ]);
  const goals = goalsWorkedOn(discreet ? all.map(discreetGoal) : all);
  const countsOf = groupedBy(counts, ({ goalId }) => goalId);
  const goalsOfStudent = groupedBy(goals, ({ studentId }) => studentId);
  return {
    weeks: weeks.map((monday) => ({ monday, isClosed: schoolDaysInWeek(monday, calendar) === 0 })),
    students: students.map((student) => ({
      id: student.id,
      name: (discreet ? discreetStudent(student) : student).shortName,
      goals: (goalsOfStudent.get(student.id) ?? []).map(({ id, number, shortName, startsOn, plannedGap }) => ({
        ...{ id, number, shortName },
        weeks: countsByWeek(countsOf.get(id) ?? [], weeks),
        silence: silenceOf({ lastOn: newest.get(id) ?? null, startsOn, plannedGap }, { calendar, today: actor.today }),
      })),
    })),
    people: countsByPerson(counts).map(({ name, own }) => ({ name, weeks: countsByWeek(own, weeks) })),
  };
});

export const meta: Route.MetaFunction = () => [{ title: coverageWords.pageTitle }];

type Loaded = Route.ComponentProps['loaderData'];

export default function Coverage({ loaderData: { weeks, students, people } }: Route.ComponentProps) {
  const [search] = useSearchParams();
  const onlyLong = search.get('show') === 'long';
  const goals = students.flatMap((student) => student.goals);
  const long = goals.filter(({ silence }) => silence.isLong);
  const [mostOfPeople, mostOfGoals] = [mostOf(people), mostOf(goals)];
  const shown = students
    .map((student) => ({ ...student, goals: student.goals.filter(({ silence }) => !onlyLong || silence.isLong) }))
    .filter((student) => student.goals.length > 0);
  return (
    <Page
      marginName={coverageWords.longestSinceTheLastEntry}
      help="coverage"
      margin={
        <>
          <MarginTitle about={coverageWords.schoolDaysByTheSchools}>
            {coverageWords.longestSinceTheLastEntry}
          </MarginTitle>
          <Longest students={students} />
        </>
      }
    >
      <header className="flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
        <div>
          <h1 className="text-3xl">{coverageWords.teamCoverage}</h1>
          <p className="mt-1.5 text-small text-ink-2">
            {long.length === 0
              ? coverageWords.everyGoalHasBeenObserved
              : coverageWords.ofHadNothingForLonger(
                  long.length,
                  counted(goals.length, 'goal', 'goals'),
                  long.length === 1 ? 'has' : 'have',
                )}
          </p>
        </div>
        <nav aria-label={coverageWords.whichGoals} className="flex gap-1 rounded-field bg-wash p-1 text-small">
          {[
            { to: '/team', label: coverageWords.allGoals, isChosen: !onlyLong },
            { to: '?show=long', label: coverageWords.longerThanPlanned, isChosen: onlyLong },
          ].map(({ to, label, isChosen }) => (
            <Link
              key={to}
              to={to}
              aria-current={isChosen ? 'true' : undefined}
              className={`flex min-h-8 pointer-coarse:min-h-11 items-center rounded-field px-3 ${isChosen ? 'bg-sheet font-semibold' : 'text-ink-2'}`}
            >
              {label}
            </Link>
          ))}
        </nav>
      </header>
      {goals.length === 0 && <p className="py-10 text-ink-2">{coverageWords.noGoalIsWorkedOn}</p>}
      <h2 className="mt-7 mb-2 text-lg">{coverageWords.entriesByPerson}</h2>
      {people.length === 0 ? (
        <p className="text-ink-2">{coverageWords.nobodyHasWrittenAnythingDown}</p>
      ) : (
        <Grid caption={coverageWords.entriesByPersonAndWeek} weeks={weeks} first="Person">
          {people.map(({ name, weeks: counts }) => (
            <tr key={name}>
              <th scope="row" className="py-1 pr-3 text-left font-normal">
                {name}
              </th>
              <Counts counts={counts} most={mostOfPeople} weeks={weeks} />
              <td className="pl-3 text-right tabular-nums">{counts.reduce((sum, n) => sum + n, 0)}</td>
            </tr>
          ))}
        </Grid>
      )}
      <h2 className="mt-8 mb-2 text-lg">{coverageWords.whichGoals}</h2>
      {shown.length === 0 && goals.length > 0 && <p className="text-ink-2">{coverageWords.everyGoalIsObservedAs}</p>}
      <div className="pb-20">
        {shown.map((student) => (
          <section key={student.id} className="mt-4">
            <h3 className="text-base">
              <Link to={`/students/${student.id}`} className="hover:underline">
                {student.name}
              </Link>
            </h3>
            <Grid caption={coverageWords.entriesOfByGoalAnd(student.name)} weeks={weeks} first="Goal">
              {student.goals.map(({ id, number, shortName, weeks: counts, silence }) => (
                <tr key={id}>
                  <th scope="row" className="py-1 pr-3 text-left font-normal">
                    <Link to={`/students/${student.id}/goals/${id}`} className="hover:underline">
                      {number} {shortName}
                    </Link>
                  </th>
                  <Counts counts={counts} most={mostOfGoals} weeks={weeks} />
                  <td className={`pl-3 text-right ${silence.isLong ? 'font-semibold text-clay-deep' : 'text-ink-2'}`}>
                    {silenceSaid(silence)}
                  </td>
                </tr>
              ))}
            </Grid>
          </section>
        ))}
      </div>
    </Page>
  );
}

const mostOf = (rows: readonly { weeks: readonly number[] }[]) => Math.max(1, ...rows.flatMap(({ weeks }) => weeks));

type SilenceShown = Loaded['students'][number]['goals'][number]['silence'];

const silenceSaid = ({ lastOn }: SilenceShown): string => (lastOn === null ? coverageWords.noneYet : shortDate(lastOn));

/** The few goals that have waited longest. */
function Longest({ students }: { students: Loaded['students'] }) {
  const goals = students
    .flatMap(({ id, name, goals }) => goals.map((goal) => ({ ...goal, studentId: id, name })))
    .filter(({ silence }) => silence.isLong)
    .sort((a, b) => b.silence.schoolDays - a.silence.schoolDays)
    .slice(0, 8);
  if (goals.length === 0) return <p className="text-small text-ink-2">{coverageWords.everyGoalIsObservedAs}</p>;
  return (
    <ol>
      {goals.map(({ id, studentId, name, number, shortName, silence }) => (
        <li key={id} className="border-b border-dotted border-ink-3/50 py-3 first:pt-0">
          <Link to={`/students/${studentId}/observe?goal=${id}`} className="font-bold hover:underline">
            {name} · {number} · {shortName}
          </Link>
          <p className="text-small text-ink-2">
            {silence.lastOn === null
              ? coverageWords.nothingHasBeenWrittenDown
              : coverageWords.lastEntryAgo(
                  shortDate(silence.lastOn),
                  counted(silence.schoolDays, coverageWords.schoolDay, coverageWords.schoolDays),
                )}
          </p>
        </li>
      ))}
    </ol>
  );
}

interface GridProps {
  caption: string;
  weeks: Loaded['weeks'];
  first: string;
  children: React.ReactNode;
}

function Grid({ caption, weeks, first, children }: GridProps) {
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls sideways must be reached by keyboard
    <section className="relative keeps-head" tabIndex={0} aria-label={caption}>
      <table className="w-full text-small">
        <caption className="sr-only">{caption}</caption>
        <thead className="text-ink-2">
          <tr>
            <th scope="col" className="w-56 min-w-36 text-left font-normal">
              {first}
            </th>
            {weeks.map(({ monday }) => (
              <th key={monday} scope="col" className="w-14 min-w-11 text-center font-normal whitespace-nowrap">
                {shortDate(monday)}
              </th>
            ))}
            <th scope="col" className="min-w-16 pl-3 text-right font-normal whitespace-nowrap">
              {first === 'Goal' ? coverageWords.lastEntry : coverageWords.all}
            </th>
          </tr>
        </thead>
        <tbody>{children}</tbody>
      </table>
    </section>
  );
}

/** More entries, more ink; a week without school is plain, a school week without an entry is an empty frame. */
function Counts({ counts, most, weeks }: { counts: readonly number[]; most: number; weeks: Loaded['weeks'] }) {
  return weeks.map(({ monday, isClosed }, i) => {
    const n = counts[i] ?? 0;
    return (
      <td key={monday} className="p-0.5 text-center">
        <span
          className={`mx-auto grid h-7 max-w-14 place-items-center rounded-field tabular-nums ${toneFor(n, most, isClosed)}`}
        >
          {isClosed && n === 0 ? <span className="sr-only">{coverageWords.noSchool}</span> : n === 0 ? '–' : n}
        </span>
      </td>
    );
  });
}

function toneFor(n: number, most: number, isClosed: boolean): string {
  if (n === 0) return isClosed ? 'bg-wash' : 'border border-dashed border-rule text-ink-3';
  if (n < most / 3) return 'support-4';
  return n < (2 * most) / 3 ? 'support-3' : 'support-1';
}
