import { Link, useFetcher } from 'react-router';
import { z } from 'zod';
import { weekdayName } from '~/core/calendar/iso-date';
import { discreetStudent } from '~/core/goals/discreet';
import { counted, listed } from '~/core/words/counting';
import { roundsOf, setRoundRemoved } from '~/server/entries/rounds/rounds';
import { database } from '~/server/platform/db/current';
import { studentsOf } from '~/server/students/students';
import { formOf } from '../../platform/http/form-of';
import { personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import type { Route } from './+types/rounds';
import { roundsWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const [rounds, students] = await Promise.all([roundsOf(database(), actor), studentsOf(database(), actor)]);
  const names = new Map<string, string>(
    students.map((student) => [student.id, (discreet ? discreetStudent(student) : student).shortName]),
  );
  return {
    rounds: rounds.map(({ goals, ...round }) => ({
      ...round,
      goals: goals.length,
      students: [...new Set(goals.map(({ studentId }) => names.get(studentId) ?? ''))],
    })),
  };
});

const change = z.object({ id: z.uuid(), intent: z.enum(['remove', 'putBack']) });

export const action = withErrors(async ({ request, context }: Route.ActionArgs) => {
  const { actor, now } = personOf(context);
  const parsed = change.safeParse(Object.fromEntries(await formOf(request)));
  if (!parsed.success) return { removed: null };
  const { id, intent } = parsed.data;
  await setRoundRemoved(database(), actor, { id, isRemoved: intent === 'remove' }, now);
  return { removed: intent === 'remove' ? id : null };
});

export const meta: Route.MetaFunction = () => [{ title: roundsWords.pageTitle }];

export default function Rounds({ loaderData: { rounds } }: Route.ComponentProps) {
  const fetcher = useFetcher<typeof action>();
  const removed = fetcher.data?.removed;
  return (
    <Page
      marginName={roundsWords.aboutRounds}
      help="rounds"
      margin={
        <>
          <MarginTitle>{roundsWords.aboutRounds}</MarginTitle>
          <p className="text-small text-ink-2">{roundsWords.severalStudentsAndGoalsIn}</p>
        </>
      }
    >
      <header className="flex flex-wrap items-end justify-between gap-4">
        <h1 className="text-3xl">{roundsWords.rounds}</h1>
        <Link to="/rounds/new" className="btn btn-primary px-5 text-base">
          {roundsWords.makeARound}
        </Link>
      </header>
      {removed && (
        <fetcher.Form method="post" className="mt-4 flex items-center gap-3 text-small">
          <p role="status">{roundsWords.theRoundIsRemoved}</p>
          <input type="hidden" name="id" value={removed} />
          <button type="submit" name="intent" value="putBack" className="btn btn-sm">
            {roundsWords.putItBack}
          </button>
        </fetcher.Form>
      )}
      {rounds.length === 0 && <p className="py-10 text-ink-2">{roundsWords.noRoundIsKeptYet}</p>}
      <ul className="mt-4 pb-16">
        {rounds.map(({ id, name, weekday, startsAt, goals, students }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-rule py-3">
            <span className="min-w-0 grow basis-72">
              <Link to={`/rounds/${id}`} className="display text-xl hover:underline">
                {name}
              </Link>
              <span className="block text-small text-ink-2">
                {[weekday && `${weekdayName(weekday)}s`, startsAt, counted(goals, 'goal', 'goals'), listed(students)]
                  .filter(Boolean)
                  .join(' · ')}
              </span>
            </span>
            <Link to={`/rounds/${id}`} aria-label={roundsWords.goThrough(name)} className="btn btn-primary">
              {roundsWords.goThroughIt}
            </Link>
            <Link to={`/rounds/${id}/sheet`} reloadDocument aria-label={roundsWords.sheetOf(name)} className="btn">
              {roundsWords.sheet}
            </Link>
            <Link to={`/rounds/${id}/edit`} aria-label={roundsWords.editNamed(name)} className="btn">
              {roundsWords.edit}
            </Link>
            <fetcher.Form method="post">
              <input type="hidden" name="id" value={id} />
              <button
                type="submit"
                name="intent"
                value="remove"
                aria-label={roundsWords.removeNamed(name)}
                className="btn"
              >
                {roundsWords.remove}
              </button>
            </fetcher.Form>
          </li>
        ))}
      </ul>
    </Page>
  );
}
