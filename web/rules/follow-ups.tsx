import { Link, useSearchParams } from 'react-router';
import { discreetStudent } from '~/core/goals/discreet';
import { database } from '~/server/platform/db/current';
import { followUpsOf } from '~/server/rules/follow-ups';
import { studentsOf } from '~/server/students/students';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import { MarginTitle, Page } from '../platform/ui/page';
import type { Route } from './+types/follow-ups';
import { FollowUpList } from './follow-up-list';
import { shownFollowUps } from './follow-up-view';
import { teamsOf } from './teams';
import { followUpsWords } from './words';

/** Of those that are done as many are listed. */
const MOST_DONE = 100;

export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const search = new URL(request.url).searchParams;
  const isOfAll = search.get('of') === 'all';
  const isDone = search.has('done');
  const students = await studentsOf(database(), actor);
  const names = new Map(
    students.map((student) => [String(student.id), (discreet ? discreetStudent(student) : student).shortName]),
  );
  const found = await followUpsOf(
    database(),
    students.map(({ id }) => id),
    { isDone, forPerson: isOfAll ? undefined : actor.personId, ...(isDone && { limit: MOST_DONE }) },
  );
  return {
    ...{ isOfAll, isDone },
    followUps: await shownFollowUps(database(), found, {
      ...{ today: actor.today, timeZone: school.timeZone, discreet, names },
    }),
    teams: await teamsOf(database(), students, found, actor.today),
  };
});

export const meta: Route.MetaFunction = () => [{ title: followUpsWords.pageTitle }];

/** What is to be done, for whoever is signed in, or of all their students. */
export default function FollowUps({ loaderData: { isOfAll, isDone, followUps, teams } }: Route.ComponentProps) {
  const [search] = useSearchParams();
  const to = (changes: Record<string, string | null>) => {
    const next = new URLSearchParams(search);
    for (const [key, value] of Object.entries(changes)) {
      if (value === null) next.delete(key);
      else next.set(key, value);
    }
    return `/follow-ups?${next}`;
  };
  const views = [
    { label: followUpsWords.forMe, to: to({ of: null }), isNow: !isOfAll },
    { label: followUpsWords.forAll, to: to({ of: 'all' }), isNow: isOfAll },
    { label: followUpsWords.open, to: to({ done: null }), isNow: !isDone },
    { label: followUpsWords.done, to: to({ done: '1' }), isNow: isDone },
  ];
  return (
    <Page marginName={followUpsWords.about} margin={<AboutFollowUps />}>
      <header className="flex flex-wrap items-end justify-between gap-4">
        <h1 className="text-3xl">{followUpsWords.followUps}</h1>
        <a href="/follow-ups.ics" download className="btn">
          {followUpsWords.calendar}
        </a>
      </header>
      <nav aria-label={followUpsWords.filter} className="mt-4 flex flex-wrap gap-x-5 gap-y-1 text-small">
        {views.map(({ label, to: address, isNow }) => (
          <Link
            key={label}
            to={address}
            aria-current={isNow ? 'true' : undefined}
            className="tap flex items-center text-ink-2 underline-offset-4 aria-[current=true]:font-bold aria-[current=true]:text-ink aria-[current=true]:underline"
          >
            {label}
          </Link>
        ))}
      </nav>
      {followUps.length === 0 && (
        <p className="max-w-xl pt-5 text-ink-2">{isDone ? followUpsWords.noneDone : followUpsWords.noneOpen}</p>
      )}
      <FollowUpList followUps={followUps} namesStudents teams={teams} />
    </Page>
  );
}

/** What follow-ups are, in the margin. */
export function AboutFollowUps() {
  return (
    <>
      <MarginTitle>{followUpsWords.about}</MarginTitle>
      <div className="grid gap-3 text-small text-ink-2">
        <p>{followUpsWords.aboutWhat}</p>
        <p>{followUpsWords.aboutDone}</p>
        <p>{followUpsWords.aboutReminder}</p>
        <p>
          <Link to="/rules" className="link">
            {followUpsWords.rules}
          </Link>
        </p>
      </div>
    </>
  );
}
