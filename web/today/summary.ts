import type { IsoDate } from '~/core/calendar/iso-date';
import { defined } from '~/core/defined';
import { discreetStudent } from '~/core/goals/discreet';
import { type DecisionIs, decisionWords } from '~/core/progress/decision-words';
import type { Goal } from '~/server/goals/goals';
import type { Standing } from '~/server/progress/progress';
import type { Student } from '~/server/students/students';
import { summaryWords } from './words';

export interface StudentSummary {
  id: string;
  name: string;
  grade: string;
  groups: string[];
  /** The goals’ numbers with their decisions, in the plan's order. */
  goals: { id: string; number: string; decision: DecisionIs; label: string; reason: string }[];
  /** The date of the newest point of any goal. */
  lastOn: IsoDate | null;
  needsAttention: boolean;
}

/** One student of a caseload in a line. */
export function summaryOf(
  student: Student,
  goals: readonly Goal[],
  standings: ReadonlyMap<string, Standing>,
  { discreet }: { discreet: boolean },
): StudentSummary {
  const own = goals.filter((goal) => goal.studentId === student.id);
  const decisions = own.map((goal) => {
    const { decision } = defined(standings.get(goal.id));
    return { id: goal.id, number: goal.number, decision: decision.is, label: decision.label, reason: decision.reason };
  });
  const dates = own.flatMap((goal) => standings.get(goal.id)?.lastOn ?? []);
  return {
    id: student.id,
    name: (discreet ? discreetStudent(student) : student).shortName,
    grade: student.grade,
    groups: student.groups,
    goals: decisions,
    lastOn: dates.sort().at(-1) ?? null,
    needsAttention: decisions.some(({ decision }) => decisionWords[decision].needsAttention),
  };
}

/** Students by class group, by the groups' names. A student of two groups stands in both. */
export function byGroup(summaries: readonly StudentSummary[]): { group: string; students: StudentSummary[] }[] {
  const groups = new Map<string, StudentSummary[]>();
  for (const summary of summaries) {
    for (const group of summary.groups.length > 0 ? summary.groups : [summaryWords.noGroupYet]) {
      const list = groups.get(group);
      if (list) list.push(summary);
      else groups.set(group, [summary]);
    }
  }
  const byName = [...groups].sort(([a], [b]) => a.localeCompare(b));
  return byName.map(([group, students]) => ({ group, students }));
}
