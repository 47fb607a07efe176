import { goalSheet } from '~/core/documents/data-sheet';
import { discreetGoal } from '~/core/goals/discreet';
import { goalOf } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { requireStudent } from '~/server/students/students';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/goal-sheet';
import { roomIn, sheetAnswer } from './blank-sheet';

/** A blank data sheet of one goal. */
export const loader = withErrorsInTurn(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'observe');
  const stored = await goalOf(database(), student.id, idFrom(params.goalId));
  const goal = discreet ? discreetGoal(stored) : stored;
  const { shortName } = headerStudent(student, { discreet });
  return sheetAnswer(goalSheet(goal, { studentName: shortName, schoolName: school.name }, roomIn(request, 15)), school);
});
