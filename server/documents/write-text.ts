// Runs in a thread.
import {
  AlignmentType,
  convertMillimetersToTwip,
  Document,
  Footer,
  Header,
  HeadingLevel,
  ImageRun,
  Packer,
  PageBreak,
  PageNumber,
  Paragraph,
  Table,
  TableCell,
  TableLayoutType,
  TableRow,
  TextRun,
} from 'docx';
import sharp from 'sharp';
import { type DocumentBlock, leadsOn, type ReportDocument } from '~/core/documents/document';
import { inPieces } from '~/core/documents/long-text';
import { graphKey } from '~/core/progress/graph/graph-key';
import { type PageSize, pageDimensions } from '~/core/school/page-size';
import { type RichParagraph, runsOf } from '~/core/words/rich-text';
import { columnWidths } from './columns';
import { graphSizes, graphSvg } from './graph-svg';

/** Dots of a graph’s picture for each point on paper: a text document cannot be relied on to show a drawing. */
const SHARPNESS = 3;
const quiet = '4D5758';
const levels = { 1: HeadingLevel.HEADING_1, 2: HeadingLevel.HEADING_2, 3: HeadingLevel.HEADING_3 };
/** Sizes are half points here, lengths twentieths of a point. */
const BODY = 22;
const SMALL = 18;
const twips = (points: number) => Math.round(points * 20);
const MARGIN = 54;

interface TextAsked {
  /** A document, as JSON. */
  report: string;
  paper: PageSize;
}

/** The task behind `documentDocx`. */
export const writeText = ({ report, paper }: TextAsked): Promise<Uint8Array> => textDocument(JSON.parse(report), paper);

async function textDocument(report: ReportDocument, paper: PageSize): Promise<Uint8Array> {
  const width = pageDimensions[paper].width - 2 * MARGIN;
  const drawn = report.blocks.map((block, at) => blockContent(block, leadsOn(report.blocks, at), width));
  const heading = (size: number, before: number, after: number) => ({
    run: { size, bold: true, color: '333D3E' },
    paragraph: { keepNext: true, keepLines: true, spacing: { before: twips(before), after: twips(after) } },
  });
  const document = new Document({
    title: report.title,
    creator: 'Gentle Margin',
    styles: {
      paragraphStyles: [{ id: 'Footing', name: 'Footing', run: { size: SMALL, color: quiet } }],
      default: {
        document: { run: { font: 'Arial', size: BODY, language: { value: 'en-US' } } },
        heading1: heading(40, 0, 8),
        heading2: heading(28, 16, 6),
        heading3: heading(24, 10, 4),
      },
    },
    numbering: {
      config: [
        {
          reference: 'numbers',
          levels: [{ level: 0, format: 'decimal', text: '%1.', alignment: AlignmentType.START }],
        },
      ],
    },
    sections: [
      {
        properties: {
          page: {
            size: { width: twips(pageDimensions[paper].width), height: twips(pageDimensions[paper].height) },
            margin: {
              ...{ left: twips(MARGIN), right: twips(MARGIN), top: twips(68), bottom: twips(60) },
              ...{ header: convertMillimetersToTwip(11), footer: convertMillimetersToTwip(10) },
            },
          },
        },
        headers: {
          default: new Header({
            children: [new Paragraph({ children: [new TextRun({ text: report.head, bold: true, size: SMALL })] })],
          }),
        },
        footers: { default: new Footer({ children: [pageNumber()] }) },
        children: (await Promise.all(drawn)).flat(),
      },
    ],
  });
  return Packer.toBuffer(document);
}

const pageNumber = () =>
  new Paragraph({
    ...{ style: 'Footing', alignment: AlignmentType.RIGHT },
    children: [new TextRun({ children: ['Page ', PageNumber.CURRENT, ' of ', PageNumber.TOTAL_PAGES] })],
  });

/**
 * @param keepsNext  whether it stays on the page of what comes after it
 * @param width  of the page without its margins, in points
 */
