import { feedbackSaid } from '~/core/desk/feedback';
import { sayFeedback } from '~/server/desk/feedback';
import { database } from '~/server/platform/db/current';
import { onlySent, takes } from '../takes';

/** Takes what a student says at their desk to one who presents. */
export const action = takes(feedbackSaid, (desk, said) =>
  sayFeedback(database(), desk, said, { now: desk.now, timeZone: desk.school.timeZone }),
);

export const loader = onlySent;
