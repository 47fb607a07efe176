import { fileName } from '~/core/documents/file-name';
import { discreetGoal } from '~/core/goals/discreet';
import { dataFields, dataOfPage } from '~/core/progress/data-of-page';
import { sessionsOfGoal } from '~/server/entries/read';
import { goalOf } from '~/server/goals/goals';
import { database } from '~/server/platform/db/current';
import { progressFrom } from '~/server/progress/progress';
import { recordAccess } from '~/server/sharing/access-log';
import { requireStudent } from '~/server/students/students';
import { idFrom, personOf } from '../platform/http/request-person';
import { tableFile, tableFormat } from '../platform/http/table-file';
import { withErrors } from '../platform/http/with-errors';
import { headerStudent } from '../students/header-student';
import type { Route } from './+types/goal-data-file';
import { goalDataFileWords } from './words';

/** The numbers behind a goal’s page, as `npm run analyse -- series` reads them: docs/analyse.md. */
export const loader = withErrors(async ({ params, request, context }: Route.LoaderArgs) => {
  const { actor, school, discreet, now } = personOf(context);
  const student = await requireStudent(database(), actor, idFrom(params.studentId), 'see');
  const stored = await goalOf(database(), student.id, idFrom(params.goalId));
  const goal = discreet ? discreetGoal(stored) : stored;
  const progress = progressFrom(goal, await sessionsOfGoal(database(), student.id, goal.id), {
    ...{ school, today: actor.today },
  });
  const reading = {
    studentId: student.id,
    what: goalDataFileWords.dataOfGoal(goal.number, tableFormat(request)),
    how: 'exported' as const,
  };
  await recordAccess(database(), { personId: actor.personId }, reading, now);
  const { shortName } = headerStudent(student, { discreet });
  const sheet = goalDataFileWords.goal(goal.number);
  const name = fileName(shortName, sheet, actor.today);
  return tableFile(request, { name, sheet }, dataFields, dataOfPage(goal, progress));
});
