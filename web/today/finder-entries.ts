import { discreetGoalName, discreetStudent } from '~/core/goals/discreet';
import { toldApart } from '~/core/students/told-apart';
import { goalNames } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { studentsOf } from '~/server/students/students';
import { personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/finder-entries';

/** So many of each are shown: who looks for one types a letter more. */
const MOST = 20;

interface Found {
  to: string;
  label: string;
  about: string;
  words: string;
}

/** Those that hold every word that was typed, in any order. */
function holding(all: readonly Found[], words: readonly string[]): Found[] {
  const holds = ({ label, about, words: more }: Found) => {
    const text = `${label} ${about} ${more}`.toLowerCase();
    return words.every((word) => text.includes(word));
  };
  return all.filter(holds).slice(0, MOST);
}

/** What the finder leads to: the students one may see, and their goals, as far as they hold what was typed. */
export const loader = withErrors(async ({ request, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const typed = (new URL(request.url).searchParams.get('find') ?? '').slice(0, 100);
  const students = (await studentsOf(database(), actor)).map((s) => (discreet ? discreetStudent(s) : s));
  const names = new Map<string, string>(students.map((student) => [student.id, student.shortName]));
  const apart = discreet
    ? new Map<string, string>()
    : toldApart(students.map((one) => ({ ...one, name: one.shortName })));
  const people = students.map(({ id, shortName, firstName, lastName, groups }) => ({
    to: `/students/${id}`,
    label: shortName,
    about: [apart.get(id), groups.join(', ')].filter(Boolean).join(' · '),
    words: `${firstName} ${lastName}`,
  }));
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  // In the discreet view a goal is found by what it is called there, not by its name.
  const asked = discreet ? { words: [], limit: 100_000 } : { words, limit: MOST };
  const goals = await goalNames(
    database(),
    students.map(({ id }) => id),
    asked,
  );
  const shown = goals
    .map((goal) => (discreet ? { ...goal, ...discreetGoalName(goal) } : goal))
    .map(({ id, studentId, number, shortName, area }) => ({
      to: `/students/${studentId}/goals/${id}`,
      label: `${number} · ${shortName}`,
      about: [names.get(studentId), apart.get(studentId)].filter(Boolean).join(' · '),
      words: area,
    }));
  return { typed, students: holding(people, words), goals: discreet ? holding(shown, words) : shown };
});
