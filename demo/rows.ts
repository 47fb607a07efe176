import type { IsoDate } from '~/core/calendar/iso-date';
import { instantAt } from '~/core/calendar/zone';
import type { FidelityMarks } from '~/core/entries/fidelity';
import type { GoalDefinition } from '~/core/goals/goal';
import { criterionColumns } from '~/server/goals/goals';
import { timeZone } from './school';

export type Row = Record<string, unknown>;

/** A goal's row: what names it, and its definition. */
export function goalRow(definition: GoalDefinition, named: Row): Row {
  return {
    ...named,
    ...criterionColumns(definition.criterion),
    point_per: definition.pointPer,
    baseline_value: definition.baseline?.value ?? null,
    baseline_on: definition.baseline?.on ?? null,
    target: definition.target,
    target_on: definition.targetOn,
    starts_on: definition.startsOn,
    planned_gap: definition.plannedGap,
  };
}

/** How a goal is measured, as the row of its first version. */
export const measureRow = (goalId: string, { measure, startsOn }: GoalDefinition): Row => ({
  ...{ goal_id: goalId, version: 1, measure: JSON.stringify(measure), from_date: startsOn },
});

/** The rows of a goal's phases. */
export const phaseRows = (goalId: string, { phases }: GoalDefinition): Row[] =>
  phases.map((phase) => ({
    goal_id: goalId,
    label: phase.label,
    starts_on: phase.startsOn,
    is_baseline: phase.isBaseline,
    steps: JSON.stringify(phase.steps ?? []),
  }));

/** When something seen at a time on the school’s wall was written down: there and then. */
export const recordedAt = (on: IsoDate, time: string): Date => instantAt({ on, time }, timeZone);

interface ObservationInTheMaking {
  goal: { id: string; studentId: string };
  on: IsoDate;
  time: string;
  observer: string | undefined;
  location: string | undefined;
  data: object | null;
  reason?: string | null;
  note: string;
  recordedTime?: string;
  fidelity?: FidelityMarks | null;
}

/** An observation's row, as it was first recorded. */
export function observationRow(id: string, made: ObservationInTheMaking): Row {
  const { goal, on, time, observer, location, data, reason = null, note, recordedTime = time } = made;
  return {
    id,
    kind: 'goal',
    goal_id: goal.id,
    measure_version: 1,
    student_id: goal.studentId,
    observed_on: on,
    observed_time: time,
    observer_id: observer,
    location_id: location,
    data: data && JSON.stringify(data),
    reason,
    note,
    fidelity: made.fidelity ? JSON.stringify(made.fidelity) : null,
    recorded_by: observer,
    recorded_at: recordedAt(on, recordedTime),
    version: 1,
    changed_by: null,
    changed_at: null,
    change_reason: null,
    withdrawn: false,
  };
}
