import type { IsoDate } from '../calendar/iso-date';
import { countSchoolDays, isSchoolDay, type SchoolCalendar, schoolDaysSince } from '../calendar/school-days';

/** Where the plan names no gap, a goal is looked at once in a school week (our own convention). */
export const USUAL_GAP = 5;

interface Asked {
  calendar: SchoolCalendar;
  today: IsoDate;
  personId: string;
}

/**
 * Whether somebody has a goal to observe today: it is due, there is school, and the plan wants it from them or from anybody. Today, the
 * dots of the students and their lists all ask here.
 *
 * @param goal.observerIds  by whom the plan wants it; by anyone when empty
 */
export function isDueFor(
  goal: { lastOn: IsoDate | null; startsOn: IsoDate; plannedGap: number | null; observerIds: readonly string[] },
  { calendar, today, personId }: Asked,
): boolean {
  const isAsked = goal.observerIds.length === 0 || goal.observerIds.includes(personId);
  return isAsked && isSchoolDay(today, calendar) && isDue(goal, { calendar, today });
}

/**
 * Whether a goal should be observed today: the planned gap has passed since it last was, or since it began.
 *
 * @param goal.lastOn  the date of its newest entry, null when there is none
 * @param goal.plannedGap  school days from one observation to the next; null when the plan names none
 */
export function isDue(
  { lastOn, startsOn, plannedGap }: { lastOn: IsoDate | null; startsOn: IsoDate; plannedGap: number | null },
  { calendar, today }: { calendar: SchoolCalendar; today: IsoDate },
): boolean {
  if (startsOn > today) return false;
  const gap = plannedGap ?? USUAL_GAP;
  // One that has just begun is due when its gap, with its first day, has passed: one that is wanted each day, on its first.
  if (lastOn === null) return countSchoolDays(startsOn, today, calendar) >= gap;
  return schoolDaysSince(lastOn, today, calendar) >= gap;
}
