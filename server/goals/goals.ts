import type { GoalDefinition, Phase } from '~/core/goals/goal';
import type { Database } from '../db/database';
import { NotFound } from '../failures';

/** A goal as the plan words it, with what the computation needs. */
export interface Goal extends GoalDefinition {
  id: string;
  studentId: string;
  number: string;
  area: string;
  shortName: string;
  wording: string;
}

interface GoalRow {
  id: string;
  student_id: string;
  number: string;
  area: string;
  short_name: string;
  wording: string;
  measure: Goal['measure'];
  criterion: Goal['criterion'];
  point_per: Goal['pointPer'];
  baseline_value: number | null;
  baseline_on: string | null;
  target: number;
  target_on: string;
  starts_on: string;
  planned_gap: number | null;
  phases: Phase[];
}

/** The one place where a row becomes a goal. Its JSON was checked when it was written. */
function goalFromRow(row: GoalRow): Goal {
  return {
    id: row.id,
    studentId: row.student_id,
    number: row.number,
    area: row.area,
    shortName: row.short_name,
    wording: row.wording,
    measure: row.measure,
    criterion: row.criterion,
    pointPer: row.point_per,
    baseline: row.baseline_value === null ? null : { value: row.baseline_value, on: row.baseline_on as string },
    target: row.target,
    targetOn: row.target_on,
    startsOn: row.starts_on,
    plannedGap: row.planned_gap,
    phases: row.phases,
  };
}

/** The goals of some students, in the order of their plans. Ask `studentFor` or `studentsOf` first. */
export async function goalsOf(db: Database, studentIds: readonly string[]): Promise<Goal[]> {
  const found = await db.raw<{ rows: GoalRow[] }>(
    `select g.*,
            (select coalesce(json_agg(json_build_object('label', p.label, 'startsOn', p.starts_on, 'isBaseline', p.is_baseline)
                                      order by p.starts_on), '[]')
               from goal_phases p where p.goal_id = g.id) as phases
       from goals g where g.student_id = any(?) order by g.student_id, g.position`,
    [[...studentIds]],
  );
  return found.rows.map(goalFromRow);
}

/**
 * One goal of a student. Ask `studentFor` first.
 *
 * @throws NotFound when the student has no such goal
 */
export async function goalOf(db: Database, studentId: string, goalId: string): Promise<Goal> {
  const goal = (await goalsOf(db, [studentId])).find(({ id }) => id === goalId);
  if (!goal) throw new NotFound('No such goal.');
  return goal;
}
