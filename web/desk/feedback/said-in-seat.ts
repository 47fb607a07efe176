import { feedbackSaid } from '~/core/desk/feedback';
import { sayFeedback } from '~/server/desk/feedback';
import { database } from '~/server/platform/db/current';
import { NotFound } from '~/server/platform/failures';
import type { AtDesk } from '../at-desk';
import { onlySent, taking } from '../takes';
import { seatFor, withErrorsInSeat } from './at-seat';

/** Takes what one of a class says to one who presents; for the presentation to whose code they came, and no other. */
export const action = withErrorsInSeat(async ({ request }: AtDesk, open) => {
  const seat = seatFor(request, open);
  return taking(request, feedbackSaid, async (said) => {
    if (said.presentationId !== seat.presentationId) throw new NotFound('No such presentation.');
    await sayFeedback(database(), seat, said, { now: seat.now, timeZone: seat.school.timeZone });
  });
});

export const loader = onlySent;
