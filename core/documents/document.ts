import type { GoalGraph } from '../progress/graph/goal-graph';
import type { RichText } from '../words/rich-text';

/** What documents of a school are printed on. */
export const papers = ['letter', 'a4'] as const;
export type Paper = (typeof papers)[number];

/** Their width and height, in points (ANSI/ASME Y14.1; ISO 216). */
export const paperSize: Record<Paper, { width: number; height: number }> = {
  letter: { width: 612, height: 792 },
  a4: { width: 595, height: 842 },
};

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
