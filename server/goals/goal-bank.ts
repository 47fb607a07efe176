import { goalBank } from '~/core/goals/goal-bank';
import { type GoalTemplate, goalTemplate } from '~/core/goals/goal-input';
import type { Database } from '../platform/db/database';
import { NotFound } from '../platform/failures';
import type { Actor } from '../school/school';
import { requireStudent } from '../students/students';

export interface BankGoal {
  /** Its place in the goal bank: the school's own have ids, those that come with the product have names. */
  id: string;
  isOwn: boolean;
  goal: GoalTemplate;
}

/** The goals that one can begin from: the school's own first, then those that come with the product. */
export async function goalsInBank(db: Database, { schoolId }: Actor): Promise<BankGoal[]> {
  const rows = await db('goal_bank')
    .where({ school_id: schoolId })
    .whereNull('removed_at')
    .orderBy('made_at', 'desc')
    .select('id', 'goal');
  const own = rows.map(({ id, goal }) => ({ id, isOwn: true, goal: goalTemplate.parse(goal) }));
  return [...own, ...goalBank.map((goal, i) => ({ id: `${i + 1}`, isOwn: false, goal }))];
}

/**
 * Puts a goal into the school's goal bank. Sent twice, it stands there once.
 *
 * @throws NotFound for someone who may not edit goals of the student whose goal it was
 */
export async function putInGoalBank(
  db: Database,
  actor: Actor,
  studentId: string,
  { id, goal }: { id: string; goal: GoalTemplate },
  now: Date,
): Promise<void> {
  await requireStudent(db, actor, studentId, 'editGoals');
  await db('goal_bank')
    .insert({ id, school_id: actor.schoolId, goal: JSON.stringify(goal), made_by: actor.personId, made_at: now })
    .onConflict('id')
    .ignore();
}

/**
 * Takes a goal out of the goal bank; it stays where it has been used.
 *
 * @throws NotFound for a goal that is not this person's to take away
 */
export async function takeFromGoalBank(db: Database, actor: Actor, id: string, now: Date): Promise<void> {
  const found = await db('goal_bank')
    .where({ id, school_id: actor.schoolId, made_by: actor.personId })
    .update({ removed_at: now });
  if (found === 0) throw new NotFound('No such goal in the goal bank.');
}
