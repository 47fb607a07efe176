import { discreetEntry } from '~/core/goals/discreet';
import type { ReportEntry } from '~/core/individual-report/report';
import type { EntryMark } from '~/core/rules/rule';
import { type Goal, measureAt } from '~/server/goals/goals';
import { tonesOf } from '../platform/ui/outcome-tones';

/** An entry as the screen shows it. */
export type ShownEntry = Omit<ReportEntry, 'outcome'> & { tones: string[]; marks: EntryMark[]; followUps: string[] };

interface ShownWith {
  discreet: boolean;
  /** What rules say of the entries, and which follow-ups stand below them, by the entry's id. */
  marks?: Record<string, EntryMark[]>;
  followUps?: Record<string, string[]>;
}

/** Entries with their trial marks, and what rules say of them; in the discreet view without their notes. */
export function shownEntries(
  entries: readonly ReportEntry[],
  goals: readonly Goal[],
  { discreet, marks = {}, followUps = {} }: ShownWith,
): ShownEntry[] {
  const of = <T>(all: Record<string, T[]>, id: string) => (discreet ? [] : (all[id] ?? []));
  const byId = new Map(goals.map((goal) => [goal.id, goal]));
  return entries.map((entry) => {
    const { outcome, ...rest } = discreet ? discreetEntry(entry) : entry;
    const goal = entry.goalId === null ? undefined : byId.get(entry.goalId);
    return {
      ...rest,
      marks: of(marks, entry.id),
      followUps: of(followUps, entry.id),
      tones: goal && outcome ? tonesOf(measureAt(goal, entry.goalVersion), outcome) : [],
    };
  });
}
