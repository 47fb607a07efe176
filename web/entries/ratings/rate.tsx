import { data } from 'react-router';
import { findRating, rateByLink } from '~/server/entries/ratings/ratings';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import type { Door } from '~/server/sharing/doors';
import { closed, withErrorsAtDoor } from '../../platform/http/at-door';
import { formOf } from '../../platform/http/form-of';
import type { Route } from './+types/rate';
import { RateForm } from './rate-form';
import { readRating } from './read-rating';
import { rateWords } from './words';

async function mustBeAsked({ params, context }: Route.LoaderArgs | Route.ActionArgs, { school }: Door) {
  const found = await findRating(database(), params.token, now());
  if (!found) throw await closed(context);
  return { ...found, schoolName: school.name };
}

export const loader = withErrorsAtDoor(async (args: Route.LoaderArgs, door) => {
  const { title, rubric, schoolName } = await mustBeAsked(args, door);
  return { title, rubric, schoolName };
});

export const action = withErrorsAtDoor(async (args: Route.ActionArgs, door) => {
  const found = await mustBeAsked(args, door);
  const read = readRating(await formOf(args.request), found.rubric);
  if ('message' in read) return data({ message: read.message, isDone: false }, { status: 400 });
  await rateByLink(database(), found, read.rating, now());
  return data({ message: undefined, isDone: true });
});

// A link works once: after it was used there is nothing to fetch again.
export const shouldRevalidate = () => false;

export const meta: Route.MetaFunction = () => [
  { title: rateWords.rateAWorkSample },
  { name: 'robots', content: 'noindex, nofollow' },
];

/** For a peer or the student: the work sample and its rubric, and nothing of whose it is. */
export default function Rate({ loaderData: { title, rubric, schoolName }, actionData }: Route.ComponentProps) {
  return (
    <main className="mx-auto max-w-2xl px-5 py-10">
      <div className="border-l-2 border-clay pl-5">
        <p className="text-small text-ink-2">{schoolName}</p>
        <h1 className="text-2xl">{title}</h1>
        {actionData?.isDone ? (
          <p role="status" className="mt-4">
            {rateWords.thankYouYourRatingIs}
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
