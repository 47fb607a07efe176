import { Fragment, useCallback } from 'react';
import { Link } from 'react-router';
import { longDate, weekday } from '~/core/calendar/iso-date';
import { noSchoolWords } from '~/core/calendar/school-days';
import { defined } from '~/core/defined';
import { discreetGoal, discreetStudent } from '~/core/goals/discreet';
import { decisionWords } from '~/core/progress/decision-words';
import { dayPlan } from '~/core/today/today';
import { counted } from '~/core/words/counting';
import { roundsOf } from '~/server/entries/rounds/rounds';
import { type Goal, goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import { newestEntries } from '~/server/individual-report/entries-said';
import { database } from '~/server/platform/db/current';
import { newestDates } from '~/server/progress/coverage';
import { standingOfGoals } from '~/server/progress/progress';
import { followUpsOf } from '~/server/rules/follow-ups';
import { marksFor } from '~/server/rules/marks';
import { requireSchoolAdmin } from '~/server/school/administrators';
import { schoolBegun } from '~/server/school/first-steps';
import { daysAway } from '~/server/students/absences';
import { invitationsTo } from '~/server/students/invitations';
import { can } from '~/server/students/rights';
import { studentsOf } from '~/server/students/students';
import { plannedOn } from '~/server/students/timetable';
import { personBegun } from '~/server/today/first-steps';
import { MarginEntries } from '../entries/margin-entries';
import { shownEntries } from '../entries/shown-entry';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { personOf } from '../platform/http/request-person';
import { useWaiting } from '../platform/offline/waiting';
import { FirstSteps } from '../platform/ui/first-steps';
import { MarginTitle, Page } from '../platform/ui/page';
import { useAskAnew, useLive } from '../platform/ui/use-live';
import { schoolFirstSteps } from '../school/first-steps';
import type { Route } from './+types/today';
import { Attention } from './attention';
import { DueList, GoThrough, PartBody } from './due';
import { DueFollowUps, dueFollowUps } from './due-follow-ups';
import { personSteps } from './first-steps';
import { todayWords } from './words';

/** How many of the entries of a day stand in the margin. */
const NEWEST = 12;

export const loader = withErrorsInTurn(async ({ context }: Route.LoaderArgs) => {
  const { actor, person, school, wall, discreet } = personOf(context);
  const students = await studentsOf(database(), actor);
  const ids = students.map(({ id }) => id);
  const [stored, newest, parts, rounds, invitations, begun, away, ofSchool] = await Promise.all([
    goalsOf(database(), ids),
    newestDates(database(), ids),
    plannedOn(database(), ids, wall.on),
    roundsOf(database(), actor),
    invitationsTo(database(), actor),
    personBegun(database(), actor, ids),
    daysAway(database(), ids),
    person.isSchoolAdmin ? requireSchoolAdmin(database(), actor).then((admin) => schoolBegun(database(), admin)) : null,
  ]);
  const all = discreet ? stored.map(discreetGoal) : stored;
  const goals = goalsWorkedOn(all);
  const [progress, entries, followUps] = await Promise.all([
    standingOfGoals(database(), goals, { school, today: actor.today }),
    newestEntries(database(), ids, all, { limit: NEWEST, on: actor.today, discreet }),
    followUpsOf(database(), ids, { isDone: false, forPerson: actor.personId }),
  ]);
  const names = new Map<string, string>(
    students.map((student) => [student.id, (discreet ? discreetStudent(student) : student).shortName]),
  );
  const isAway = (id: string) => away.get(id)?.includes(actor.today) ?? false;
  const planned = goals
    .filter(({ studentId }) => !isAway(studentId))
    .map((goal) => ({ ...goal, lastOn: newest.get(goal.id) ?? null }));
  const plan = dayPlan(parts, planned, { personId: person.id, wall, calendar: school.calendar });
  const byId = new Map(goals.map((goal) => [goal.id, goal]));
  const shown = ({ studentId, due }: { studentId: string; due: string[] }) => ({
    studentId,
    name: names.get(studentId) ?? '',
    due: due.map((id) => lineOf(defined(byId.get(id)))),
  });
  return {
    wall,
    noSchool: noSchoolWords(wall.on, school.calendar),
    invitations: invitations.length,
    hasStudents: students.length > 0,
    away: ids.filter(isAway).map((id) => ({ id, name: names.get(id) ?? '' })),
    firstSteps: [
      ...(ofSchool ? schoolFirstSteps(ofSchool) : []),
      ...personSteps(students.find((student) => can(student, 'observe'))?.id, begun),
    ],
    parts: plan.parts.map((part) => ({ ...part, students: part.students.map(shown) })),
    elsewhere: plan.elsewhere.map(shown),
    rounds: rounds
      .filter((round) => [weekday(wall.on), null].includes(round.weekday) && round.goals.length > 0)
      .map(({ id, name, startsAt, goals: inRound }) => ({ id, name, startsAt, goals: inRound.length })),
    attention: goals.flatMap((goal) => {
      const decision = progress.get(goal.id)?.decision;
      return decision && decisionWords[decision.is].needsAttention
        ? { ...lineOf(goal), studentId: goal.studentId, name: names.get(goal.studentId) ?? '', ...decision }
        : [];
    }),
    entries: shownEntries(entries, all, { discreet, marks: await marksFor(database(), actor, entries, ids) }),
    names: Object.fromEntries(names),
    followUps: dueFollowUps(followUps, { today: actor.today, names, discreet }),
  };
});

const lineOf = ({ id, number, shortName }: Goal) => ({ id, number, shortName });

export const meta: Route.MetaFunction = () => [{ title: todayWords.pageTitle }];

type Loaded = Route.ComponentProps['loaderData'];
type Part = Loaded['parts'][number];

export default function Today({ loaderData }: Route.ComponentProps) {
  const askAnew = useAskAnew();
  useLive(
    useCallback(
      (heard) => {
        if (heard.some(({ what, isMine }) => what === 'entries' && !isMine)) askAnew();
      },
      [askAnew],
    ),
  );
  const {
    wall,
    noSchool,
    invitations,
    hasStudents,
    firstSteps,
    away,
    parts,
    elsewhere,
    rounds,
    attention,
    entries,
    names,
    followUps,
  } = loaderData;
  const first = firstOf(parts);
  const waiting = useWaiting().list.length;
  return (
    <Page
      marginName={todayWords.whatCameInToday}
      help="today"
      margin={
        <>
          <MarginTitle>{todayWords.whatCameInToday}</MarginTitle>
          {entries.length === 0 ? (
            <p className="text-small text-ink-2">{todayWords.nothingYetToday}</p>
          ) : (
            <MarginEntries entries={entries} today={wall.on} names={names} />
          )}
        </>
      }
    >
      <header>
        <h1 className="text-3xl">{todayWords.today}</h1>
        <p className="mt-1.5 text-small text-ink-2">
          {longDate(wall.on)} · {wall.time}
          {waiting > 0 && todayWords.toBeSent(counted(waiting, todayWords.recordWaits, todayWords.recordsWait))}
        </p>
      </header>
      {invitations > 0 && (
        <p className="mt-4 rounded-box bg-clay-wash px-4 py-3">
          {todayWords.youAreAskedToJoin}
          {counted(invitations, todayWords.supportTeam, todayWords.supportTeams)}.{' '}
          <Link to="/account" className="font-semibold link">
            {todayWords.answer}
          </Link>
        </p>
      )}
      <FirstSteps steps={firstSteps} />
      {!hasStudents ? (
        <p className="py-10 text-ink-2">{todayWords.youAreNotOnAny}</p>
      ) : (
        <>
          {noSchool ? (
            <p className="py-8 text-ink-2">{todayWords.noSchoolToday(noSchool)}</p>
          ) : (
            <Next parts={first} elsewhere={elsewhere} />
          )}
          <DueFollowUps {...followUps} />
          {away.length > 0 && (
            <p className="mt-4 text-small text-ink-2">
              {todayWords.awayToday}
              {away.map(({ id, name }, i) => (
                <Fragment key={id}>
                  {i > 0 && ', '}
                  <Link to={`/students/${id}/absences`} className="link">
                    {name}
                  </Link>
                </Fragment>
              ))}
            </p>
          )}
          {rounds.length > 0 && (
            <section className="mt-8">
              <h2 className="border-b border-rule pb-2 text-lg">{todayWords.yourRoundsToday}</h2>
              <ul>
                {rounds.map(({ id, name, startsAt, goals }) => (
                  <li key={id} className="flex items-center justify-between gap-3 border-b border-rule py-2.5">
                    <Link to={`/rounds/${id}`} className="flex grow tap items-center display text-lg hover:underline">
                      {name}
                    </Link>
                    <span className="text-small text-ink-2">
                      {[startsAt, counted(goals, 'goal', 'goals')].filter(Boolean).join(' · ')}
                    </span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          <p className="mt-4 text-small">
            <Link to="/rounds" className="text-ink-2 link">
              {rounds.length > 0 ? todayWords.allRounds : todayWords.makeARoundToObserve}
            </Link>
          </p>
          {parts
            .filter((part) => !first.includes(part))
            .map((part) => (
              <LaterPart key={`${part.from} ${part.part}`} part={part} />
            ))}
          {elsewhere.length > 0 && parts.length > 0 && (
            <section className="mt-8">
              <h2 className="border-b border-rule pb-2 text-lg">{todayWords.dueWhenItFits}</h2>
              <DueList students={elsewhere} />
            </section>
          )}
          <Attention goals={attention} />
        </>
      )}
    </Page>
  );
}

/** What is on now, or what comes first when nothing is. */
function firstOf(parts: Part[]): Part[] {
  const now = parts.filter(({ isNow }) => isNow);
  return now.length > 0 ? now : parts.filter(({ from }) => from === parts[0]?.from);
}

/** The answer in one look: what to do now, or next. */
function Next({ parts, elsewhere }: Pick<Loaded, 'parts' | 'elsewhere'>) {
  const [part] = parts;
  if (!part && elsewhere.length === 0) return <p className="py-8 text-ink-2">{todayWords.nothingIsDueToday}</p>;
  const due = part ? parts.flatMap(({ students }) => students).filter((student) => student.due.length > 0) : elsewhere;
  return (
    <section className="mt-6 rounded-box border border-rule bg-sheet p-5">
      <h2 className="text-xl">
        {part ? (part.isNow ? todayWords.now : todayWords.nextAt(part.from)) : todayWords.dueToday}
      </h2>
      <GoThrough students={due} />
      {part ? (
        parts
          .toSorted((a, b) => Number(hasDue(b)) - Number(hasDue(a)))
          .map((one) => <PartBody key={`${one.from} ${one.part}`} part={one} />)
      ) : (
        <DueList students={elsewhere} />
      )}
    </section>
  );
}

const hasDue = ({ students }: Part) => students.some(({ due }) => due.length > 0);

/** A part of the day that comes later. */
function LaterPart({ part }: { part: Part }) {
  return (
    <section className="mt-8">
      <h2 className="sr-only">{todayWords.at(part.part, part.from)}</h2>
      <div className="border-b border-rule" />
      <PartBody part={part} />
    </section>
  );
}
