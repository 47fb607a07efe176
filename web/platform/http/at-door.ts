import { data, type RouterContextProvider } from 'react-router';
import { canOpenLink, countUnknownLink } from '~/server/people/attempts';
import { asking, database } from '~/server/platform/db/current';
import { type Door, doorOf } from '~/server/sharing/doors';
import { withFailures } from './failure-answer';
import { addressContext } from './security';

interface AtDoor {
  params: { token: string };
  context: Readonly<RouterContextProvider>;
}

/**
 * A loader or action for whoever comes by a link: in one transaction that sees the one student to whom it leads. A link that was
 * never given out is a 404 and is counted; who has tried too many is answered 429.
 */
export const withErrorsAtDoor = <Args extends AtDoor, Result>(
  handler: (args: Args, door: Door) => Promise<Result>,
): ((args: Args) => Promise<Result>) =>
  withFailures(async (args: Args) => {
    const address = args.context.get(addressContext);
    if (!(await canOpenLink(database(), address))) throw data(null, { status: 429 });
    const door = await doorOf(database(), args.params.token);
    if (!door) throw await closed(args.context);
    return asking({ doorTo: door.studentId }, () => handler(args, door));
  });

/** The answer for a link that opens nothing, or nothing any more; it is counted. */
export async function closed(context: AtDoor['context']): Promise<unknown> {
  await countUnknownLink(database(), context.get(addressContext));
  return data(null, { status: 404 });
}
