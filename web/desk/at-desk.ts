import { data, type RouterContextProvider } from 'react-router';
import { type WallTime, wallTime } from '~/core/calendar/zone';
import { leaveDesk, type OpenDesk, resumeDesk, studentAtDesk } from '~/server/desk/cards';
import { now } from '~/server/platform/clock';
import { asking, database } from '~/server/platform/db/current';
import { deskCookie } from '../platform/http/cookies';
import { demoIsOpen } from '../platform/http/demo-open';
import { withFailures } from '../platform/http/failure-answer';

/** What a loader or action of the desk is given. */
export interface AtDesk {
  request: Request;
  context: Readonly<RouterContextProvider>;
}

/** The open desk, at this moment. */
export interface Desk extends OpenDesk {
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
    const studentId = typeof token === 'string' && token !== '' ? await studentAtDesk(database(), token) : null;
    if (!studentId || typeof token !== 'string') return handler(args, null);
    return asking({ doorTo: studentId }, async () => {
      const at = now();
      const open = await resumeDesk(database(), token, at);
      // Whoever knows the demo's cards may sit down only where the demo is open.
      if (!open || (open.school.isDemo && !demoIsOpen)) return handler(args, null);
      return handler(args, { ...open, wall: wallTime(at, open.school.timeZone), now: at });
    });
  });

/**
 * The desk to which something is sent, which says whose it is.
 *
 * @throws 401 where no desk is open, or somebody else's
 */
export function deskFor(request: Request, desk: Desk | null): Desk {
  const of = new URL(request.url).searchParams.get('of');
  if (!desk || desk.studentId !== of) throw data(null, { status: 401 });
  return desk;
}

/** Puts the desk away that stands open in this browser, if one does: whoever sits down next, the one before has got up. */
export const leaveOpenDesk = withErrorsAtDesk(async (_: AtDesk, desk) => {
  if (desk) await leaveDesk(database(), desk, desk.now);
});
