import { logSaid } from '~/core/desk/log';
import { saveLog } from '~/server/desk/log';
import { database } from '~/server/platform/db/current';
import { onlySent, takes } from './takes';

/** Takes what a student enters in their log. */
export const action = takes(logSaid, (desk, said) =>
  saveLog(database(), desk, said, { wall: desk.wall, now: desk.now, timeZone: desk.school.timeZone }),
);

export const loader = onlySent;
