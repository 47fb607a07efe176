import { data } from 'react-router';
import { countUnknownLink, mayOpenLink } from '~/server/access/attempts';
import { doorOf } from '~/server/access/doors';
import { now } from '~/server/clock';
import { database } from '~/server/db/current';
import { findRating, rateByLink } from '~/server/ratings/ratings';
import { answering } from '../http/answering';
import { addressContext } from '../http/context';
import { formOf } from '../http/form-of';
import type { Route } from './+types/rate';
import { RateForm } from './rate-form';
import { readRating } from './read-rating';

async function mustBeAsked({ params, context }: Route.LoaderArgs | Route.ActionArgs) {
  const address = context.get(addressContext);
  if (!(await mayOpenLink(database(), address))) throw data(null, { status: 429 });
  const door = await doorOf(database(), params.token);
  const found = door && (await findRating(database(), params.token, now()));
  if (found) return { ...found, schoolName: door.school.name };
  await countUnknownLink(database(), address);
  throw data(null, { status: 404 });
}

export const loader = answering(async (args: Route.LoaderArgs) => {
  const { title, rubric, schoolName } = await mustBeAsked(args);
  return { title, rubric, schoolName };
});

export const action = answering(async (args: Route.ActionArgs) => {
  const found = await mustBeAsked(args);
  const read = readRating(await formOf(args.request), found.rubric);
  if ('message' in read) return data({ message: read.message, isDone: false }, { status: 400 });
  await rateByLink(database(), found, read.rating, now());
  return data({ message: undefined, isDone: true });
});

// A link works once: after it was used there is nothing to fetch again.
export const shouldRevalidate = () => false;

export const meta: Route.MetaFunction = () => [
  { title: 'Rate a piece of work' },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** For a peer or the student: the piece and its rubric, and nothing of whose it is. */
export default function Rate({ loaderData: { title, rubric, schoolName }, actionData }: Route.ComponentProps) {
  return (
    <main className="mx-auto max-w-2xl px-5 py-10">
      <div className="border-l-2 border-clay pl-5">
        <p className="text-small text-ink-2">{schoolName}</p>
        <h1 className="text-2xl">{title}</h1>
        {actionData?.isDone ? (
          <p role="status" className="mt-4">
            Thank you. Your rating is in; you can close this page.
          </p>
        ) : (
          <div className="mt-5">
            <RateForm rubric={rubric} intent="rate" message={actionData?.message} />
          </div>
        )}
      </div>
    </main>
  );
}
