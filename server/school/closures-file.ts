import ICAL from 'ical.js';
import { addDays, type IsoDate } from '~/core/calendar/iso-date';
import type { ClosuresInput, FoundClosure } from '~/core/school/closures-input';
import type { Database } from '../platform/db/database';
import { Invalid } from '../platform/failures';
import type { SchoolAdmin } from './administrators';
import { saveSchool, schoolInForm } from './set-up';

const MOST_BYTES = 2 * 1024 * 1024;
/** A school has fewer days off than that in the years of a calendar. */
const MOST_FOUND = 200;
/** What repeats is followed so far. */
const MOST_REPEATS = 60;
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
  if (bytes.length > MOST_BYTES) throw new Invalid({ file: 'The file is larger than 2 MB.' });
  let events: ICAL.Event[];
  try {
    const calendar = new ICAL.Component(ICAL.parse(bytes.toString('utf8')));
    events = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one));
  } catch {
    throw new Invalid({ file: 'This is no calendar (ICS), or it is damaged.' });
  }
  const found: FoundClosure[] = [];
  let passedOver = 0;
  for (const event of events) {
    if (!event.startDate?.isDate) {
      passedOver++;
      continue;
    }
    const label = (event.summary ?? '').trim().slice(0, LONGEST_LABEL) || 'Closed';
    for (const { first, last } of stretchesOf(event)) {
      if (last >= from) found.push({ first, last, label });
    }
  }
  const closures = [...new Map(found.map((one) => [JSON.stringify(one), one])).values()]
    .sort((a, b) => a.first.localeCompare(b.first))
    .slice(0, MOST_FOUND);
  if (closures.length === 0) throw new Invalid({ file: 'There is no whole day in it from today on.' });
  return { closures, passedOver };
}

/** The end of a whole-day event is the day after it; without one it is a day long (RFC 5545, 3.6.1). */
function stretchesOf(event: ICAL.Event): { first: IsoDate; last: IsoDate }[] {
  const dayOf = (time: ICAL.Time) => time.toString().slice(0, 10);
  const first = dayOf(event.startDate);
  const end = event.endDate ? dayOf(event.endDate) : first;
  const days = Math.max(1, Math.round((Date.parse(end) - Date.parse(first)) / 86_400_000));
  const stretch = (on: IsoDate) => ({ first: on, last: addDays(on, days - 1) });
  if (!event.isRecurring()) return [stretch(first)];
  const repeats = event.iterator();
  const all: { first: IsoDate; last: IsoDate }[] = [];
  for (let next = repeats.next(); next && all.length < MOST_REPEATS; next = repeats.next())
    all.push(stretch(dayOf(next)));
  return all;
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
