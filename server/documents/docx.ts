import {
  AlignmentType,
  Document,
  Header,
  HeadingLevel,
  ImageRun,
  Packer,
  Paragraph,
  Table,
  TableCell,
  TableRow,
  TextRun,
  WidthType,
} from 'docx';
import sharp from 'sharp';
import type { DocumentBlock, ReportDocument } from '~/core/documents/document';
import { inPieces } from '~/core/documents/long-text';
import { type RichParagraph, runsOf } from '~/core/words/rich-text';
import { GRAPH_SIZE, graphSvg } from './graph-svg';

/** Dots of a graph’s picture for each point on paper: a text document cannot be relied on to show a drawing. */
const SHARPNESS = 3;
const quiet = '5C6566';
const levels = { 1: HeadingLevel.HEADING_1, 2: HeadingLevel.HEADING_2, 3: HeadingLevel.HEADING_3 };

/** A document as a text document (Office Open XML), to be worked on further. */
export async function documentDocx(report: ReportDocument): Promise<Buffer> {
  const children = (await Promise.all(report.blocks.map(blockContent))).flat();
  const document = new Document({
    title: report.title,
    creator: 'Gentle Margin',
    styles: { default: { document: { run: { font: 'Arial', size: 20, language: { value: 'en-US' } } } } },
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
        headers: {
          default: new Header({
            children: [new Paragraph({ children: [new TextRun({ text: report.head, bold: true, size: 17 })] })],
          }),
        },
        children,
      },
    ],
  });
  return Packer.toBuffer(document);
}

async function blockContent(block: DocumentBlock): Promise<(Paragraph | Table)[]> {
  switch (block.kind) {
    case 'heading':
      return [new Paragraph({ text: block.text, heading: levels[block.level], spacing: { before: 200, after: 60 } })];
    case 'text':
      return [paragraph(block.text, block.quiet ? { color: quiet, size: 18 } : {})];
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
          new Paragraph({ children: [new TextRun({ text: `${name}: `, bold: true }), new TextRun(value)] }),
      );
    case 'graph':
      return [await picture(block.graph), paragraph(block.graph.caption, { color: quiet, size: 17 })];
    case 'table':
      return [table(block)];
    case 'signatures':
      return block.names.map((name) => paragraph(`______________________________  ${name}, date`, {}, 400));
  }
}

const paragraph = (text: string, form: { color?: string; size?: number }, before = 0) =>
  new Paragraph({
    spacing: { before, after: 80 },
    children: text.split('\n').map((line, i) => new TextRun({ text: line, ...form, ...(i > 0 && { break: 1 }) })),
  });

const richParagraph = (one: RichParagraph, form: object = {}) =>
  new Paragraph({
    ...form,
    spacing: { after: 80 },
    children: runsOf(one).map(({ text, bold, italic }) =>
      text === '\n' ? new TextRun({ break: 1 }) : new TextRun({ text, bold, italics: italic }),
    ),
  });

async function picture(graph: Parameters<typeof graphSvg>[0]): Promise<Paragraph> {
  const svg = Buffer.from(graphSvg(graph).replaceAll('font-family="Text"', 'font-family="Arial, sans-serif"'));
  const data = await sharp(svg, { density: 72 * SHARPNESS })
    .png()
    .toBuffer();
  const altText = { title: 'Graph', description: graph.caption, name: 'Graph' };
  return new Paragraph({ children: [new ImageRun({ type: 'png', data, transformation: GRAPH_SIZE, altText })] });
}

function table({ columns, rows }: Extract<DocumentBlock, { kind: 'table' }>): Table {
  const row = (cells: string[], isHead: boolean) =>
    new TableRow({
      tableHeader: isHead,
      // What is taller than a page has to go on on the next.
      cantSplit: cells.every((text) => inPieces(text).length === 1),
      children: cells.map((text) => new TableCell({ children: text.split('\n').map((line) => headOr(line, isHead)) })),
    });
  return new Table({
    width: { size: 100, type: WidthType.PERCENTAGE },
    rows: [row(columns, true), ...rows.map((cells) => row(cells, false))],
  });
}

const headOr = (text: string, isHead: boolean) =>
  new Paragraph({ children: [new TextRun({ text, bold: isHead, size: 18 })] });
