import { addDays, type IsoDate } from '../calendar/iso-date';
import { isSchoolDay, type SchoolCalendar } from '../calendar/school-days';
import { plainName } from '../entries/incidents/choice';
import type { CountFacts, EntryFacts, IncidentFacts } from './facts';
import type { RuleWhen } from './rule';

type Often = Extract<RuleWhen, { trigger: 'often' }>;

/** Longer ago than this no window begins, whatever is closed in between. */
const LONGEST = 366;

/**
 * The first day of a window of so many school days that ends on a date, which counts when it is one.
 *
 * @example windowStart('2026-11-23', 2, everyWeekday) // '2026-11-20', the Friday before
 */
export function windowStart(ends: IsoDate, days: number, calendar: SchoolCalendar): IsoDate {
  let left = days;
  for (let back = 0; back < LONGEST; back++) {
    const date = addDays(ends, -back);
    if (isSchoolDay(date, calendar)) left--;
    if (left <= 0) return date;
  }
  return addDays(ends, -LONGEST);
}

export type OftenFacts = IncidentFacts | CountFacts;

/**
 * Whether an entry is one of those that are counted: incidents, or the times that were counted while watching, never both, since what was
 * counted may have been noted too.
 */
export const isCounted = ({ of, behavior }: Often, facts: EntryFacts): facts is OftenFacts =>
  facts.kind === (of === 'counts' ? 'count' : 'incident') &&
  (behavior === null || facts.behaviors.has(plainName(behavior)));

/** How often what is counted occurred, by one entry. */
const timesIn = (facts: OftenFacts): number => (facts.kind === 'count' ? facts.times : 1);

/**
 * The entries at which so many times had come together in so many school days, and which had not been said of any of those days yet: so a
 * bad week is said once, and not with each further entry.
 *
 * @param entries  of one student, the oldest first
 * @param saidOn  the days of entries of which it was said before
 */
export function completing(
  when: Often,
  entries: readonly EntryFacts[],
  calendar: SchoolCalendar,
  saidOn: readonly IsoDate[] = [],
): OftenFacts[] {
  const found: OftenFacts[] = [];
  const said = [...saidOn];
  const counted: OftenFacts[] = [];
  for (const entry of entries.filter((one) => isCounted(when, one))) {
    counted.push(entry);
    const from = windowStart(entry.on, when.days, calendar);
    const isSaid = said.some((on) => on >= from && on <= entry.on);
    const times = counted.reduce((all, one) => all + (one.on >= from ? timesIn(one) : 0), 0);
    if (isSaid || times < when.times) continue;
    found.push(entry);
    said.push(entry.on);
  }
  return found;
}
