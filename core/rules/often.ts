import { addDays, type IsoDate } from '../calendar/iso-date';
import { isSchoolDay, type SchoolCalendar } from '../calendar/school-days';
import { plainName } from '../entries/incidents/choice';
import type { IncidentFacts } from './facts';
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

/** Whether an incident is one of those that are counted. */
export const isCounted = ({ behavior }: Often, { behaviors }: IncidentFacts): boolean =>
  behavior === null || behaviors.has(plainName(behavior));

/**
 * The incidents at which so many had come together in so many school days, and which had not been said of any of those days yet: so a
 * bad week is said once, and not with each further incident.
 *
 * @param incidents  of one student, the oldest first
 * @param saidOn  the days of incidents of which it was said before
 */
export function completing(
  when: Often,
  incidents: readonly IncidentFacts[],
  calendar: SchoolCalendar,
  saidOn: readonly IsoDate[] = [],
): IncidentFacts[] {
  const found: IncidentFacts[] = [];
  const said = [...saidOn];
  const counted: IncidentFacts[] = [];
  for (const incident of incidents.filter((one) => isCounted(when, one))) {
    counted.push(incident);
    const from = windowStart(incident.on, when.days, calendar);
    const isSaid = said.some((on) => on >= from && on <= incident.on);
    if (isSaid || counted.filter(({ on }) => on >= from).length < when.times) continue;
    found.push(incident);
    said.push(incident.on);
  }
  return found;
}
