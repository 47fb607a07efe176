import { z } from 'zod';
import type { RoundInput } from '~/core/entries/rounds/round-input';
import { goalsOf, goalsWorkedOn } from '../../goals/goals';
import type { Database } from '../../platform/db/database';
import { rowsOf } from '../../platform/db/rows';
import { Invalid, NotFound, nullIf } from '../../platform/failures';
import type { Actor } from '../../school/school';
import { studentsOf } from '../../students/students';
import { staffForms } from '../forms/forms';

/** A round as the one who made it can go through it now. */
const roundRow = z.object({
  id: z.string(),
  name: z.string(),
  weekday: z.number().nullable(),
  startsAt: z.string().nullable(),
  /** In the order in which they come up; without what may no longer be observed. */
  goals: z.array(z.object({ id: z.string(), studentId: z.string() })),
  /** Those forms that are still in use. */
  formIds: z.array(z.string()),
});
export type Round = z.infer<typeof roundRow>;

const roundsQuery = `
  select r.id, r.name, r.weekday, to_char(r.starts_at, 'HH24:MI') as "startsAt",
         (select coalesce(json_agg(json_build_object('id', rg.goal_id, 'studentId', rg.student_id) order by rg.position), '[]')
            from round_goals rg
            join goals g on g.id = rg.goal_id and g.retired_on is null
            join students s on s.id = rg.student_id and s.archived_at is null
            join team_members m on m.student_id = s.id and m.person_id = r.made_by
             and m.from_date <= :today and coalesce(m.until_date, 'infinity') >= :today
           where rg.round_id = r.id) as goals,
         (select coalesce(json_agg(rf.form_id order by rf.position), '[]')
            from round_forms rf join forms f on f.id = rf.form_id and f.closed_at is null where rf.round_id = r.id) as "formIds"
    from rounds r
   where r.made_by = :personId and r.school_id = :schoolId and r.removed_at is null`;

/** The rounds that the one who asks has made, those with a time first. */
export async function roundsOf(db: Database, actor: Actor): Promise<Round[]> {
  return rowsOf(db, roundRow, `${roundsQuery} order by r.weekday nulls last, r.starts_at nulls last, r.name`, {
    ...actor,
  });
}

/**
 * One round.
 *
 * @throws NotFound when it is not one of this person's
 */
export async function roundOf(db: Database, actor: Actor, id: string): Promise<Round> {
  const found = await rowsOf(db, roundRow, `${roundsQuery} and r.id = :id`, { ...actor, id });
  const round = found[0];
  if (!round) throw new NotFound('No such round.');
  return round;
}

/**
 * Those of some goals that the one who asks may observe now, student by student.
 *
 * @throws NotFound when there is none of them
 */
export async function observable(db: Database, actor: Actor, goalIds: readonly string[]): Promise<Round['goals']> {
  return observableWhere(db, actor, ({ id }) => goalIds.includes(id));
}

/**
 * All goals of some students that the one who asks may observe now, student by student.
 *
 * @throws NotFound when there is none of them
 */
export async function observableOf(db: Database, actor: Actor, studentIds: readonly string[]): Promise<Round['goals']> {
  return observableWhere(db, actor, ({ studentId }) => studentIds.includes(studentId));
}

async function observableWhere(
  db: Database,
  actor: Actor,
  isWanted: (goal: { id: string; studentId: string }) => boolean,
): Promise<Round['goals']> {
  const students = await studentsOf(db, actor);
  const goals = goalsWorkedOn(
    await goalsOf(
      db,
      students.map(({ id }) => id),
    ),
  );
  const order = new Map<string, number>(students.map(({ id }, at) => [id, at]));
  const found = goals
    .filter(isWanted)
    .toSorted((a, b) => (order.get(a.studentId) ?? 0) - (order.get(b.studentId) ?? 0))
    .map(({ id, studentId }) => ({ id, studentId }));
  if (found.length === 0) throw new NotFound('No such goals.');
  return found;
}

/**
 * Keeps a round, new or changed.
 *
 * @throws NotFound for somebody else's round; Invalid for a goal that this person may not observe
 */
export async function saveRound(db: Database, actor: Actor, input: RoundInput): Promise<void> {
  const goals = (await nullIf(NotFound, observable(db, actor, input.goalIds))) ?? [];
  if (goals.length !== new Set(input.goalIds).size) throw new Invalid({ goalIds: 'Choose goals from the list.' });
  const forms = await staffForms(db, actor);
  if (!input.formIds.every((formId) => forms.some((form) => form.id === formId))) {
    throw new Invalid({ formIds: 'Choose forms from the list.' });
  }
  const { id, name, weekday, startsAt } = input;
  await db.transaction(async (trx) => {
    const known = await trx('rounds').where({ id }).forUpdate().first('made_by');
    if (known && known.made_by !== actor.personId) throw new NotFound('No such round.');
    const columns = { name, weekday, starts_at: startsAt };
    await trx('rounds')
      .insert({ id, made_by: actor.personId, school_id: actor.schoolId, ...columns })
      .onConflict('id')
      .merge(columns);
    await trx('round_forms').where({ round_id: id }).delete();
    if (input.formIds.length > 0) {
      await trx('round_forms').insert(
        [...new Set(input.formIds)].map((form_id, position) => ({ round_id: id, form_id, position })),
      );
    }
    await trx('round_goals').where({ round_id: id }).delete();
    await trx('round_goals').insert(
      goals.map((goal, position) => ({ round_id: id, goal_id: goal.id, student_id: goal.studentId, position })),
    );
  });
}

/**
 * Takes a round off the list, or puts it back; what was observed in it stays where it is.
 *
 * @throws NotFound when it is not one of this person's
 */
export async function setRoundRemoved(
  db: Database,
  { personId }: Actor,
  { id, isRemoved }: { id: string; isRemoved: boolean },
  now: Date,
): Promise<void> {
  const found = await db('rounds')
    .where({ id, made_by: personId })
    .update({ removed_at: isRemoved ? now : null });
  if (found === 0) throw new NotFound('No such round.');
}
