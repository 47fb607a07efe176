import { Form, useNavigation } from 'react-router';
import { findStop, stopMessages } from '~/server/messages/frequency';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import type { Door } from '~/server/sharing/doors';
import { closed, withErrorsAtDoor } from '../platform/http/at-door';
import type { Route } from './+types/stop';

async function mustBeKnown({ params, context }: Route.LoaderArgs | Route.ActionArgs, { school }: Door) {
  const stop = await findStop(database(), params.token);
  if (!stop) throw await closed(context);
  return { ...stop, schoolName: school.name };
}

export const loader = withErrorsAtDoor(mustBeKnown);

/** Also what a mail program sends by itself when its own “unsubscribe” is pressed. */
export const action = withErrorsAtDoor(async (args: Route.ActionArgs, door) => {
  await mustBeKnown(args, door);
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
            ? `${readerName} gets no more messages about this report. The share link still works.`
            : `${readerName} would get no more messages about this report. The share link still works.`}
        </p>
        {!isStopped && (
          <Form method="post" className="mt-5">
            <button type="submit" className="btn btn-primary" disabled={isBusy}>
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
