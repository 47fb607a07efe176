import { z } from 'zod';
import type { IsoDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import type { GoalDefinition, Phase } from '~/core/goals/goal';
import type { CriterionDefinition } from '~/core/measures/criterion-definition';
import type { MeasureDefinition } from '~/core/measures/measure';
import type { Database } from '../platform/db/database';
import { rowsOf, written } from '../platform/db/rows';
import { NotFound } from '../platform/failures';
import { readStudent, type StudentAccess } from '../students/access';

/** A goal as the plan words it, with what the computation needs. */
export interface Goal extends GoalDefinition {
  id: string;
  studentId: StudentAccess<'read'>;
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
  locationIds: string[];
  retired: Retirement | null;
  editedAt: string | null;
  /** Whether what the student enters at their own desk makes its figures. */
  selfCounts: boolean;
}

export interface Retirement {
  on: IsoDate;
  how: 'met' | 'discontinued' | 'replaced';
  replacedBy: string | null;
  note: string;
}

const goalRow = z.object({
  id: z.string(),
  student_id: readStudent,
  number: z.string(),
  area: z.string(),
  short_name: z.string(),
  wording: z.string(),
  comparison: written<CriterionDefinition['comparison']>(),
  criterion_value: z.number(),
  rule: written<CriterionDefinition['rule']['kind']>(),
  rule_k: z.number(),
  rule_n: z.number(),
  minimum_opportunities: z.number(),
  distinct_locations: z.number(),
  distinct_observers: z.number(),
  point_per: written<Goal['pointPer']>(),
  baseline_value: z.number().nullable(),
  baseline_on: z.string().nullable(),
  target: z.number(),
  target_on: z.string(),
  starts_on: z.string(),
  planned_gap: z.number().nullable(),
  phases: written<Phase[]>(),
  measure_version: z.number(),
  /** By version. */
  measures: written<Record<string, MeasureDefinition>>(),
  observer_ids: z.array(z.string()),
  location_ids: z.array(z.string()),
  retired_on: z.string().nullable(),
  retired_how: written<Retirement['how'] | null>(),
  replaced_by: z.string().nullable(),
  retired_note: z.string(),
  edited_at: z.union([z.date(), z.string()]).nullable(),
  /** Missing in what goals said before this was asked for. */
  target_since: z.string().nullish(),
  self_counts: z.boolean().nullish(),
});
type GoalRow = z.infer<typeof goalRow>;

/** The one place where a row becomes a goal. Its JSON was checked when it was written. */
function goalFromRow(row: GoalRow): Goal {
  const { [row.measure_version]: measure, ...former } = row.measures;
  return {
    id: row.id,
    studentId: row.student_id,
    number: row.number,
    area: row.area,
    shortName: row.short_name,
    wording: row.wording,
    measure: defined(measure),
    criterion: criterionFrom(row),
    pointPer: row.point_per,
    baseline: row.baseline_value === null ? null : { value: row.baseline_value, on: defined(row.baseline_on) },
    target: row.target,
    targetOn: row.target_on,
    targetSince: row.target_since ?? null,
    startsOn: row.starts_on,
    plannedGap: row.planned_gap,
    phases: row.phases,
    version: row.measure_version,
    formerMeasures: former,
    observerIds: row.observer_ids,
    locationIds: row.location_ids,
    retired:
      row.retired_on === null || row.retired_how === null
        ? null
        : { on: row.retired_on, how: row.retired_how, replacedBy: row.replaced_by, note: row.retired_note },
    editedAt: row.edited_at === null ? null : new Date(row.edited_at).toISOString(),
    selfCounts: row.self_counts ?? true,
  };
}

const criterionFrom = (row: GoalRow): CriterionDefinition => ({
  comparison: row.comparison,
  value: row.criterion_value,
  rule: row.rule === 'ofLast' ? { kind: 'ofLast', k: row.rule_k, n: row.rule_n } : { kind: 'inARow', n: row.rule_n },
  minimumOpportunities: row.minimum_opportunities,
  distinctLocations: row.distinct_locations,
  distinctObservers: row.distinct_observers,
});

/** A criterion as columns of its goal. */
export const criterionColumns = ({ comparison, value, rule, ...more }: CriterionDefinition) => ({
  ...{ comparison, criterion_value: value },
  ...{ rule: rule.kind, rule_k: rule.kind === 'ofLast' ? rule.k : rule.n, rule_n: rule.n },
  ...{ minimum_opportunities: more.minimumOpportunities },
  ...{ distinct_locations: more.distinctLocations, distinct_observers: more.distinctObservers },
});

/** A goal’s row with what it has several of, from the row `g`. */
const goalColumns = `g.*,
  (select coalesce(json_agg(json_build_object('label', p.label, 'startsOn', p.starts_on, 'isBaseline', p.is_baseline, 'steps', p.steps)
                            order by p.starts_on), '[]')
     from goal_phases p where p.goal_id = g.id) as phases,
  (select max(cast(r.changed_at at time zone 'UTC' as date)) from goal_revisions r
    where r.goal_id = g.id and cast(r.row ->> 'criterion_value' as float) <> g.criterion_value) as target_since,
  (select json_object_agg(v.version, v.measure) from goal_measures v where v.goal_id = g.id) as measures,
  (select d.self_counts from desk_goals d where d.goal_id = g.id) as self_counts,
  array(select person_id from goal_observers o where o.goal_id = g.id) as observer_ids,
  array(select location_id from goal_locations l where l.goal_id = g.id) as location_ids`;

/** Keeps what a goal says now, before it is changed. */
export async function keepGoalRevision(db: Database, goalId: string, by: string, now: Date): Promise<void> {
  await db.raw(
    `insert into goal_revisions (goal_id, row, changed_by, changed_at)
     select id, to_jsonb(whole), :by, :now from (select ${goalColumns} from goals g where g.id = :goalId) as whole`,
    { goalId, by, now },
  );
}

export interface EarlierGoal {
  /** The day on which it was changed into what came next. */
  until: Date;
  changedBy: string;
  goal: Goal;
}

/** What a goal said before each of its changes, the newest first. */
export async function earlierGoals(db: Database, goalId: string): Promise<EarlierGoal[]> {
  const rows = await db('goal_revisions as h')
    .join('people as p', 'p.id', 'h.changed_by')
    .where({ goal_id: goalId })
    .orderBy('h.id', 'desc')
    .select<{ row: GoalRow; changed_at: Date; name: string }[]>('h.row', 'h.changed_at', 'p.name');
  return rows.map(({ row, changed_at, name }) => ({ until: changed_at, changedBy: name, goal: goalFromRow(row) }));
}

/** The goals of some students, retired ones too, in the order of their plans. */
export async function goalsOf(db: Database, studentIds: readonly StudentAccess<'read'>[]): Promise<Goal[]> {
  const found = await rowsOf(
    db,
    goalRow,

    `select ${goalColumns} from goals g where g.student_id = any(?) order by g.student_id, g.position`,
    [[...studentIds]],
  );
  return found.map(goalFromRow);
}

const goalNameRow = z.object({
  id: z.string(),
  studentId: readStudent,
  number: z.string(),
  area: z.string(),
  shortName: z.string(),
});
export type GoalName = z.infer<typeof goalNameRow>;

/**
 * What goals are called, for whoever looks one up: those that hold every word that is asked for, in the goal’s name or its student’s.
 * Retired ones too, after the others.
 *
 * @param words  in small letters
 */
export async function goalNames(
  db: Database,
  studentIds: readonly StudentAccess<'read'>[],
  { words, limit }: { words: readonly string[]; limit: number },
): Promise<GoalName[]> {
  return rowsOf(
    db,
    goalNameRow,
    `select g.id, g.student_id as "studentId", g.number, g.area, g.short_name as "shortName"
       from goals g join students s on s.id = g.student_id
      where g.student_id = any(:studentIds)
            and not exists (select from unnest(cast(:words as text[])) as word
                             where strpos(lower(concat_ws(' ', g.number, '·', g.short_name, g.area, s.short_name)), word) = 0)
      order by g.retired_on is not null, g.student_id, g.position limit :limit`,
    { studentIds: [...studentIds], words: [...words], limit },
  );
}

/**
 * One goal of a student.
 *
 * @throws NotFound when the student has no such goal
 */
export async function goalOf(db: Database, studentId: StudentAccess<'read'>, goalId: string): Promise<Goal> {
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

/** Of these goals, those of which anything was ever recorded, and whether anything was scored: a withdrawn score is none. */
export async function recordedGoals(db: Database, goalIds: readonly string[]): Promise<Map<string, boolean>> {
  const rows: { goal_id: string; scored: boolean }[] = await db('entries')
    .whereIn('goal_id', goalIds)
    .groupBy('goal_id')
    .select('goal_id', db.raw('bool_or(data is not null and not withdrawn) as scored'));
  return new Map(rows.map(({ goal_id, scored }) => [goal_id, scored]));
}

export const NOT_MET = 'Nothing was scored for this goal, so it cannot be met.';

/** Whether anything was recorded, withdrawn or not, under a version of a goal. */
export async function hasEntries(db: Database, goalId: string, version: number): Promise<boolean> {
  return (await db('entries').where({ goal_id: goalId, measure_version: version }).first('id')) !== undefined;
}
