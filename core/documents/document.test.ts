import { describe, expect, it } from 'vitest';
import { groupEntries } from '../individual-report/groups';
import type { ReportEntry } from '../individual-report/report';
import type { Comment } from '../sharing/comment';
import type { Grouping, Layout } from '../sharing/visibility-rule';
import { isEmptyText, noWords, plainText, type RichText, runsOf } from '../words/rich-text';
import { entryLines, individualReportDocument } from './individual-report-document';

const entry = (changes: Partial<ReportEntry> = {}): ReportEntry => ({
  ...{ id: 'e', studentId: 's', kind: 'observation', title: '1 · Sands', goalId: 'g', goalVersion: 1 },
  ...{ on: '2026-11-24', time: '09:30', location: null, observer: null, note: null, sentence: '3 of 4: 75%.' },
  ...{ outcome: null, version: 1, isCorrected: false, isSecond: false },
  ...changes,
});
const comment = (changes: Partial<Comment> = {}): Comment => ({
  ...{ id: 'c', entryId: 'e', kind: 'comment', by: { kind: 'family', name: 'Aunt Ida', linkId: 'l' } },
  ...{ on: '2026-11-24', time: '18:00', text: 'At home too.', to: null, hidden: null, outcome: null, answers: null },
  ...changes,
});

describe('the individual report as a document', () => {
  const document = (entries: ReportEntry[], threads: Record<string, Comment[]> = {}, grouping: Grouping = 'none') => {
    const groups = groupEntries(entries, grouping, [{ id: 'g', number: '1', shortName: 'Sands' }], '2026-11-24');
    return individualReportDocument({
      studentShortName: 'Ada E.',
      schoolName: 'Test School',
      today: '2026-11-24',
      groups,
      threads,
    });
  };
  const table = (made: ReturnType<typeof document>) => {
    const block = made.blocks.find(({ kind }) => kind === 'table');
    return block?.kind === 'table' ? block : { columns: [], rows: [], widths: [] };
  };

  it('has a row for each entry, with what was said of it', () => {
    const { rows } = table(
      document([entry({ note: 'Alone.' })], { e: [comment(), comment({ kind: 'reflection', text: 'I like it.' })] }),
    );
    expect(rows).toEqual([
      [
        'Tue, Nov 24\n09:30',
        '1 · Sands',
        '3 of 4: 75%.\nAlone.\nAunt Ida: At home too.\nAunt Ida, a reflection: I like it.',
      ],
    ]);
  });

  it('has a column for place and observer only where its reader is shown one', () => {
    expect(table(document([entry()])).columns).toHaveLength(3);
    const { columns, widths, rows } = table(document([entry({ location: 'Garden', observer: 'H. B.' }), entry()]));
    expect([columns.length, widths.length]).toEqual([4, 4]);
    expect(rows.map((row) => row[3])).toEqual(['Garden, H. B.', '']);
  });

  it('stands in the groups of the page, in their order', () => {
    const made = document(
      [entry({ on: '2026-11-24' }), entry({ on: '2026-11-17' }), entry({ on: '2026-11-16' })],
      {},
      'week',
    );
    const seen = made.blocks.flatMap((block) =>
      block.kind === 'heading' && block.level === 2
        ? [block.text]
        : block.kind === 'table'
          ? [`${block.rows.length}`]
          : [],
    );
    expect(seen).toEqual(['Week of Nov 23', '1', 'Week of Nov 16', '2']);
  });

  it('is laid out as on the page: in sentences or as cards, with the same words', () => {
    const groups = groupEntries([entry({ note: 'Alone.', location: 'Garden' })], 'week', [], '2026-11-24');
    const about = { studentShortName: 'Ada E.', schoolName: 'Test School', today: '2026-11-24', groups };
    const laidOut = (layout: Layout) =>
      individualReportDocument({ ...about, layout, threads: { e: [comment()] } }).blocks.slice(2);
    expect(laidOut('sentences')).toEqual([
      { kind: 'heading', level: 2, text: 'Week of Nov 23' },
      { kind: 'heading', level: 3, text: '1 · Sands' },
      { kind: 'text', quiet: true, text: 'Tue, Nov 24 · 09:30 · Garden' },
      ...['3 of 4: 75%.', 'Alone.', 'Aunt Ida: At home too.'].map((text) => ({ kind: 'text', text })),
    ]);
    expect(laidOut('cards').at(-1)).toEqual({
      kind: 'facts',
      facts: [
        ['Day', 'Tue, Nov 24, 09:30'],
        ['Where, who', 'Garden'],
        ['Seen', '3 of 4: 75%.\nAlone.\nAunt Ida: At home too.'],
      ],
    });
  });

  it('says the year of a day that is not of this year', () => {
    const groups = groupEntries([entry({ on: '2025-11-24' })], 'none', [], '2026-11-24');
    const about = { studentShortName: 'Ada E.', schoolName: 'Test School', today: '2026-11-24', groups, threads: {} };
    const days = JSON.stringify(
      (['table', 'sentences', 'cards'] as const).map((layout) => individualReportDocument({ ...about, layout })),
    );
    expect(days.match(/Mon, Nov 24, 2025/g)).toHaveLength(3);
  });

  it('leaves out what was hidden', () => {
    expect(entryLines(entry(), [comment()], ['Marked: low.'])).toEqual([
      '3 of 4: 75%.',
      'Marked: low.',
      'Aunt Ida: At home too.',
    ]);
    expect(entryLines(entry(), [comment({ hidden: { by: 'H. B.', reason: 'Private' } })])).toEqual(['3 of 4: 75%.']);
  });
});

describe('own words', () => {
  const words: RichText = {
    type: 'doc',
    content: [
      {
        type: 'paragraph',
        content: [
          { type: 'text', text: 'He ' },
          { type: 'text', text: 'counts', marks: [{ type: 'bold' }, { type: 'italic' }] },
          { type: 'hardBreak' },
          { type: 'text', text: 'now.' },
        ],
      },
      {
        type: 'orderedList',
        content: [{ type: 'listItem', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Sands' }] }] }],
      },
    ],
  };

  it('are read with and without their form', () => {
    expect(plainText(words)).toBe('He counts\nnow.\n– Sands');
    const [first] = words.content;
    expect(first?.type === 'paragraph' && runsOf(first)[1]).toEqual({ text: 'counts', bold: true, italic: true });
  });

  it('are empty when nothing stands in them, whatever their form', () => {
    expect(isEmptyText(noWords)).toBe(true);
    expect(isEmptyText({ type: 'doc', content: [{ type: 'paragraph' }] })).toBe(true);
    expect(isEmptyText(words)).toBe(false);
  });
});
