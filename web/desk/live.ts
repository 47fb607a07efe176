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
    of: actor.personId,
    signal: request.signal,
    begin: (send, end) =>
      listenLive((told) => {
        if ('personId' in told) {
          // Who may see what is looked up anew when the browser asks again, if it still may.
          if (told.personId === actor.personId) end();
        } else if (known.has(told.studentId)) {
          send({ studentId: told.studentId, what: told.what, isMine: told.by === actor.personId });
        }
      }),
  });
});