async function blockContent(block: DocumentBlock, keepsNext: boolean, width: number): Promise<(Paragraph | Table)[]> {
  switch (block.kind) {
    case 'heading':
      return [new Paragraph({ text: block.text, heading: levels[block.level] })];
    case 'text':
      return [paragraph(block.text, block.quiet ? { color: quiet } : {}, { keepNext: keepsNext })];
    case 'rich':
      return block.words.content.flatMap((one) =>
        one.type === 'paragraph'
          ? [richParagraph(one)]
          : one.content.flatMap(({ content }) =>
              content.map((inside) =>
                richParagraph(
                  inside,
                  one.type === 'bulletList'
                    ? { bullet: { level: 0 } }
                    : { numbering: { reference: 'numbers', level: 0 } },
                ),
              ),
            ),
      );
    case 'facts':
      return block.facts.map(
        ([name, value]) =>
          new Paragraph({
            keepNext: keepsNext,
            spacing: { after: twips(2) },
            children: [new TextRun({ text: `${name}: `, bold: true }), new TextRun(value)],
          }),
      );
    case 'graph': {
      const said = [block.graph.caption, graphKey(block.graph)].join(' ');
      return [await picture(block, width), paragraph(said, { color: quiet })];
    }
    case 'table':
      return [table(block, width, { isRuled: false })];
    case 'sheet':
      return [table(block, width, { isRuled: true, height: block.height })];
    case 'pageBreak':
      return [new Paragraph({ children: [new PageBreak()] })];
    case 'signatures':
      return block.names.map((name, at) =>
        paragraph(
          `______________________________  ${name}, date`,
          {},
          {
            ...{ spacing: { before: twips(20), after: twips(4) }, keepLines: true },
            keepNext: at < block.names.length - 1,
          },
        ),
      );
  }
}

const paragraph = (text: string, form: { color?: string; size?: number }, around: object = {}) =>
  new Paragraph({
    spacing: { after: twips(4) },
    ...around,
    children: text.split('\n').map((line, i) => new TextRun({ text: line, ...form, ...(i > 0 && { break: 1 }) })),
  });

const richParagraph = (one: RichParagraph, form: object = {}) =>
  new Paragraph({
    ...form,
    spacing: { after: twips(4) },
    children: runsOf(one).map(({ text, bold, italic }) =>
      text === '\n' ? new TextRun({ break: 1 }) : new TextRun({ text, bold, italics: italic }),
    ),
  });

async function picture(
  { graph, isSmall }: Extract<DocumentBlock, { kind: 'graph' }>,
  width: number,
): Promise<Paragraph> {
  const size = isSmall ? 'small' : 'large';
  const svg = Buffer.from(graphSvg(graph, { size }));
  const data = await sharp(svg, { density: 72 * SHARPNESS })
    .png()
    .toBuffer();
  const altText = { title: 'Graph', description: graph.caption, name: 'Graph' };
  const { height } = graphSizes[size];
  // Pixels of 1/96 inch here.
  const transformation = { width: (width * 96) / 72, height: (((height * width) / graphSizes[size].width) * 96) / 72 };
  return new Paragraph({ keepNext: true, children: [new ImageRun({ type: 'png', data, transformation, altText })] });
}

interface Form {
  /** Whether it is a sheet to write on. */
  isRuled: boolean;
  /** Of a row, in points. */
  height?: number;
}

function table(
  block: Pick<Extract<DocumentBlock, { kind: 'table' }>, 'columns' | 'rows' | 'widths'>,
  width: number,
  { isRuled, height }: Form,
): Table {
  const known = columnWidths(block);
  const rest = width - known.reduce<number>((sum, one) => sum + (one ?? 0), 0);
  const wide = known.filter((one) => one === null).length;
  const widths = known.map((one) => twips(one ?? rest / wide));
  const row = (cells: string[], isHead: boolean) =>
    new TableRow({
      tableHeader: isHead,
      ...(height && !isHead ? { height: { value: twips(height), rule: 'atLeast' as const } } : {}),
      // What is taller than a page has to go on on the next.
      cantSplit: cells.every((text) => inPieces(text).length === 1),
      children: cells.map(
        (text, at) =>
          new TableCell({
            width: { size: widths[at] ?? 0, type: 'dxa' },
            children: text.split('\n').map((line) => headOr(line, isHead)),
          }),
      ),
    });
  const none = { style: 'none' as const, size: 0, color: 'auto' };
  const line = { style: 'single' as const, size: 4, color: 'DCD9D0' };
  return new Table({
    layout: TableLayoutType.FIXED,
    columnWidths: widths,
    margins: { left: twips(4), right: twips(4), top: twips(3), bottom: twips(3) },
    ...(isRuled
      ? {}
      : {
          borders: { top: none, left: none, right: none, insideVertical: none, bottom: line, insideHorizontal: line },
        }),
    rows: [row(block.columns, true), ...block.rows.map((cells) => row(cells, false))],
  });
}

const headOr = (text: string, isHead: boolean) => new Paragraph({ children: [new TextRun({ text, bold: isHead })] });
