import { outcomeSentence, type ReportEntry } from '~/core/report/report';
import type { Database } from '../db/database';
import { type Goal, measureAt } from '../goals/goals';
import { type Observation, observationsOf } from '../observations/read';

/**
 * The entries of some goals as the report says them, newest first. A view: nothing of it is stored.
 * Ask `studentFor` or `studentsOf` first.
 */
export async function reportEntries(
  db: Database,
  goals: readonly Goal[],
  options: { goalId?: string | undefined; limit?: number } = {},
): Promise<ReportEntry[]> {
  const byId = new Map(goals.map((goal) => [goal.id, goal]));
  const observations = await observationsOf(db, [...new Set(goals.map((goal) => goal.studentId))], options);
  return observations.map((observation) => reportEntryOf(observation, byId.get(observation.goalId) as Goal));
}

/** An observation of a goal as the report says it. */
export function reportEntryOf(observation: Observation, goal: Goal): ReportEntry {
  return {
    id: observation.id,
    studentId: observation.studentId,
    goalId: goal.id,
    goalNumber: goal.number,
    goalName: goal.shortName,
    goalVersion: observation.goalVersion,
    on: observation.on,
    time: observation.time,
    setting: observation.settingName,
    observer: observation.observerName,
    note: observation.note,
    sentence: outcomeSentence(measureAt(goal, observation.goalVersion), observation.outcome),
    outcome: observation.outcome,
    isCorrected: observation.version > 1,
    isSecond: observation.pairsWith !== null,
  };
}
