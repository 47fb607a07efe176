import type { GoalGraph } from '../progress/graph/goal-graph';
import type { RichText } from '../words/rich-text';

/** One student’s document, before it is a PDF or a text document: what stands on it, from top to bottom. */
export interface ReportDocument {
  title: string;
  /** Stands at the head of each page, so that each stands alone: whose it is and what. */
  head: string;
  /** Laid across the paper. */
  isWide?: boolean;
  blocks: DocumentBlock[];
}

export type DocumentBlock =
  | { kind: 'heading'; text: string; level: 1 | 2 | 3 }
  | { kind: 'text'; text: string; quiet?: boolean }
  /** Own words; `place` is the goal that they are about, or null for the whole. */
  | { kind: 'rich'; words: RichText; place: string | null }
  /** Pairs of a name and what it is. */
  | { kind: 'facts'; facts: [name: string, value: string][] }
  | { kind: 'graph'; graph: GoalGraph; isSmall?: boolean }
  | { kind: 'table'; columns: string[]; widths: ('auto' | 'wide')[]; rows: string[][] }
  /** Empty rows to write in by hand; `height` of a row in points. */
  | { kind: 'sheet'; columns: string[]; widths: ('auto' | 'wide')[]; rows: string[][]; height: number }
  | { kind: 'pageBreak' }
  | { kind: 'signatures'; names: string[] };

/**
 * Whether a graph or signatures follow on a block, with nothing of another goal in between: a graph stays with its goal, and signatures with
 * what is signed.
 */
export function leadsOn(blocks: readonly DocumentBlock[], at: number): boolean {
  const next = blocks[at + 1];
  if (next?.kind === 'graph' || next?.kind === 'signatures') return true;
  const goesOn = next?.kind === 'text' || next?.kind === 'facts' || (next?.kind === 'heading' && next.level === 3);
  return goesOn && leadsOn(blocks, at + 1);
}
