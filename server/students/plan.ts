import { randomUUID } from 'node:crypto';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { PlanInput } from '~/core/students/student-input';
import type { Database } from '../db/database';
import { type Actor, studentFor } from './students';

export interface Plan {
  startsOn: IsoDate;
  endsOn: IsoDate;
  periods: { id: string; label: string; endsOn: IsoDate }[];
}

/** The plan of a student with its reporting periods in order; null before there is one. Ask `studentFor` first. */
export async function planOf(db: Database, studentId: string): Promise<Plan | null> {
  const plan = await db('plans').where({ student_id: studentId }).first();
  if (!plan) return null;
  const periods = await db('reporting_periods').where({ plan_id: plan.id, removed_at: null }).orderBy('ends_on');
  return {
    startsOn: plan.starts_on,
    endsOn: plan.ends_on,
    periods: periods.map(({ id, label, ends_on }) => ({ id, label, endsOn: ends_on })),
  };
}

/**
 * Writes the plan's dates and reporting periods. A period whose name or end is changed stays the same one, with what was written
 * and issued for it; one that is taken away is kept out of sight.
 *
 * @param newId  the id of a plan that was not there before
 * @throws NotFound for who may not set up this student
 */
export async function savePlan(
  db: Database,
  actor: Actor,
  studentId: string,
  input: PlanInput,
  { newId, now }: { newId: string; now: Date },
): Promise<void> {
  await db.transaction(async (trx) => {
    await studentFor(trx, actor, studentId, 'setUp');
    const dates = { starts_on: input.startsOn, ends_on: input.endsOn };
    const [plan] = await trx('plans')
      .insert({ id: newId, student_id: studentId, ...dates })
      .onConflict('student_id')
      .merge(dates)
      .returning('id');
    const before = await trx('reporting_periods').where({ plan_id: plan.id, removed_at: null }).select('id', 'ends_on');
    // A form that did not know of the ids names a period by its end.
    const idOf = ({ id, endsOn }: PlanInput['periods'][number]) =>
      before.find((one) => (id ? one.id === id : one.ends_on === endsOn))?.id ?? randomUUID();
    const rows = input.periods.map((period) => ({
      ...{ id: idOf(period), plan_id: plan.id, label: period.label, ends_on: period.endsOn },
    }));
    // Out of sight while they are written: two periods may change their ends with each other.
    await trx('reporting_periods').where({ plan_id: plan.id, removed_at: null }).update({ removed_at: now });
    for (const row of rows) {
      await trx('reporting_periods')
        .insert(row)
        .onConflict('id')
        .merge({ label: row.label, ends_on: row.ends_on, removed_at: null });
    }
  });
}
