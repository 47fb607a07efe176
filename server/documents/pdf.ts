import { type DocumentBlock, leadsOn, type ReportDocument } from '~/core/documents/document';
import { missingLetters, withoutMissing } from '~/core/documents/letters';
import { graphKey } from '~/core/progress/graph/graph-key';
import type { PageSize } from '~/core/school/page-size';
import { type RichBlock, runsOf } from '~/core/words/rich-text';
import { columnWidths, nameWidth } from './columns';
import { faces, loadFonts } from './fonts';
import { graphSvg } from './graph-svg';
import { template } from './template';
import { type Typeset, typeset } from './typesetting';

/** One student’s document as a PDF: real text in embedded fonts, graphs as drawings, its head on every page. */
export const documentPdf = async (document: ReportDocument, paper: PageSize): Promise<Buffer> =>
  (await documentsPdf(document.title, [document], paper)).pdf;

/**
 * Several documents in one file, one after the other: each begins on the front of a sheet, counts its own pages, and has its bookmarks.
 * Letters that no font has stand as a box, which the document says.
 */
export async function documentsPdf(
  title: string,
  documents: readonly ReportDocument[],
  paper: PageSize,
): Promise<Typeset> {
  const { letters } = await loadFonts();
  const has = (code: number) => letters.has(code);
  const content = {
    title: withoutMissing(title, has),
    faces,
    paper: paper === 'a4' ? 'a4' : 'us-letter',
    documents: documents.map((document) => ({
      head: document.head,
      wide: document.isWide ?? false,
      blocks: laidOut(saidMissing(document, missingLetters(document, has))),
    })),
  };
  return typeset(template, withoutMissing(content, has));
}

/** The same with a line on the letters that it cannot show, right below its name. */
function saidMissing(document: ReportDocument, missing: readonly string[]): readonly DocumentBlock[] {
  if (missing.length === 0) return document.blocks;
  const [first, ...rest] = document.blocks;
  const text =
    'Some letters cannot be printed here and stand as □. The text document (DOCX) of the same report has all of them.';
  return [...(first ? [first] : []), { kind: 'text', quiet: true, text }, ...rest];
}

/** What stays on a page with what comes after it, up to a graph: a heading always does, these do when they are short. */
const LONGEST_KEPT = 1200;
/** Signs of a table’s row that is kept whole: well below a page. */
const LONGEST_ROW = 1500;
/** Rows of a table that are set together; a longer one goes on in the next stretch, on a page of its own. */
const LONGEST_STRETCH = 750;

/** A table as the template draws it: in stretches where it is long, since what stands between two page breaks is set at the same time as all other such. */
function tableStretches(block: DocumentBlock & { kind: 'table' }): object[] {
  const widths = columnWidths(block);
  const rows = block.rows.map((cells) => ({ cells, breaks: cells.some((text) => text.length > LONGEST_ROW) }));
  const count = Math.max(1, Math.ceil(rows.length / LONGEST_STRETCH));
  const length = Math.ceil(rows.length / count);
  return Array.from({ length: count }, (_, at) => [
    ...(at === 0 ? [] : [{ kind: 'pageBreak' }]),
    { ...block, widths, rows: rows.slice(at * length, (at + 1) * length) },
  ]).flat();
}

/** Blocks as the template draws them. */
function laidOut(blocks: readonly DocumentBlock[]): object[] {
  let deepest = 0;
  const width = nameWidth(blocks.flatMap((block) => (block.kind === 'facts' ? block.facts.map(([name]) => name) : [])));
  return blocks.flatMap((block, at): object | object[] => {
    switch (block.kind) {
      case 'heading':
        // No level is skipped (ISO 14289-1, 7.4.2).
        deepest = Math.min(block.level, deepest + 1);
        return { ...block, level: deepest };
      case 'text':
        return {
          ...block,
          quiet: block.quiet ?? false,
          sticky: leadsOn(blocks, at) && block.text.length < LONGEST_KEPT,
        };
      case 'facts':
        return { ...block, sticky: leadsOn(blocks, at), width };
      case 'rich':
        return { kind: 'rich', content: block.words.content.map(richContent) };
      case 'graph':
        return {
          ...{
            kind: 'graph',
            svg: graphSvg(block.graph, { size: block.isSmall ? 'small' : 'large', face: faces.text[0] }),
            alt: `Graph. ${block.graph.caption}`,
          },
          caption: [block.graph.caption, graphKey(block.graph)].join(' '),
        };
      case 'table':
        return tableStretches(block);
      case 'sheet':
        return { ...block, widths: columnWidths(block) };
      default:
        return block;
    }
  });
}

function richContent(block: RichBlock): object {
  if (block.type === 'paragraph') return { type: 'paragraph', runs: runsOf(block) };
  return { type: block.type, items: block.content.map(({ content }) => content.map(runsOf)) };
}
