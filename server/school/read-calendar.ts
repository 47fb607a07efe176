// Runs in a thread: what others made is taken apart here.
import ICAL from 'ical.js';
import { addDays, dayNumber, type IsoDate } from '~/core/calendar/iso-date';
import type { FoundClosure } from '~/core/school/closures-input';
import { Invalid } from '../platform/failures';
import type { FoundClosures } from './closures-file';

/** A school has fewer days off than that in the years of a calendar. */
const MOST_FOUND = 200;
/** What repeats is told so often from today on, and followed so far from where it began. */
const MOST_REPEATS = 60;
const MOST_FOLLOWED = 2000;
/** All together are followed no further: a school's calendar has a few that repeat. */
const MOST_STEPS = 200_000;
const LONGEST_LABEL = 60;

interface CalendarAsked {
  text: string;
  from: IsoDate;
}

/** The task behind `closuresIn`. @throws Invalid at `file` */
export function readCalendar({ text, from }: CalendarAsked): FoundClosures {
  const found: FoundClosure[] = [];
  const steps = { left: MOST_STEPS };
  let passedOver = 0;
  try {
    const calendar = new ICAL.Component(ICAL.parse(text));
    for (const component of calendar.getAllSubcomponents('vevent')) {
      const event = new ICAL.Event(component);
      if (event.startDate?.isDate) found.push(...closuresOf(event, from, steps));
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
function closuresOf(event: ICAL.Event, from: IsoDate, steps: { left: number }): FoundClosure[] {
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
    if (--steps.left < 0) throw new Error('It repeats without end.');
    const next = repeats.next();
    if (!next) break;
    ahead.push(...[closure(dayOf(next))].filter(isAhead));
  }
  return ahead;
}
