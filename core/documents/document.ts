import type { GoalGraph } from '../progress/graph/goal-graph';
import type { RichText } from '../words/rich-text';

/** One student’s document, before it is a PDF or a text document: what stands on it, from top to bottom. */
export interface ReportDocument {
  title: string;
  /** Stands at the head of each page, so that each stands alone: whose it is and what. */
  head: string;
  blocks: DocumentBlock[];
}

export type DocumentBlock =
  | { kind: 'heading'; text: string; level: 1 | 2 | 3 }
  | { kind: 'text'; text: string; quiet?: boolean }
  /** Own words; `place` is the goal that they are about, or null for the whole. */
  | { kind: 'rich'; words: RichText; place: string | null }
  /** Pairs of a name and what it is. */
  | { kind: 'facts'; facts: [name: string, value: string][] }
  | { kind: 'graph'; graph: GoalGraph }
  | { kind: 'table'; columns: string[]; widths: ('auto' | 'wide')[]; rows: string[][] }
  | { kind: 'signatures'; names: string[] };
