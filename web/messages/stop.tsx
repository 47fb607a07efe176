import { Form, useNavigation } from 'react-router';
import { findStop, stopMessages } from '~/server/messages/frequency';
import { now } from '~/server/platform/clock';
import { database } from '~/server/platform/db/current';
import type { Door } from '~/server/sharing/doors';
import { closed, withErrorsAtDoor } from '../platform/http/at-door';
import type { Route } from './+types/stop';
import { stopWords } from './words';

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
  { title: stopWords.pageTitle },
  { name: 'robots', content: 'noindex, nofollow' },
];

export default function Stop({ loaderData: { readerName, isStopped, schoolName } }: Route.ComponentProps) {
  const isBusy = useNavigation().state !== 'idle';
  return (
    <main className="mx-auto max-w-md px-6 py-16">
      <div className="border-l-2 border-clay pl-6">
        <p className="text-small text-ink-2">{schoolName}</p>
        <h1 className="text-2xl">{isStopped ? stopWords.noMoreMessages : stopWords.stopTheseMessages}</h1>
        <p role="status" className="mt-4">
          {isStopped ? stopWords.getsNoMoreMessagesAbout(readerName) : stopWords.wouldGetNoMoreMessages(readerName)}
        </p>
        {!isStopped && (
          <Form method="post" className="mt-5">
            <button type="submit" className="btn btn-primary" disabled={isBusy}>
              {stopWords.stopThem}
            </button>
          </Form>
        )}
        {isStopped && <p className="mt-3 text-small text-ink-2">{stopWords.theCaseManagerCanBegin}</p>}
      </div>
    </main>
  );
}
