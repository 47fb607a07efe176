import JSZip from 'jszip';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import type { ReportDocument } from '~/core/documents/document';
import { goalGraph } from '~/core/progress/graph/goal-graph';
import { progressOf } from '~/core/progress/progress';
import { textOfPdf } from '~/tests/examples/pdf-text';
import { calendar, goalOf, session } from '~/tests/examples/series';
import { documentDocx } from './docx';
import { documentPdf, documentsPdf } from './pdf';

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
    const text = (await textOfPdf(await documentPdf(made, 'letter'))).pages.join(' ');
    const wanted = ['First.', 'Last.', 'word0', 'word569', 'word569 wording'];
    for (let i = 0; i < 8; i++) wanted.push(`begin${i}`, `end${i}`);
    for (const word of wanted) expect(text, word).toContain(word);
    const document = await JSZip.loadAsync(await documentDocx(made, 'letter'));
    const xml = (await document.file('word/document.xml')?.async('string')) ?? '';
    for (const word of wanted) expect(xml, word).toContain(word);
  });
});

const opened = (pdf: Uint8Array) => getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;

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
  it('of a table that is long enough for several stretches has every row once and in order, in columns of one width', async () => {
    const made = await documentPdf(document('Ada E.', 1600), 'letter');
    const { pages } = await textOfPdf(made);
    const days = [...pages.join(' ').matchAll(/Day (\d+)/g)].map(([, day]) => Number(day));
    expect(days).toEqual(Array.from({ length: 1600 }, (_, day) => day));
    expect(pages.at(-1)).toContain(`Page ${pages.length} of ${pages.length}`);
    const file = await opened(made);
    const starts = new Set<number>();
    for (let at = 2; at <= pages.length; at++) {
      const { items } = await (await file.getPage(at)).getTextContent();
      for (const item of items) if ('str' in item && item.str === 'in two lines') starts.add(item.transform[4]);
    }
    expect(starts.size).toBe(1);
  });
  it('has real text with its head and its table’s headings on every page, a title and a language', async () => {
    const { pages, title, language } = await textOfPdf(await documentPdf(document('Ada E.'), 'letter'));
    expect(pages.length).toBeGreaterThan(2);
    for (const page of pages) expect(page).toContain('Ada E. · progress report');
    for (const page of pages.slice(1, -1)) expect(page).toContain('Day Said');
    expect(pages.join(' ').replace(/\s+/g, '')).toContain('Łucja');
    expect(pages[0]).toContain('<script>alert(1)</script>');
    expect([title, language]).toEqual(['Progress report of Ada E.', 'en-US']);
  });

  it('holds its fonts, and its graph as a drawing and not as a picture', async () => {
    const page = await (await opened(await documentPdf(document('Ada E.', 1), 'letter'))).getPage(1);
    const { fnArray } = await page.getOperatorList();
    const { OPS } = await import('pdfjs-dist/legacy/build/pdf.mjs');
    expect(fnArray).not.toContain(OPS.paintImageXObject);
    expect(fnArray.filter((fn) => fn === OPS.constructPath).length).toBeGreaterThan(5);
    const { items } = await page.getTextContent();
    expect(items.some((item) => 'str' in item && item.str.includes('%'))).toBe(true);
  });

  it('of several students keeps each on sheets of their own, counts the pages of each, and has their bookmarks', async () => {
    const several = [document('Ada E.', 80), document('Ben F.', 1), document('Cleo G.', 1)];
    const { pdf, pages: count } = await documentsPdf('Kitchen group', several, 'letter');
    const { pages, title } = await textOfPdf(pdf);
    expect([title, pages.length]).toEqual(['Kitchen group', count]);
    const first = (name: string) => pages.findIndex((page) => page.includes(name));
    for (const { head } of several) expect(first(head.slice(0, 5)) % 2, head).toBe(0);
    for (const page of pages) expect(/Ada/.test(page) && /Ben/.test(page)).toBe(false);
    expect(pages[first('Ben')]).toContain('Page 1 of 1');
    expect(pages[0]).toMatch(/Page 1 of [2-9]/);
    const outline = await (await opened(pdf)).getOutline();
    expect(outline.map((one) => one.title)).toEqual(['Ada E. Łucja', 'Ben F. Łucja', 'Cleo G. Łucja']);
  });

  it('is tagged: read back, its tree has headings in order, a table with its head, a list, and the graph with its words', async () => {
    const levels: ReportDocument = { ...document('Ada E.', 2) };
    levels.blocks.splice(1, 0, { kind: 'heading', level: 3, text: 'Deeper than it may be' });
    const pdf = await documentPdf(levels, 'letter');
    const file = await opened(pdf);
    expect((await file.getMarkInfo())?.Marked).toBe(true);
    const said = new TextDecoder('latin1').decode(pdf);
    // ISO 14289-1, 5: a file says that it keeps to the standard.
    expect(said).toContain('pdfuaid');
    const nodes: { role: string; alt?: string }[] = [];
    for (let at = 1; at <= file.numPages; at++) {
      const collect = (node: { role?: string; alt?: string; children?: unknown[] }) => {
        if (node.role) nodes.push({ role: node.role, ...(node.alt ? { alt: node.alt } : {}) });
        // What is no node is a piece of the page, with no children.
        for (const child of node.children ?? []) collect(child as typeof node);
      };
      collect((await (await file.getPage(at)).getStructTree()) ?? {});
    }
    const roles = nodes.map(({ role }) => role);
    expect(roles.filter((role) => /^H\d$/.test(role))).toEqual(['H1', 'H2']);
    for (const role of ['Table', 'TR', 'TH', 'TD', 'L', 'LI', 'P', 'Figure']) expect(roles, role).toContain(role);
    expect(roles.filter((role) => role === 'TH').length).toBeGreaterThanOrEqual(2);
    expect(nodes.find(({ role }) => role === 'Figure')?.alt).toBe(`Graph. ${graph.caption}`);
  });

  it.each([
    ['letter', 612, 792],
    ['a4', 595, 842],
  ] as const)('is set for %s, and so is its text document', async (paper, width, height) => {
    const page = await (await opened(await documentPdf(document('Ada E.', 1), paper))).getPage(1);
    const { width: wide, height: high } = page.getViewport({ scale: 1 });
    expect([Math.round(wide), Math.round(high)]).toEqual([width, height]);
    const zip = await JSZip.loadAsync(await documentDocx(document('Ada E.', 1), paper));
    const xml = await zip.file('word/document.xml')?.async('string');
    expect(xml).toContain(`<w:pgSz w:w="${20 * width}" w:h="${20 * height}"`);
  });

  it('is read without glasses: what is said in 11 points or more, what stands at a graph in 8 or more', async () => {
    const page = await (await opened(await documentPdf(document('Ada E.', 1), 'a4'))).getPage(1);
    const { items } = await page.getTextContent();
    const sizes = items.flatMap((item) =>
      'str' in item && item.str.trim() !== '' ? [[item.str, Math.round(item.height * 10) / 10] as const] : [],
    );
    const sizeOf = (words: string) => sizes.find(([text]) => text.includes(words))?.[1] ?? 0;
    for (const words of ['3 of 4', 'Own words', '75%', 'Said', 'Case manager, date']) {
      expect(sizeOf(words), words).toBeGreaterThanOrEqual(11);
    }
    expect(Math.min(...sizes.map(([, size]) => size))).toBeGreaterThanOrEqual(8);
  });

  it('keeps a graph with its goal, and signatures with what is signed', async () => {
    for (let filled = 20; filled < 60; filled += 2) {
      const blocks: ReportDocument['blocks'] = [
        { kind: 'heading', level: 1, text: 'Ada' },
        ...Array.from({ length: filled }, (_, i) => ({ kind: 'text' as const, text: `Line ${i}` })),
        { kind: 'heading', level: 2, text: 'The goal' },
        { kind: 'text', text: 'Its wording.' },
        { kind: 'facts', facts: [['Now', '75%']] },
        { kind: 'graph', graph },
        { kind: 'rich', place: null, words: { type: 'doc', content: [] } },
        { kind: 'text', text: 'The last words.' },
        { kind: 'signatures', names: ['Case manager'] },
      ];
      const { pages } = await textOfPdf(await documentPdf({ title: 'x', head: 'x', blocks }, 'letter'));
      const at = (words: string) => pages.findIndex((page) => page.includes(words));
      expect([at('The goal'), at('Its wording')], String(filled)).toEqual([at('target 80%'), at('target 80%')]);
      expect(at('The last words'), String(filled)).toBe(at('Case manager, date'));
    }
  });

  it('sets names in Greek, Cyrillic and Vietnamese letters, and says where letters are missing', async () => {
    const named = (name: string): ReportDocument => ({
      title: name,
      head: name,
      blocks: [
        { kind: 'heading', level: 1, text: name },
        { kind: 'text', text: `${name}: 3 of 4 → 75%, ≥ 50 – “yes”` },
      ],
    });
    const of = async (name: string) =>
      (await textOfPdf(await documentPdf(named(name), 'letter'))).pages
        .join(' ')
        .replace(/\s+/g, '')
        // A letter that is drawn as two shapes has its meaning beside it (ActualText), which is not read here.
        .replace(/(\P{ASCII})\1/gu, '$1');
    for (const name of ['Ελένη', 'Ольга', 'Nguyễn', 'Łucja', 'Ştefan', 'e\u0301va']) {
      const text = await of(name);
      expect(text.normalize('NFC').split(name.normalize('NFC')).length, name).toBe(4);
      expect(text).not.toContain('cannotbeprinted');
    }
    const text = await of('王芳 🙂');
    expect(text).not.toContain('王');
    expect(text).toContain('□□:3of4');
    expect(text).toContain('cannotbeprintedhere');
    const docx = await JSZip.loadAsync(await documentDocx(named('王芳'), 'letter'));
    expect(await docx.file('word/document.xml')?.async('string')).toContain('王芳');
  });

  it('comes to nothing else than text, whatever was typed', async () => {
    const typed = '#sys.inputs $x$ *a* _b_ `c` \\ #import "x" {y} <l> @ref // no /* no */';
    const made: ReportDocument = { title: typed, head: typed, blocks: [{ kind: 'text', text: typed }] };
    const text = (await textOfPdf(await documentPdf(made, 'letter'))).pages.join(' ').replace(/\s+/g, '');
    expect(text.split(typed.replace(/\s+/g, '')).length).toBe(3);
  });
});

describe('a document as a text document', () => {
  it('is a file of Office Open XML with the words, the table and the graph', async () => {
    const docx = await documentDocx(document('Ada E.', 3), 'a4');
    expect(docx.subarray(0, 2).toString()).toBe('PK');
    const zip = await JSZip.loadAsync(docx);
    const xml = await zip.file('word/document.xml')?.async('string');
    for (const words of ['Ada E. Łucja', 'Own words', '&lt;script&gt;', 'in two lines', '75%'])
      expect(xml).toContain(words);
    expect(Object.keys(zip.files).some((name) => /media\/.*\.png$/.test(name))).toBe(true);
  });
});
