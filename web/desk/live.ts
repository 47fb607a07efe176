import { visibleStudents } from '~/server/desk/live';
import { database } from '~/server/platform/db/current';
import { listenLive } from '~/server/platform/live';
import { personOf, signedIn } from '../platform/http/request-person';
import { eventStream } from '../platform/http/streams';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/live';

export const middleware: Route.MiddlewareFunction[] = [signedIn];

/** That something of one's students has changed: which student, and what. What it says is asked for by whoever shows it. */
export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const { actor } = personOf(context);
  const known = new Set(await visibleStudents(database()));
  return eventStream({
    signal: request.signal,
    begin: (send) =>
      listenLive(({ studentId, what, by }) => {
        if (known.has(studentId)) send({ studentId, what, isMine: by === actor.personId });
      }),
  });
});
