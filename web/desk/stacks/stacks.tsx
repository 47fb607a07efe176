import { Link } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { sum } from '~/core/statistics/spread';
import { stacksOf } from '~/server/entries/ratings/stacks';
import { database } from '~/server/platform/db/current';
import { personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import { ClassNav } from '../../progress/class-nav';
import type { Route } from './+types/stacks';
import { stacksWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, school } = personOf(context);
  return {
    stacks: (await stacksOf(database(), actor)).map(({ id, title, isClosed, madeAt, raters, samples }) => ({
      ...{ id, title, isClosed, madeOn: wallTime(madeAt, school.timeZone).on },
      ...{ samples: samples.length, raters: raters.length },
      rated: sum(raters.map((rater) => rater.rated)),
      turns: sum(raters.map((rater) => rater.turns)),
    })),
  };
});

export const meta: Route.MetaFunction = () => [{ title: stacksWords.pageTitle }];

/** One's stacks of work samples, each rated by several people. */
export default function Stacks({ loaderData: { stacks } }: Route.ComponentProps) {
  return (
    <Page
      marginName={stacksWords.about}
      margin={
        <>
          <MarginTitle>{stacksWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{stacksWords.spread}</p>
            <p>{stacksWords.whatRatersSee}</p>
            <p>{stacksWords.afterwards}</p>
          </div>
        </>
      }
    >
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl">{stacksWords.heading}</h1>
          <ClassNav />
        </div>
        <Link to="/class/work-samples/new" className="btn btn-primary">
          {stacksWords.newOne}
        </Link>
      </header>
      {stacks.length === 0 && <p className="max-w-xl py-10 text-ink-2">{stacksWords.none}</p>}
      <ul className="mt-5 max-w-3xl">
        {stacks.map(({ id, title, isClosed, madeOn, samples, raters, rated, turns }) => (
          <li key={id} className="border-b border-dotted border-ink-3/50 py-3">
            <Link to={`/class/work-samples/${id}`} className="display text-lg hover:underline">
              {title}
            </Link>
            <span className="block text-small text-ink-2">
              {[
                shortDate(madeOn),
                stacksWords.samples(samples),
                stacksWords.raters(raters),
                isClosed ? stacksWords.closed : stacksWords.rated(rated, turns),
              ].join(' · ')}
            </span>
          </li>
        ))}
      </ul>
    </Page>
  );
}
