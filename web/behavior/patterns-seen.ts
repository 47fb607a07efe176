import { type Patterns, patternsAcross, type SharedKind, sharedKinds } from '~/core/behavior/patterns';
import { addDays, mondayOf } from '~/core/calendar/iso-date';
import { schoolDays } from '~/core/calendar/school-days';
import { discreetStudent } from '~/core/goals/discreet';
import { incidentsAcross } from '~/server/behavior/behavior';
import { database } from '~/server/platform/db/current';
import { studentsOf } from '~/server/students/students';
import type { RequestPerson } from '../platform/http/request-person';

/** How many weeks can be looked at. */
export const STRETCHES = [6, 12, 24, 40];
/** The last school days are held against as many before them: about four weeks. */
export const RECENT_DAYS = 20;

/** The patterns that an address asks for, of the students whom the one who asks sees. */
export async function patternsSeen(request: Request, { actor, school, discreet }: RequestPerson) {
  const search = new URL(request.url).searchParams;
  const all = (await studentsOf(database(), actor)).map((student) => (discreet ? discreetStudent(student) : student));
  const groups = [...new Set(all.flatMap((student) => student.groups))].sort();
  const group = groups.find((name) => name === search.get('group')) ?? null;
  const weeks = STRETCHES.find((stretch) => String(stretch) === search.get('weeks')) ?? 12;
  const students = group === null ? all : all.filter((student) => student.groups.includes(group));
  const from = addDays(mondayOf(actor.today), -7 * (weeks - 1));
  const incidents = await incidentsAcross(
    database(),
    students.map(({ id }) => id),
    { discreet },
  );
  const days = schoolDays(from, actor.today, school.calendar);
  const patterns = patternsAcross(incidents, days, { recentDays: RECENT_DAYS });
  const names = new Map<string, string>(students.map(({ id, shortName }) => [id, shortName]));
  return { groups, group, weeks, from, patterns, names };
}

/** What students share, with their names. */
export function sharedNamed(shared: Patterns['shared'], nameOf: (id: string) => string) {
  const named = (kind: SharedKind) =>
    shared[kind].map(({ name, n, students }) => ({ name, n, students: students.map(nameOf) }));
  // Every kind has its pair: `fromEntries` only knows that keys are texts.
  return Object.fromEntries(sharedKinds.map((kind) => [kind, named(kind)])) as Record<
    SharedKind,
    ReturnType<typeof named>
  >;
}
