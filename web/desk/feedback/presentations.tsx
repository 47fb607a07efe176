import { Link } from 'react-router';
import { shortDate } from '~/core/calendar/iso-date';
import { wallTime } from '~/core/calendar/zone';
import { presentationsOf } from '~/server/desk/presentations';
import { database } from '~/server/platform/db/current';
import { personOf } from '../../platform/http/request-person';
import { withErrors } from '../../platform/http/with-errors';
import { MarginTitle, Page } from '../../platform/ui/page';
import { ClassNav } from '../../progress/class-nav';
import type { Route } from './+types/presentations';
import { presentationsWords } from './words';

export const loader = withErrors(async ({ context }: Route.LoaderArgs) => {
  const { actor, school } = personOf(context);
  return {
    presentations: (await presentationsOf(database(), actor)).map(({ id, title, isClosed, madeAt, members }) => ({
      ...{ id, title, isClosed, madeOn: wallTime(madeAt, school.timeZone).on, members: members.length },
      presenters: members.filter(({ place }) => place !== null).length,
    })),
  };
});

export const meta: Route.MetaFunction = () => [{ title: presentationsWords.pageTitle }];

/** One's presentations, in which classmates answer a form for each who presents. */
export default function Presentations({ loaderData: { presentations } }: Route.ComponentProps) {
  return (
    <Page
      marginName={presentationsWords.about}
      margin={
        <>
          <MarginTitle>{presentationsWords.about}</MarginTitle>
          <div className="grid gap-3 text-small text-ink-2">
            <p>{presentationsWords.oneCode}</p>
            <p>{presentationsWords.whereItGoes}</p>
            <p>{presentationsWords.lookThrough}</p>
          </div>
        </>
      }
    >
      <header className="flex flex-wrap items-end justify-between gap-4">
        <div>
          <h1 className="text-3xl">{presentationsWords.heading}</h1>
          <ClassNav />
        </div>
        <Link to="/class/feedback/new" className="btn btn-primary">
          {presentationsWords.newOne}
        </Link>
      </header>
      {presentations.length === 0 && <p className="max-w-xl py-10 text-ink-2">{presentationsWords.none}</p>}
      <ul className="mt-5 max-w-3xl">
        {presentations.map(({ id, title, isClosed, madeOn, members, presenters }) => (
          <li key={id} className="border-b border-dotted border-ink-3/50 py-3">
            <Link to={`/class/feedback/${id}`} className="display text-lg hover:underline">
              {title}
            </Link>
            <span className="block text-small text-ink-2">
              {[
                shortDate(madeOn),
                presentationsWords.present(presenters),
                presentationsWords.answer(members),
                isClosed && presentationsWords.closed,
              ]
                .filter(Boolean)
                .join(' · ')}
            </span>
          </li>
        ))}
      </ul>
    </Page>
  );
}
