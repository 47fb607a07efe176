import { defined } from '~/core/defined';
import { roundSheet } from '~/core/documents/data-sheet';
import { discreetGoal } from '~/core/goals/discreet';
import { roundOf } from '~/server/entries/rounds/rounds';
import { goalsOf } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { studentsOf } from '~/server/students/students';
import { withErrorsInTurn } from '../platform/http/in-turn';
import { idFrom, personOf } from '../platform/http/request-person';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/round-sheet';
import { roomIn, sheetAnswer } from './blank-sheet';

/** A blank data sheet of a round, in its order. */
export const loader = withErrorsInTurn(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet } = personOf(context);
  const [round, students] = await Promise.all([
    roundOf(database(), actor, idFrom(params.roundId)),
    studentsOf(database(), actor),
  ]);
  const goals = new Map(
    (
      await goalsOf(
        database(),
        students.map(({ id }) => id),
      )
    ).map((goal) => [goal.id, goal]),
  );
  const names = new Map<string, string>(students.map((one) => [one.id, headerStudent(one, { discreet }).shortName]));
  const inOrder = round.goals.flatMap(({ id, studentId }) => {
    const goal = goals.get(id);
    if (!goal) return [];
    return [{ ...(discreet ? discreetGoal(goal) : goal), studentName: defined(names.get(studentId)) }];
  });
  const name = discreet ? `${inOrder.length}` : round.name;
  return sheetAnswer(roundSheet(name, inOrder, { schoolName: school.name }, roomIn(request, 1)), school);
});
