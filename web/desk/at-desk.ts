import { data, type RouterContextProvider } from 'react-router';
import { type WallTime, wallTime } from '~/core/calendar/zone';
import { type OpenDesk, resumeDesk } from '~/server/desk/cards';
import { now } from '~/server/platform/clock';
import { asking, database } from '~/server/platform/db/current';
import type { School } from '~/server/school/school';
import { doorOf } from '~/server/sharing/doors';
import { deskCookie } from '../platform/http/cookies';
import { withFailures } from '../platform/http/failure-answer';
import { demoIsOpen } from '../platform/http/local-path';

interface AtDesk {
  request: Request;
  context: Readonly<RouterContextProvider>;
}

/** The open desk, at this moment. */
export interface Desk extends OpenDesk {
  school: School;
  wall: WallTime;
  now: Date;
}

/**
 * A loader or action of the desk: in one transaction that sees the one student whose card opened it.
 *
 * @param handler  what it does; with null where no desk is open in this browser
 */
export const withErrorsAtDesk = <Args extends AtDesk, Result>(
  handler: (args: Args, desk: Desk | null) => Promise<Result>,
): ((args: Args) => Promise<Result>) =>
  withFailures(async (args: Args) => {
    const token: unknown = await deskCookie.parse(args.request.headers.get('Cookie'));
    const door = typeof token === 'string' && token !== '' ? await doorOf(database(), token) : null;
    if (!door || typeof token !== 'string' || (door.school.isDemo && !demoIsOpen)) return handler(args, null);
    return asking({ doorTo: door.studentId }, async () => {
      const at = now();
      const open = await resumeDesk(database(), token, at);
      const { school } = door;
      return handler(args, open && { ...open, school, wall: wallTime(at, school.timeZone), now: at });
    });
  });

/** The answer where no desk is open. */
export const noDesk = () => data(null, { status: 401 });
