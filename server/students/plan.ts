import type { IsoDate } from '~/core/calendar/iso-date';
import type { PlanInput } from '~/core/students/student-input';
import type { Database } from '../db/database';
import { type Actor, studentFor } from './students';

export interface Plan {
  startsOn: IsoDate;
  endsOn: IsoDate;
  periods: { label: string; endsOn: IsoDate }[];
}

/** The plan of a student with its reporting periods in order; null before there is one. Ask `studentFor` first. */
export async function planOf(db: Database, studentId: string): Promise<Plan | null> {
  const plan = await db('plans').where({ student_id: studentId }).first();
  if (!plan) return null;
  const periods = await db('reporting_periods').where({ plan_id: plan.id }).orderBy('ends_on');
  return {
    startsOn: plan.starts_on,
    endsOn: plan.ends_on,
    periods: periods.map((period) => ({ label: period.label, endsOn: period.ends_on })),
  };
}

/**
 * Writes the plan's dates and reporting periods.
 *
 * @param newId  the id of a plan that was not there before
 * @throws NotFound for who may not set up this student
 */
export async function savePlan(
  db: Database,
  actor: Actor,
  studentId: string,
  input: PlanInput,
  newId: string,
): Promise<void> {
  await db.transaction(async (trx) => {
    await studentFor(trx, actor, studentId, 'setUp');
    const dates = { starts_on: input.startsOn, ends_on: input.endsOn };
    const [plan] = await trx('plans')
      .insert({ id: newId, student_id: studentId, ...dates })
      .onConflict('student_id')
      .merge(dates)
      .returning('id');
    await trx('reporting_periods').where({ plan_id: plan.id }).delete();
    const rows = input.periods.map(({ label, endsOn }) => ({ plan_id: plan.id, label, ends_on: endsOn }));
    if (rows.length > 0) await trx('reporting_periods').insert(rows);
  });
}
