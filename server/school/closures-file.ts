import type { IsoDate } from '~/core/calendar/iso-date';
import { type ClosuresInput, type FoundClosure, MOST_CALENDAR_BYTES } from '~/core/school/closures-input';
import type { Database } from '../platform/db/database';
import { Invalid } from '../platform/failures';
import { inThread, TooMuchWork } from '../platform/threads';
import type { SchoolAdmin } from './administrators';
import { saveSchool, schoolInForm } from './set-up';

export interface FoundClosures {
  closures: FoundClosure[];
  /** Events with an hour of the day, which close no school. */
  passedOver: number;
}

const found = inThread<{ text: string; from: IsoDate }, FoundClosures>('readCalendar', {
  seconds: 8,
  isReading: true,
});

/**
 * The whole days of a calendar (iCalendar, RFC 5545) from a day on: each may be one on which the school is closed. What repeats is
 * told apart, day by day; what has an hour is passed over. It is taken apart in a thread.
 *
 * @throws Invalid at `file` for what is no calendar, has no whole day, or repeats without end; Busy
 */
export async function closuresIn(bytes: Buffer, from: IsoDate): Promise<FoundClosures> {
  if (bytes.length > MOST_CALENDAR_BYTES) throw new Invalid({ file: 'The file is larger than 2 MB.' });
  return found({ text: bytes.toString('utf8'), from }).catch((error) => {
    if (error instanceof TooMuchWork) throw new Invalid({ file: 'This calendar takes too long to be read.' });
    throw error;
  });
}

/**
 * Adds closures to those of the school; one that is there already is not doubled.
 *
 * @returns how many are new
 */
export async function addClosures(
  db: Database,
  admin: SchoolAdmin,
  { closures }: ClosuresInput,
  now: Date,
): Promise<number> {
  return db.transaction(async (trx) => {
    const school = await schoolInForm(trx, admin);
    const key = ({ first, last }: FoundClosure) => `${first} ${last}`;
    const there = new Set(school.closures.map(key));
    const added = closures.filter((one) => one.isWanted && !there.has(key(one)));
    if (added.length === 0) return 0;
    const all = [...school.closures, ...added.map(({ isWanted: _, ...one }) => one)];
    await saveSchool(trx, admin, { ...school, closures: all.sort((a, b) => a.first.localeCompare(b.first)) }, now);
    return added.length;
  });
}
