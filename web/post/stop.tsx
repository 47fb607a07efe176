import { data, Form, useNavigation } from 'react-router';
import { countUnknownLink, mayOpenLink } from '~/server/access/attempts';
import { doorOf } from '~/server/access/doors';
import { now } from '~/server/clock';
import { database } from '~/server/db/current';
import { findStop, stopMessages } from '~/server/post/told';
import { answering } from '../http/answering';
import { addressContext } from '../http/context';
import type { Route } from './+types/stop';

async function mustBeKnown({ params, context }: Route.LoaderArgs | Route.ActionArgs) {
  const address = context.get(addressContext);
  if (!(await mayOpenLink(database(), address))) throw data(null, { status: 429 });
  const door = await doorOf(database(), params.token);
  const stop = door && (await findStop(database(), params.token));
  if (stop) return { ...stop, schoolName: door.school.name };
  await countUnknownLink(database(), address);
  throw data(null, { status: 404 });
}

export const loader = answering((args: Route.LoaderArgs) => mustBeKnown(args));

/** Also what a mail program sends by itself when its own “unsubscribe” is pressed. */
export const action = answering(async (args: Route.ActionArgs) => {
  await mustBeKnown(args);
  await stopMessages(database(), args.params.token, now());
  return null;
});

export const meta: Route.MetaFunction = () => [
  { title: 'No more messages · Gentle Margin' },
  { name: 'robots', content: 'noindex, nofollow' },
];

export default function Stop({ loaderData: { readerName, isStopped, schoolName } }: Route.ComponentProps) {
  const isBusy = useNavigation().state !== 'idle';
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <div className="border-l-2 border-clay pl-6">
        <p className="text-small text-ink-2">{schoolName}</p>
        <h1 className="text-2xl">{isStopped ? 'No more messages' : 'Stop these messages?'}</h1>
        <p role="status" className="mt-4">
          {isStopped
            ? `${readerName} gets no more messages about this report. The way in to it stays open.`
            : `${readerName} would get no more messages about this report. The way in to it stays open.`}
        </p>
        {!isStopped && (
          <Form method="post" className="mt-5">
            <button type="submit" className="btn btn-primary h-11" disabled={isBusy}>
              Stop them
            </button>
          </Form>
        )}
        {isStopped && (
          <p className="mt-3 text-small text-ink-2">The case manager can begin them again when you ask for it.</p>
        )}
      </div>
    </main>
  );
}
