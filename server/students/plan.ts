import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import type { PlanInput } from '~/core/students/student-input';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import type { StudentAccess } from './access';
import { planFirst, requireStudent } from './students';

const storedPlan = z.object({
  startsOn: z.string(),
  endsOn: z.string(),
  periods: z.array(z.object({ id: z.string(), label: z.string(), endsOn: z.string() })),
});
export type Plan = z.infer<typeof storedPlan>;

/** The plan of a student that holds, or else the nearest one, with its reporting periods in order; null before there is one. */
export async function planOf(db: Database, studentId: StudentAccess<'read'>, today: IsoDate): Promise<Plan | null> {
  return (await plansOf(db, [studentId], today)).get(studentId) ?? null;
}

/** The same of several students; none of those who have no plan. */
export async function plansOf(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  today: IsoDate,
): Promise<Map<string, Plan>> {
  const found = await rowsOf(
    db,
    storedPlan.extend({ studentId: z.string() }),
    `select p.student_id as "studentId", p.starts_on as "startsOn", p.ends_on as "endsOn",
            (select coalesce(json_agg(json_build_object('id', r.id, 'label', r.label, 'endsOn', r.ends_on) order by r.ends_on), '[]')
               from reporting_periods r where r.plan_id = p.id and r.removed_at is null) as periods
       from unnest(cast(:studentIds as uuid[])) as student (id)
            cross join lateral (
              select * from plans where plans.student_id = student.id
               order by ${planFirst('plans', 'cast(:today as date)')} limit 1) p`,
    { studentIds: [...studentIds], today },
  );
  return new Map(found.map(({ studentId, ...plan }) => [studentId, plan]));
}

/** The row of the plan that holds on a day, or else of the nearest one. */
export async function planRow(
  db: Database,
  studentId: StudentAccess<'read'>,
  today: IsoDate,
): Promise<{ id: string; starts_on: IsoDate; ends_on: IsoDate } | undefined> {
  const order = planFirst('plans', 'cast(:today as date)');
  const [plan] = await rowsOf(
    db,
    z.object({ id: z.string(), starts_on: z.string(), ends_on: z.string() }),
    `select id, starts_on, ends_on from plans where student_id = :studentId order by ${order} limit 1`,
    { studentId, today },
  );
  return plan;
}

/**
 * Writes the plan's dates and reporting periods. A period whose name or end is changed stays the same one, with what was written
 * and issued for it; one that is taken away is kept out of sight.
 *
 * @param newId  the id of a plan that was not there before
 * @throws NotFound for someone who may not edit this student’s goals
 */
export async function savePlan(
  db: Database,
  actor: Actor,
  studentId: string,
  input: PlanInput,
  { newId, now }: { newId: string; now: Date },
): Promise<void> {
  await db.transaction(async (trx) => {
    const access = (await requireStudent(trx, actor, studentId, 'editGoals')).id;
    const was = await planOf(trx, access, actor.today);
    const dates = { starts_on: input.startsOn, ends_on: input.endsOn };
    const known = await planRow(trx, access, actor.today);
    const plan = known ?? { id: newId };
    if (known) await trx('plans').where({ id: known.id }).update(dates);
    else {
      await trx('plans').insert({ id: newId, student_id: studentId, ...dates });
      await trx('goals').where({ student_id: studentId, plan_id: null }).update({ plan_id: newId });
    }
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
    const is = await planOf(trx, access, actor.today);
    await writeChange(trx, actor.personId, { what: 'plan', studentId, before: said(was), after: said(is) }, now);
  });
}

const said = (plan: Plan | null) =>
  plan && {
    ...{ startsOn: plan.startsOn, endsOn: plan.endsOn },
    periods: plan.periods.map(({ label, endsOn }) => ({ label, endsOn })),
  };
