import { addDays, type IsoDate, mondayOf } from '../calendar/iso-date';
import { countSchoolDays, type SchoolCalendar, schoolDaysSince } from '../calendar/school-days';
import { sum } from '../statistics/spread';
import { isDue, USUAL_GAP } from './due';

/** The Mondays of the last weeks, the present one last. */
export function lastWeeks(today: IsoDate, weeks: number): IsoDate[] {
  const monday = mondayOf(today);
  return Array.from({ length: weeks }, (_, i) => addDays(monday, 7 * (i + 1 - weeks)));
}

/** School days in the week of a Monday; none in a week of holidays. */
export const schoolDaysInWeek = (monday: IsoDate, calendar: SchoolCalendar): number =>
  countSchoolDays(monday, addDays(monday, 6), calendar);

export interface Silence {
  /** The date of the newest entry, null when there has been none. */
  lastOn: IsoDate | null;
  /** School days that have come since, today included; since it began, where there is no entry. */
  schoolDays: number;
  /** Longer than the plan wants. */
  isLong: boolean;
}

/** For how long nothing has been written down about a goal. */
export function silenceOf(
  goal: { lastOn: IsoDate | null; startsOn: IsoDate; plannedGap: number | null },
  { calendar, today }: { calendar: SchoolCalendar; today: IsoDate },
): Silence {
  const { lastOn, startsOn, plannedGap } = goal;
  const days = lastOn === null ? countSchoolDays(startsOn, today, calendar) : schoolDaysSince(lastOn, today, calendar);
  // Of one without an entry nothing is missing on its first due day yet.
  const isNew = lastOn === null && days <= (plannedGap ?? USUAL_GAP);
  return { lastOn, schoolDays: days, isLong: !isNew && isDue(goal, { calendar, today }) };
}

/** How many entries there are of something in each of some weeks. */
export function countsByWeek(counts: readonly { week: IsoDate; n: number }[], weeks: readonly IsoDate[]): number[] {
  const byWeek = new Map<IsoDate, number>();
  for (const { week, n } of counts) byWeek.set(week, (byWeek.get(week) ?? 0) + n);
  return weeks.map((week) => byWeek.get(week) ?? 0);
}

/** Who made some entries, with their counts; who made most comes first. */
export function countsByPerson<T extends { observerId: string; observerName: string; n: number }>(
  counts: readonly T[],
): { name: string; own: T[] }[] {
  const people = new Map<string, { name: string; own: T[] }>();
  for (const count of counts) {
    const known = people.get(count.observerId);
    if (known) known.own.push(count);
    else people.set(count.observerId, { name: count.observerName, own: [count] });
  }
  const all = ({ own }: { own: T[] }) => sum(own.map(({ n }) => n));
  return [...people.values()].sort((a, b) => all(b) - all(a));
}
