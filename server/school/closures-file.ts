import ICAL from 'ical.js';
import { addDays, dayNumber, type IsoDate } from '~/core/calendar/iso-date';
import { type ClosuresInput, type FoundClosure, MOST_CALENDAR_BYTES } from '~/core/school/closures-input';
import type { Database } from '../platform/db/database';
import { Invalid } from '../platform/failures';
import type { SchoolAdmin } from './administrators';
import { saveSchool, schoolInForm } from './set-up';

/** A school has fewer days off than that in the years of a calendar. */
const MOST_FOUND = 200;
/** What repeats is told so often from today on, and followed so far from where it began. */
const MOST_REPEATS = 60;
const MOST_FOLLOWED = 2000;
const LONGEST_LABEL = 60;

interface FoundClosures {
  closures: FoundClosure[];
  /** Events with an hour of the day, which close no school. */
  passedOver: number;
}

/**
 * The whole days of a calendar (iCalendar, RFC 5545) from a day on: each may be one on which the school is closed. What repeats is
 * told apart, day by day; what has an hour is passed over.
 *
 * @throws Invalid at `file` for what is no calendar, or has no whole day
 */
export function closuresIn(bytes: Buffer, from: IsoDate): FoundClosures {
  if (bytes.length > MOST_CALENDAR_BYTES) throw new Invalid({ file: 'The file is larger than 2 MB.' });
  const found: FoundClosure[] = [];
  let passedOver = 0;
  try {
    const calendar = new ICAL.Component(ICAL.parse(bytes.toString('utf8')));
    for (const component of calendar.getAllSubcomponents('vevent')) {
      const event = new ICAL.Event(component);
      if (event.startDate?.isDate) found.push(...closuresOf(event, from));
      else passedOver++;
    }
  } catch {
    throw new Invalid({ file: 'This is no calendar (ICS), or it is damaged.' });
  }
  const closures = [...new Map(found.map((one) => [JSON.stringify(one), one])).values()]
    .sort((a, b) => a.first.localeCompare(b.first))
    .slice(0, MOST_FOUND);
  if (closures.length === 0) throw new Invalid({ file: 'There is no whole day in it from today on.' });
  return { closures, passedOver };
}

/** The end of a whole-day event is the day after it; without one it is a day long (RFC 5545, 3.6.1). What is over is left out. */
function closuresOf(event: ICAL.Event, from: IsoDate): FoundClosure[] {
  const dayOf = (time: ICAL.Time) => time.toString().slice(0, 10);
  const first = dayOf(event.startDate);
  // The package rolls a day over that there is not.
  if (event.component.getFirstProperty('dtstart')?.toJSON()[3] !== first) throw new Error('No such day.');
  const end = event.endDate ? dayOf(event.endDate) : first;
  const days = Math.max(1, dayNumber(end) - dayNumber(first));
  const label = (event.summary ?? '').trim().slice(0, LONGEST_LABEL) || 'Closed';
  const closure = (on: IsoDate) => ({ first: on, last: addDays(on, days - 1), label });
  const isAhead = ({ last }: FoundClosure) => last >= from;
  if (!event.isRecurring()) return [closure(first)].filter(isAhead);
  const repeats = event.iterator();
  const ahead: FoundClosure[] = [];
  for (let n = 0; n < MOST_FOLLOWED && ahead.length < MOST_REPEATS; n++) {
    const next = repeats.next();
    if (!next) break;
    ahead.push(...[closure(dayOf(next))].filter(isAhead));
  }
  return ahead;
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
