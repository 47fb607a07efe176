import { randomUUID } from 'node:crypto';
import { type GoalFacts, goalsMapping, guessGoals, planGoals } from '~/core/imports/goals';
import { addGoal } from '../goals/edit';
import { goalsOf } from '../goals/goals';
import type { Database } from '../platform/db/database';
import type { Actor } from '../school/school';
import { plansOf, savePlan } from '../students/plan';
import { importKind } from './kind';
import { studentsToName } from './naming';
import type { Part } from './parts';

async function factsOf(db: Database, actor: Actor): Promise<GoalFacts> {
  const students = await studentsToName(db, actor, 'editGoals');
  const ids = students.map(({ student }) => student.id);
  const [goals, plans] = await Promise.all([goalsOf(db, ids), plansOf(db, ids, actor.today)]);
  return {
    today: actor.today,
    students: students.map(({ id, name, names }) => {
      const plan = plans.get(id);
      return { id, name, names, plan: plan ? { startsOn: plan.startsOn, endsOn: plan.endsOn } : null };
    }),
    goals: goals
      .filter(({ retired }) => retired === null)
      .map(({ studentId, number, wording }) => ({ studentId, number, wording })),
  };
}

/** Goals as their plans word them. */
export const goalsImport = importKind({
  mapping: goalsMapping,
  facts: factsOf,
  guess: ({ table }, facts) => guessGoals(table, facts),
  plan: ({ table }, mapping, facts) => planGoals(table, mapping, facts),
  carryIn: async (db, actor, commands, { now }) => {
    const parts: Part[] = [];
    for (const { studentId, plan, goal } of commands) {
      if (plan) await savePlan(db, actor, studentId, { ...plan, periods: [] }, { newId: randomUUID(), now });
      const id = randomUUID();
      await addGoal(db, actor, studentId, { ...goal, id });
      parts.push({ kind: 'goal', studentId, rowId: id });
    }
    return { parts };
  },
});
