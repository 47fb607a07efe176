import { discreetEntry } from '~/core/goals/discreet';
import type { ReportEntry } from '~/core/individual-report/report';
import { type Goal, measureAt } from '~/server/goals/goals';
import { tonesOf } from '../platform/ui/outcome-tones';

/** An entry as the screen shows it. */
export type ShownEntry = Omit<ReportEntry, 'outcome'> & { tones: string[] };

/** Entries with their trial marks; in the discreet view without their notes. */
export function shownEntries(
  entries: readonly ReportEntry[],
  goals: readonly Goal[],
  { discreet }: { discreet: boolean },
): ShownEntry[] {
  const byId = new Map(goals.map((goal) => [goal.id, goal]));
  return entries.map((entry) => {
    const { outcome, ...rest } = discreet ? discreetEntry(entry) : entry;
    const goal = entry.goalId === null ? undefined : byId.get(entry.goalId);
    return { ...rest, tones: goal && outcome ? tonesOf(measureAt(goal, entry.goalVersion), outcome) : [] };
  });
}
