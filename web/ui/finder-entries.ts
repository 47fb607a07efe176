import { discreetGoal, discreetStudent } from '~/core/discreet/discreet';
import { database } from '~/server/db/current';
import { goalsOf } from '~/server/goals/goals';
import { studentsOf } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf } from '../http/asker';
import type { Route } from './+types/finder-entries';

/** Everything the finder can lead to: the students one may see, and their goals. */
export const loader = answering(async ({ context }: Route.LoaderArgs) => {
  const { actor, discreet } = askerOf(context);
  const students = (await studentsOf(database(), actor)).map((s) => (discreet ? discreetStudent(s) : s));
  const goals = await goalsOf(
    database(),
    students.map(({ id }) => id),
  );
  const names = new Map(students.map((student) => [student.id, student.shortName]));
  return {
    students: students.map(({ id, shortName, firstName, lastName, groups }) => ({
      to: `/students/${id}`,
      label: shortName,
      about: groups.join(', '),
      words: `${firstName} ${lastName}`,
    })),
    goals: goals
      .map((goal) => (discreet ? discreetGoal(goal) : goal))
      .map(({ id, studentId, number, shortName, area }) => ({
        to: `/students/${studentId}/goals/${id}`,
        label: `${number} · ${shortName}`,
        about: names.get(studentId) ?? '',
        words: area,
      })),
  };
});
