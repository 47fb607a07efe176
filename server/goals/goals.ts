import type { IsoDate } from '~/core/calendar/iso-date';
import type { GoalDefinition, Phase } from '~/core/goals/goal';
import type { MeasureDefinition } from '~/core/measures/measure';
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
  /** Counts the ways in which it has been measured; entries keep the one they were made under. */
  version: number;
  /** How it was measured in earlier versions. */
  formerMeasures: Record<number, MeasureDefinition>;
  /** By whom and where it should be observed; nobody and nowhere in particular when empty. */
  observerIds: string[];
  settingIds: string[];
  retired: Retirement | null;
  editedAt: string | null;
}

export interface Retirement {
  on: IsoDate;
  how: 'met' | 'discontinued' | 'replaced';
  replacedBy: string | null;
  note: string;
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
  version: number;
  former_measures: Record<number, MeasureDefinition> | null;
  observer_ids: string[];
  setting_ids: string[];
  retired_on: string | null;
  retired_how: Retirement['how'] | null;
  replaced_by: string | null;
  retired_note: string;
  edited_at: Date | null;
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
    version: row.version,
    formerMeasures: row.former_measures ?? {},
    observerIds: row.observer_ids,
    settingIds: row.setting_ids,
    retired:
      row.retired_on === null || row.retired_how === null
        ? null
        : { on: row.retired_on, how: row.retired_how, replacedBy: row.replaced_by, note: row.retired_note },
    editedAt: row.edited_at?.toISOString() ?? null,
  };
}

/** The goals of some students, retired ones too, in the order of their plans. Ask `studentFor` or `studentsOf` first. */
export async function goalsOf(db: Database, studentIds: readonly string[]): Promise<Goal[]> {
  const found = await db.raw<{ rows: GoalRow[] }>(
    `select g.*,
            (select coalesce(json_agg(json_build_object('label', p.label, 'startsOn', p.starts_on, 'isBaseline', p.is_baseline)
                                      order by p.starts_on), '[]')
               from goal_phases p where p.goal_id = g.id) as phases,
            (select json_object_agg(v.version, v.measure) from goal_versions v where v.goal_id = g.id) as former_measures,
            array(select person_id from goal_observers o where o.goal_id = g.id) as observer_ids,
            array(select setting_id from goal_settings s where s.goal_id = g.id) as setting_ids
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

/** The goals that are worked on: all that are not retired. */
export const goalsWorkedOn = (goals: readonly Goal[]): Goal[] => goals.filter(({ retired }) => retired === null);

/** How a goal was measured in one of its versions. */
export function measureAt(goal: Pick<Goal, 'measure' | 'formerMeasures'>, version: number): MeasureDefinition {
  return goal.formerMeasures[version] ?? goal.measure;
}
