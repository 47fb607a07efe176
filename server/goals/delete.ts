import { z } from 'zod';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { Invalid } from '../platform/failures';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import { requireStudent } from '../students/students';
import { goalOf } from './goals';

/** What is deleted: nothing is undone of it, so its short name is typed. */
export const deletionInput = z.object({ goalId: z.uuid(), typedName: z.string().default('') });

const sameName = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/**
 * Deletes a goal of which nothing was ever recorded: what stays is a line in the change log, with its name.
 *
 * @throws NotFound; Invalid where its name is not the one typed, and where something was recorded or something else names it
 */
export async function deleteGoal(
  db: Database,
  actor: Actor,
  studentId: string,
  { goalId, typedName }: z.infer<typeof deletionInput>,
  now: Date,
): Promise<void> {
  await db.transaction(async (trx) => {
    const { id } = await requireStudent(trx, actor, studentId, 'editGoals');
    const { shortName } = await goalOf(trx, id, goalId);
    if (!sameName(typedName, shortName)) throw new Invalid({ typedName: 'This is not its short name.' });
    await deleteUnused(trx, actor, studentId, { goalId, shortName }, now);
  });
}

/**
 * Takes back goals that were just added, of several students: all of them or none. One that is gone already is passed over.
 *
 * @returns how many were taken back
 * @throws NotFound where one may not edit its student’s goals; Invalid where something was recorded of one meanwhile
 */
export async function takeBackGoals(
  db: Database,
  actor: Actor,
  goalIds: readonly string[],
  now: Date,
): Promise<number> {
  return db.transaction(async (trx) => {
    const goals = await trx('goals').whereIn('id', goalIds).select('id', 'student_id', 'short_name');
    for (const { id, student_id, short_name } of goals) {
      await requireStudent(trx, actor, student_id, 'editGoals');
      await deleteUnused(trx, actor, student_id, { goalId: id, shortName: short_name }, now);
    }
    return goals.length;
  });
}

async function deleteUnused(
  trx: Database,
  actor: Actor,
  studentId: string,
  { goalId, shortName }: { goalId: string; shortName: string },
  now: Date,
): Promise<void> {
  const [row] = await rowsOf(trx, z.object({ isGone: z.boolean() }), `select delete_unused_goal(?) as "isGone"`, [
    goalId,
  ]);
  if (!row?.isGone) {
    throw new Invalid({
      typedName: 'Something was recorded for it, or a desk, a work sample or another goal names it. Retire it instead.',
    });
  }
  await writeChange(trx, actor.personId, { what: 'goal', studentId, before: { goal: shortName }, after: null }, now);
}
