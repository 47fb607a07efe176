import { data } from 'react-router';
import { type WallTime, wallTime } from '~/core/calendar/zone';
import { resumeSeat, type Seat, studentInSeat } from '~/server/desk/seats';
import { now } from '~/server/platform/clock';
import { asking, database } from '~/server/platform/db/current';
import { seatCookie } from '../../platform/http/cookies';
import { demoIsOpen } from '../../platform/http/demo-open';
import { withFailures } from '../../platform/http/failure-answer';
import type { AtDesk } from '../at-desk';

/** The seat, at this moment. */
export interface OpenSeat extends Seat {
  wall: WallTime;
  now: Date;
}

/**
 * A loader or action for one of a class at a seat: in one transaction that sees that one student.
 *
 * @param handler  what it does; with null where nobody sits in this browser
 */
export const withErrorsInSeat = <Args extends AtDesk, Result>(
  handler: (args: Args, seat: OpenSeat | null) => Promise<Result>,
): ((args: Args) => Promise<Result>) =>
  withFailures(async (args: Args) => {
    const token: unknown = await seatCookie.parse(args.request.headers.get('Cookie'));
    const studentId = typeof token === 'string' && token !== '' ? await studentInSeat(database(), token) : null;
    if (!studentId || typeof token !== 'string') return handler(args, null);
    return asking({ doorTo: studentId }, async () => {
      const at = now();
      const seat = await resumeSeat(database(), token, at);
      if (!seat || (seat.school.isDemo && !demoIsOpen)) return handler(args, null);
      return handler(args, { ...seat, wall: wallTime(at, seat.school.timeZone), now: at });
    });
  });

/** The seat at which something is sent, which says whose it is. @throws 401 where nobody sits, or somebody else */
export function seatFor(request: Request, seat: OpenSeat | null): OpenSeat {
  if (!seat || new URL(request.url).searchParams.get('of') !== seat.studentId) throw data(null, { status: 401 });
  return seat;
}
