import type { GoalGraph } from '../progress/graph/goal-graph';
import type { GoalReport } from '../progress-report/content';
import type { Shows } from '../sharing/visibility-rule';
import type { DocumentBlock } from './document';

/** A goal as a report begins with it: what its reader needs before the entries. */
export interface GoalAtFirst {
  goalId: string;
  title: string;
  wording: string;
  /** Where the student stands; null for a reader who is shown no figures. */
  stands: string | null;
  /** The decision’s word and mark, and what it means. */
  decision: { label: string; mark: string; means: string } | null;
  target: string;
  evidence: string;
  graph: GoalGraph | null;
}

/** A goal as this reader may see it: without figures, neither where it stands nor what follows from them. */
export function goalAtFirst(goal: GoalReport, shows: Shows): GoalAtFirst {
  const { goalId, number, shortName, wording, target, evidence } = goal;
  const about = { goalId, title: `${number} · ${shortName}`, wording, target, evidence };
  if (!shows.has('numbers')) {
    return { ...about, stands: null, decision: null, graph: null };
  }
  const { label, mark, means = '' } = goal.decision;
  return { ...about, stands: standsSaid(goal), decision: { label, mark, means }, graph: goal.graph };
}

function standsSaid({ now, baseline }: GoalReport): string {
  const began = baseline === null ? '' : `; it began at ${baseline}`;
  return now === null ? `Nothing scored yet in this phase${began}.` : `Now ${now}${began}.`;
}

/** The goals at the beginning of a document. */
export function firstPageBlocks(goals: readonly GoalAtFirst[], { withGraphs = true } = {}): DocumentBlock[] {
  return goals.flatMap(({ title, wording, stands, decision, target, evidence, graph }): DocumentBlock[] => [
    { kind: 'heading', level: 2, text: title },
    { kind: 'text', text: wording },
    {
      kind: 'facts',
      facts: [
        ...(stands ? [['Where they stand', stands] satisfies [string, string]] : []),
        ...(decision ? [[decision.label, decision.means] satisfies [string, string]] : []),
        ['Target', `${target}.`],
        ['Observed', evidence],
      ],
    },
    ...(graph && withGraphs ? [{ kind: 'graph' as const, graph, isSmall: true }] : []),
  ]);
}
