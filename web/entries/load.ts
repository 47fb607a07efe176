import type { ObservedGoal } from '~/core/entries/waiting';
import { discreetGoal, discreetStudent } from '~/core/goals/discreet';
import { supportStepsOn } from '~/core/goals/goal';
import { neededSentence } from '~/core/measures/cumulative-total/cumulative-total';
import { type Goal, goalsOf, goalsWorkedOn } from '~/server/goals/goals';
import type { Database } from '~/server/platform/db/database';
import { progressOfGoals } from '~/server/progress/progress';
import { locationsOf } from '~/server/school/school';
import { requireStudent, supportTeams } from '~/server/students/students';
import { partAt, plannedOn } from '~/server/students/timetable';
import type { RequestPerson } from '../platform/http/request-person';

export interface ObservedStudent {
  id: string;
  shortName: string;
  firstName: string;
  initials: string;
  goals: ObservedGoal[];
}

/** One student to observe, and which of their goals; all that are worked on, when it is not said. */
export interface WantedStudent {
  studentId: string;
  goalIds: readonly string[] | null;
}

/**
 * What it takes to observe some students in one go.
 *
 * @throws NotFound for a student whom the one who asks may not observe
 */
export async function observing(
  db: Database,
  { actor, person, school, wall, discreet }: RequestPerson,
  wanted: readonly WantedStudent[],
) {
  const studentIds = wanted.map(({ studentId }) => studentId);
  const students = await Promise.all(studentIds.map((id) => requireStudent(db, actor, id, 'observe')));
  const ids = students.map(({ id }) => id);
  const [all, teams, locations, parts] = await Promise.all([
    goalsOf(db, ids).then(goalsWorkedOn),
    supportTeams(db, ids, actor.today),
    locationsOf(db, actor.schoolId),
    plannedOn(db, ids, wall.on),
  ]);
  const goals = discreet ? all.map(discreetGoal) : all;
  const progress = await progressOfGoals(db, all, { school, today: actor.today });
  const when = { today: actor.today, calendar: school.calendar };
  const observed = (goal: Goal): ObservedGoal => {
    const { id, studentId, number, shortName, wording, measure, criterion, version, targetOn } = goal;
    const { points, now } = progress.get(id) ?? { points: [], now: null };
    const last = points.filter(({ isFormer }) => !isFormer).slice(-5);
    return {
      ...{ id, studentId, number, shortName, wording, measure, criterion, version },
      last: last.map(({ value }) => value),
      soFar: now,
      supportSteps: supportStepsOn(goal.phases, wall.on),
      pace: measure.kind === 'cumulativeTotal' ? neededSentence(measure, now ?? 0, { targetOn, ...when }) : null,
    };
  };
  const placesNow = new Set(studentIds.map((id) => partAt(parts, id, wall)?.locationId ?? null));
  const [first = [], ...others] = teams.values();
  return {
    students: students.map((student, i): ObservedStudent => {
      const { id, shortName, firstName, initials } = discreet ? discreetStudent(student) : student;
      const chosen = wanted[i]?.goalIds ?? null;
      const own = goals.filter((goal) => goal.studentId === id && (chosen?.includes(goal.id) ?? true));
      return { id, shortName, firstName, initials, goals: own.map(observed) };
    }),
    choices: {
      // Who observes several students is on the team of each of them.
      people: first
        .filter(({ id }) => others.every((team) => team.some((member) => member.id === id)))
        .map((member) => ({ id: member.id, name: member.shortName })),
      locations,
      today: actor.today,
    },
    /** Where the timetable has all of them now. */
    locationId: placesNow.size === 1 ? ([...placesNow][0] ?? null) : null,
    personId: person.id,
    wall,
    discreet,
  };
}
export type Observing = Awaited<ReturnType<typeof observing>>;
