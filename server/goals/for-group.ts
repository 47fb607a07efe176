import { blankGoal } from '~/core/goals/begin';
import { type ForGroupInput, goalForAnother } from '~/core/goals/for-group';
import { goalInput } from '~/core/goals/goal-input';
import type { Database } from '../platform/db/database';
import { Invalid, NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { can } from '../students/rights';
import { studentsOf } from '../students/students';
import { addGoal, inputOf } from './edit';
import { goalsOf, goalsWorkedOn } from './goals';

/**
 * Gives a goal of one student to others, each with a target of their own: all of them or none.
 *
 * @returns how many students have it now
 * @throws NotFound for a goal or a student that this person may not edit goals of; Invalid with a message at the student's id
 */
export async function giveToGroup(
  db: Database,
  actor: Actor,
  sourceId: string,
  { rows }: ForGroupInput,
): Promise<number> {
  return db.transaction(async (trx) => {
    const students = (await studentsOf(trx, actor)).filter((student) => can(student, 'editGoals'));
    const goals = await goalsOf(
      trx,
      students.map(({ id }) => id),
    );
    const source = goals.find(({ id }) => id === sourceId);
    const owner = students.find(({ id }) => id === source?.studentId);
    if (!source || !owner) throw new NotFound('No such goal.');
    const messages: Record<string, string> = {};
    for (const { id, studentId, target } of rows) {
      const student = students.find((one) => one.id === studentId);
      if (!student) throw new NotFound('No such student.');
      const own = goals.filter((goal) => goal.studentId === studentId);
      if (own.some((goal) => goal.id === id)) continue;
      const blank = blankGoal(id, {
        today: actor.today,
        planEndsOn: student.plan?.endsOn ?? null,
        numbers: goalsWorkedOn(own).map(({ number }) => number),
      });
      const names = { from: owner.firstName, to: student.firstName };
      const parsed = goalInput.safeParse(goalForAnother(blank, inputOf(source), { names, target }));
      if (parsed.success) await addGoal(trx, actor, studentId, parsed.data);
      else messages[studentId] = parsed.error.issues[0]?.message ?? 'This target does not fit the goal.';
    }
    if (Object.keys(messages).length > 0) throw new Invalid(messages);
    return rows.length;
  });
}
