import { discreetGoal } from '~/core/goals/discreet';
import { observationsOf } from '~/server/entries/read';
import { goalOf } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { studentFor } from '~/server/students/students';
import { answering } from '../platform/http/answering';
import { askerOf, idFrom } from '../platform/http/asker';
import type { Route } from './+types/goal-entries';
import { tableEntries } from './goal-tables';

/** All entries of a goal, for its table to sort and filter. */
export const loader = answering(async ({ params, context }: Route.LoaderArgs) => {
  const { actor, discreet } = askerOf(context);
  const student = await studentFor(database(), actor, idFrom(params.studentId), 'see');
  const stored = await goalOf(database(), student.id, idFrom(params.goalId));
  const goal = discreet ? discreetGoal(stored) : stored;
  const entries = await observationsOf(database(), [student.id], { goalId: goal.id });
  return { entries: tableEntries(goal, entries, { discreet }) };
});
