import { discreetGoal } from '~/core/discreet/discreet';
import { database } from '~/server/db/current';
import { goalOf } from '~/server/goals/goals';
import { observationsOf } from '~/server/observations/read';
import { studentFor } from '~/server/students/students';
import { answering } from '../http/answering';
import { askerOf, idFrom } from '../http/asker';
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
