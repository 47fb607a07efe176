import { PDFDocument, PDFName, PDFString } from 'pdf-lib';
import pdfmake from 'pdfmake';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { DocumentBlock, ReportDocument } from '~/core/documents/document';
import { longRows } from '~/core/documents/long-text';
import { type RichBlock, type RichParagraph, runsOf } from '~/core/words/rich-text';
import { fonts, inSets } from './fonts';
import { graphSvg } from './graph-svg';

pdfmake.setFonts(fonts);
// Nothing is fetched for a document, and no file of this machine is read for one but its fonts.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => path.includes('@fontsource'));

const CREATOR = 'Gentle Margin';
/** Signs of what is kept together: well below a page. */
const LONGEST_GROUP = 2500;
const quiet = '#5c6566';

/** One student’s document as a PDF: real text in embedded fonts, graphs as drawings, its head on every page. */
export async function documentPdf(document: ReportDocument): Promise<Buffer> {
  const definition: TDocumentDefinitions = {
    info: { title: document.title, creator: CREATOR, producer: CREATOR },
    ...{ language: 'en-US', displayTitle: true, tagged: true },
    pageSize: 'LETTER',
    pageMargins: [54, 64, 54, 54],
    defaultStyle: { font: 'Text', fontSize: 10, lineHeight: 1.25 },
    header: () => ({ text: inSets(document.head, 'Text'), fontSize: 8.5, bold: true, margin: [54, 30, 54, 0] }),
    footer: (page, pages) => ({
      text: `Page ${page} of ${pages}`,
      ...{ fontSize: 8, color: quiet, alignment: 'right', margin: [54, 12, 54, 0] },
    }),
    content: keptTogether(document.blocks),
  };
  return pdfmake.createPdf(definition).getBuffer();
}

/** What stands below a heading stays on its page with it, up to the first graph, table or own words. */
function keptTogether(blocks: readonly DocumentBlock[]): Content[] {
  const groups: DocumentBlock[][] = [];
  for (const block of blocks) {
    const last = groups.at(-1);
    // A third heading goes with what is above it, a fourth of its kind does not: each begins an entry of its own.
    const isAnother =
      block.kind === 'heading' && block.level === 3 && last?.some((one) => one.kind === 'heading' && one.level === 3);
    const begins = (block.kind === 'heading' && block.level === 2) || isAnother;
    const follows = ['heading', 'text', 'facts'].includes(block.kind) && last?.[0]?.kind === 'heading';
    if (last && follows && !begins) last.push(block);
    else groups.push([block]);
  }
  // What is taller than a page cannot be kept together: it would not be there at all.
  const fits = (group: DocumentBlock[]) => group.length > 1 && JSON.stringify(group).length < LONGEST_GROUP;
  return groups.map((group) => ({ stack: group.map(blockContent), unbreakable: fits(group) }));
}

function blockContent(block: DocumentBlock): Content {
  switch (block.kind) {
    case 'heading': {
      const size = { 1: 22, 2: 14, 3: 11 }[block.level];
      const above = { 1: 0, 2: 14, 3: 6 }[block.level];
      return {
        text: inSets(block.text, 'Heading'),
        ...{ fontSize: size, margin: [0, above, 0, 3] },
      };
    }
    case 'text':
      return {
        text: inSets(block.text, 'Text'),
        margin: [0, 0, 0, 4],
        ...(block.quiet && { color: quiet, fontSize: 9 }),
      };
    case 'rich':
      return { stack: block.words.content.map(richContent), margin: [0, 4, 0, 6] };
    case 'facts':
      return {
        table: {
          widths: [80, '*'],
          body: block.facts.map(([name, value]) => [
            { text: name, bold: true, fontSize: 9 },
            { text: inSets(value, 'Text'), fontSize: 9 },
          ]),
        },
        layout: 'noBorders',
        margin: [0, 2, 0, 4],
      };
    case 'graph':
      return {
        stack: [
          { svg: graphSvg(block.graph), width: 480 },
          { text: inSets(block.graph.caption, 'Text'), fontSize: 8.5, color: quiet },
        ],
        unbreakable: true,
        margin: [0, 4, 0, 6],
      };
    case 'table':
      return {
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: block.widths.map((width) => (width === 'wide' ? '*' : 'auto')),
          body: [
            block.columns.map((text) => ({ text, bold: true, fontSize: 9 })),
            ...longRows(block.rows).map((row) => row.map((text, at) => cell(text, at === 0))),
          ],
        },
        layout: {
          hLineWidth: () => 0.5,
          vLineWidth: () => 0,
          hLineColor: () => '#dcd9d0',
          paddingTop: () => 3,
          paddingBottom: () => 3,
        },
      };
    case 'signatures':
      return {
        columns: block.names.map((name) => ({
          text: `\n\n______________________________\n${name}, date`,
          fontSize: 9,
        })),
        columnGap: 14,
        unbreakable: true,
        margin: [0, 18, 0, 0],
      };
  }
}

/** A cell of a table; one that names its row keeps its lines whole. */
const cell = (text: string, isName: boolean): Content =>
  isName
    ? { stack: text.split('\n').map((line) => ({ text: inSets(line, 'Text'), noWrap: true })), fontSize: 9 }
    : { text: inSets(text, 'Text'), fontSize: 9 };

const paragraphContent = (paragraph: RichParagraph): Content => ({
  text: runsOf(paragraph).flatMap(({ text, bold, italic }) =>
    inSets(text, 'Text').map((part) => ({ ...part, bold, italics: italic })),
  ),
  margin: [0, 0, 0, 4],
});

function richContent(block: RichBlock): Content {
  if (block.type === 'paragraph') return paragraphContent(block);
  const items = block.content.map(({ content }): Content => ({ stack: content.map(paragraphContent) }));
  return block.type === 'bulletList' ? { ul: items } : { ol: items };
}

/** Several documents in one file, one after the other, each beginning on a page of its own. */
export async function joinPdfs(title: string, parts: readonly Uint8Array[]): Promise<Buffer> {
  const joined = await PDFDocument.create();
  for (const part of parts) {
    const document = await PDFDocument.load(part);
    for (const page of await joined.copyPages(document, document.getPageIndices())) joined.addPage(page);
  }
  joined.setTitle(title, { showInWindowTitleBar: true });
  joined.setCreator(CREATOR);
  joined.setProducer(CREATOR);
  joined.catalog.set(PDFName.of('Lang'), PDFString.of('en-US'));
  return Buffer.from(await joined.save());
}

/** How many pages a PDF has. */
export const pagesOf = async (pdf: Uint8Array): Promise<number> => (await PDFDocument.load(pdf)).getPageCount();
