import JSZip from 'jszip';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import type { ReportDocument } from '~/core/documents/document';
import { goalGraph } from '~/core/progress/graph/goal-graph';
import { progressOf } from '~/core/progress/progress';
import { textOfPdf } from '~/tests/examples/pdf-text';
import { calendar, goalOf, session } from '~/tests/examples/series';
import { documentDocx } from './docx';
import { inSets } from './fonts';
import { documentPdf, joinPdfs, pagesOf } from './pdf';

describe('a long entry on paper', () => {
  it('is all there, however long: as a PDF and as a text document', async () => {
    const long = Array.from({ length: 570 }, (_, i) => `word${i}`).join(' ');
    const thread = Array.from({ length: 8 }, (_, i) => `Aunt Ida: begin${i} ${'and so on '.repeat(190)}end${i}`).join(
      '\n',
    );
    const rows = [
      ['Mon, Nov 23\n09:00', '1 · Sands', 'First.'],
      ['Tue, Nov 24\n09:30', '1 · Sands', `3 of 4.\n${long}`],
      ['Tue, Nov 24\n10:30', '2a · Asks', thread],
      ['Wed, Nov 25\n09:00', '1 · Sands', 'Last.'],
    ];
    const table = {
      kind: 'table' as const,
      columns: ['Day', 'Of', 'Said'],
      widths: ['auto', 'auto', 'wide'] as const,
      rows,
    };
    const goalText = { kind: 'text' as const, text: `${long} wording` };
    const heading = { kind: 'heading' as const, level: 2 as const, text: 'A goal' };
    const blocks = [heading, goalText, goalText, { ...table, widths: [...table.widths] }];
    const made: ReportDocument = { title: 'x', head: 'x', blocks };
    const text = (await textOfPdf(await documentPdf(made))).pages.join(' ');
    const wanted = ['First.', 'Last.', 'word0', 'word569', 'word569 wording'];
    for (let i = 0; i < 8; i++) wanted.push(`begin${i}`, `end${i}`);
    for (const word of wanted) expect(text, word).toContain(word);
    const document = await JSZip.loadAsync(await documentDocx(made));
    const xml = (await document.file('word/document.xml')?.async('string')) ?? '';
    for (const word of wanted) expect(xml, word).toContain(word);
  });
});

const goal = goalOf({});
const sessions = ['2026-09-08', '2026-09-10', '2026-09-15', '2026-09-22'].map((on, i) => session(on, i + 1));
const graph = goalGraph(goal, progressOf(goal, sessions, { calendar, today: '2026-09-30' }), [], '2026-09-30');
const document = (name: string, rows = 80): ReportDocument => ({
  title: `Progress report of ${name}`,
  head: `${name} · progress report`,
  blocks: [
    { kind: 'heading', level: 1, text: `${name} Łucja` },
    { kind: 'text', text: '“3 of 4” – <script>alert(1)</script>' },
    {
      kind: 'rich',
      place: null,
      words: {
        type: 'doc',
        content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Own words', marks: [{ type: 'bold' }] }] }],
      },
    },
    { kind: 'facts', facts: [['Now', '75%']] },
    { kind: 'graph', graph },
    {
      kind: 'table',
      columns: ['Day', 'Said'],
      widths: ['auto', 'wide'],
      rows: Array.from({ length: rows }, (_, i) => [`Day ${i}`, 'Said\nin two lines']),
    },
    { kind: 'signatures', names: ['Case manager'] },
  ],
});

describe('a document as a PDF', () => {
  it('has real text with its head and its table’s headings on every page, a title and a language', async () => {
    const { pages, title, language } = await textOfPdf(await documentPdf(document('Ada E.')));
    expect(pages.length).toBeGreaterThan(2);
    for (const page of pages) expect(page).toContain('Ada E. · progress report');
    for (const page of pages.slice(1, -1)) expect(page).toContain('Day Said');
    expect(pages.join(' ').replace(/\s+/g, '')).toContain('Łucja');
    expect(pages[0]).toContain('<script>alert(1)</ script>');
    expect([title, language]).toEqual(['Progress report of Ada E.', 'en-US']);
  });

  it('holds its fonts, and its graph as a drawing and not as a picture', async () => {
    const opened = await getDocument({ data: new Uint8Array(await documentPdf(document('Ada E.', 1))), verbosity: 0 })
      .promise;
    const page = await opened.getPage(1);
    const { fnArray } = await page.getOperatorList();
    const { OPS } = await import('pdfjs-dist/legacy/build/pdf.mjs');
    expect(fnArray).not.toContain(OPS.paintImageXObject);
    expect(fnArray.filter((fn) => fn === OPS.constructPath).length).toBeGreaterThan(5);
    const { items } = await page.getTextContent();
    expect(items.some((item) => 'str' in item && item.str.includes('%'))).toBe(true);
  });

  it('of several students keeps each on pages of their own', async () => {
    const parts = [await documentPdf(document('Ada E.', 50)), await documentPdf(document('Ben F.', 1))];
    const joined = await joinPdfs('Kitchen group', parts);
    const { pages, title } = await textOfPdf(joined);
    expect(title).toBe('Kitchen group');
    expect(pages).toHaveLength((await pagesOf(parts[0] as Buffer)) + 1);
    for (const page of pages) expect(/Ada/.test(page) && /Ben/.test(page)).toBe(false);
  });

  it('parts a text by the letters that a font file holds', () => {
    expect(inSets('Łucja é', 'Text')).toEqual([
      { text: 'Ł', font: 'TextExt' },
      { text: 'ucja é', font: 'Text' },
    ]);
  });
});

describe('a document as a text document', () => {
  it('is a file of Office Open XML with the words, the table and the graph', async () => {
    const docx = await documentDocx(document('Ada E.', 3));
    expect(docx.subarray(0, 2).toString()).toBe('PK');
    const { default: JSZip } = await import('jszip');
    const zip = await JSZip.loadAsync(docx);
    const xml = await zip.file('word/document.xml')?.async('string');
    for (const words of ['Ada E. Łucja', 'Own words', '&lt;script&gt;', 'in two lines', '75%'])
      expect(xml).toContain(words);
    expect(Object.keys(zip.files).some((name) => /media\/.*\.png$/.test(name))).toBe(true);
  });
});
