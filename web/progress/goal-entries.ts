import { discreetGoal } from '~/core/goals/discreet';
import { observationsOf } from '~/server/entries/read';
import { goalOf } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { marksFor } from '~/server/rules/marks';
import { requireStudent } from '~/server/students/students';
import { idFrom, personOf } from '../platform/http/request-person';
import { withErrors } from '../platform/http/with-errors';
import type { Route } from './+types/goal-entries';
import { tableEntries } from './goal-tables';

/** All entries of a goal, for its table to sort and filter. */
export const loader = withErrors(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'see');
  const stored = await goalOf(database(), student.id, idFrom(params.goalId));
  const goal = discreet ? discreetGoal(stored) : stored;
  const entries = await observationsOf(database(), [student.id], { goalId: goal.id });
  const marks = await marksFor(database(), actor, entries, [student.id]);
  return { entries: tableEntries(goal, entries, { discreet, marks }) };
});
