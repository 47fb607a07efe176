import type { DocumentBlock, ReportDocument } from '~/core/documents/document';
import { graphPicture } from '~/server/documents/graph-svg';

/** A document as a page draws it: graphs as pictures that need no script. */
export type ShownBlock = Exclude<DocumentBlock, { kind: 'graph' }> | { kind: 'drawing'; src: string; caption: string };
export interface ShownDocument extends Omit<ReportDocument, 'blocks'> {
  blocks: ShownBlock[];
}

export function shownDocument(paper: ReportDocument): ShownDocument {
  const blocks = paper.blocks.map((block): ShownBlock => {
    if (block.kind !== 'graph') return block;
    return { kind: 'drawing', src: graphPicture(block.graph), caption: block.graph.caption };
  });
  return { ...paper, blocks };
}
