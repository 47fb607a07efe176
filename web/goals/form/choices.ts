import { usualAreas } from '~/core/goals/areas';
import type { Goal } from '~/server/goals/goals';
import type { Database } from '~/server/platform/db/database';
import { type Actor, locationsOf } from '~/server/school/school';
import type { StudentAccess } from '~/server/students/access';
import { supportTeam } from '~/server/students/students';
import type { GoalChoices } from './goal-form';

/** What the form of a goal chooses from. */
export async function goalChoices(
  db: Database,
  { schoolId, today }: Actor,
  { studentId, goals }: { studentId: StudentAccess<'read'>; goals: readonly Goal[] },
): Promise<GoalChoices> {
  const [team, locations] = await Promise.all([supportTeam(db, studentId, today), locationsOf(db, schoolId)]);
  const people = team.map(({ id, shortName }) => ({ id, name: shortName }));
  const areas = new Set([...goals.map(({ area }) => area), ...usualAreas].filter(Boolean));
  return { people, locations, areas: [...areas] };
}
