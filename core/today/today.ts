import type { IsoDate } from '../calendar/iso-date';
import { isSchoolDay, type SchoolCalendar } from '../calendar/school-days';
import type { WallTime } from '../calendar/zone';
import { isDueFor } from '../progress/due';

/** A goal with what says when it is due, and where and by whom. */
export interface PlannedGoal {
  id: string;
  studentId: string;
  startsOn: IsoDate;
  plannedGap: number | null;
  /** The date of its newest entry, null when there is none. */
  lastOn: IsoDate | null;
  /** Anywhere and by anyone when empty. */
  locationIds: readonly string[];
  observerIds: readonly string[];
}

/** A part of the day of one student. */
export interface StudentPart {
  studentId: string;
  part: string;
  from: string;
  to: string;
  locationId: string | null;
}

export interface PartOfDay {
  part: string;
  from: string;
  to: string;
  locationId: string | null;
  isNow: boolean;
  /** Who is in it, each with the goals that are due and may be observed there. */
  students: { studentId: string; due: string[] }[];
}

export interface DayPlan {
  /** What is on now and what comes, in order of time. */
  parts: PartOfDay[];
  /** What is due and fits none of these parts. */
  elsewhere: { studentId: string; due: string[] }[];
}

interface Asked {
  personId: string;
  wall: WallTime;
  calendar: SchoolCalendar;
}

/**
 * What there is to observe today, by whom it is asked: the goals whose planned gap has passed, in the parts of the day at
 * whose place the plan wants them. Nothing on a day without school.
 */
export function dayPlan(parts: readonly StudentPart[], goals: readonly PlannedGoal[], asked: Asked): DayPlan {
  const { personId, wall, calendar } = asked;
  if (!isSchoolDay(wall.on, calendar)) return { parts: [], elsewhere: [] };
  const due = goals.filter((goal) => isDueFor(goal, { calendar, today: wall.on, personId }));
  const byPart = new Map<string, PartOfDay>();
  const placed = new Set<string>();
  for (const { studentId, part, from, to, locationId } of parts) {
    if (to <= wall.time) continue;
    const key = JSON.stringify([from, to, part, locationId]);
    const known = byPart.get(key) ?? { part, from, to, locationId, isNow: from <= wall.time, students: [] };
    byPart.set(key, known);
    const here = due.filter((goal) => goal.studentId === studentId && fits(goal, locationId)).map(({ id }) => id);
    for (const id of here) placed.add(id);
    known.students.push({ studentId, due: here });
  }
  const rest = new Map<string, string[]>();
  for (const { id, studentId } of due) {
    if (!placed.has(id)) rest.set(studentId, [...(rest.get(studentId) ?? []), id]);
  }
  return {
    parts: [...byPart.values()].toSorted((a, b) => a.from.localeCompare(b.from) || a.part.localeCompare(b.part)),
    elsewhere: [...rest].map(([studentId, left]) => ({ studentId, due: left })),
  };
}

const fits = ({ locationIds }: PlannedGoal, locationId: string | null) =>
  locationId === null || locationIds.length === 0 || locationIds.includes(locationId);
