import { entryDay, type IsoDate, longDate } from '../calendar/iso-date';
import type { EntryGroup } from '../individual-report/groups';
import type { ReportEntry } from '../individual-report/report';
import { type Comment, commentSaid, kindWords } from '../sharing/comment';
import type { Layout } from '../sharing/visibility-rule';
import { counted } from '../words/counting';
import type { DocumentBlock, ReportDocument } from './document';
import { firstPageBlocks, type GoalAtFirst } from './first-page';

interface IndividualReportContent {
  studentShortName: string;
  schoolName: string;
  today: IsoDate;
  /** As they stand on the page: in their order, group by group. */
  groups: readonly EntryGroup<ReportEntry>[];
  threads: Readonly<Record<string, readonly Comment[]>>;
  /** What it is narrowed to, in words; empty for all of it. */
  about?: string;
  /** What else stands below an entry, by its id: marks of rules, follow-ups. */
  remarks?: Readonly<Record<string, readonly string[]>>;
  /** The goals that it begins with. */
  atFirst?: readonly GoalAtFirst[];
  layout?: Layout;
}

/** Who said something, and as what: “Family of Ada, a statement”. */
export function saidBy({ by, to, kind }: Pick<Comment, 'by' | 'to' | 'kind'>): string {
  const called = kindWords[kind];
  if (called) return `${by.name}, ${called}`;
  return to ? `${by.name} to ${to.name}` : by.name;
}

/** Everything that an entry says to its reader, as lines. */
export function entryLines(entry: ReportEntry, thread: readonly Comment[], remarks: readonly string[] = []): string[] {
  return [entry.sentence, entry.note ?? '', ...answerLines(thread, remarks)].filter(Boolean);
}

/** What was said of an entry, a line each: remarks of the school, then its thread, without what was hidden. */
export function answerLines(thread: readonly Comment[], remarks: readonly string[] = []): string[] {
  const said = thread.flatMap((comment) =>
    comment.hidden === null ? [`${saidBy(comment)}: ${commentSaid(comment)}`] : [],
  );
  return [...remarks, ...said].filter(Boolean);
}

/**
 * The individual report as a document, as its reader may see it: laid out as on the page, group by group. As a table it has a row for each
 * entry; in sentences and as cards a few lines.
 */
export function individualReportDocument({
  studentShortName,
  schoolName,
  today,
  groups,
  threads,
  about,
  remarks = {},
  atFirst = [],
  layout = 'table',
}: IndividualReportContent): ReportDocument {
  const entries = groups.flatMap((group) => group.entries);
  const drawn = { table: tableBlocks, sentences: sentenceBlocks, cards: cardBlocks }[layout];
  return {
    title: `Individual report of ${studentShortName}`,
    head: `${studentShortName} · individual report · ${schoolName} · ${longDate(today)}`,
    blocks: [
      { kind: 'heading', level: 1, text: studentShortName },
      {
        kind: 'text',
        quiet: true,
        text: ['Individual report', about, counted(entries.length, 'entry', 'entries')].filter(Boolean).join(' · '),
      },
      ...firstPageBlocks(atFirst),
      ...(atFirst.length > 0 ? [{ kind: 'heading' as const, level: 2 as const, text: 'Entries' }] : []),
      ...groups.flatMap(({ title, entries: some }): DocumentBlock[] => [
        ...(title ? [{ kind: 'heading' as const, level: 2 as const, text: title }] : []),
        ...drawn(some, { threads, remarks, today, all: entries }),
      ]),
    ],
  };
}

/** What stands around the entries of a group; the tables of all groups have the same columns. */
type Around = Required<Pick<IndividualReportContent, 'threads' | 'today' | 'remarks'>> & {
  all: readonly ReportEntry[];
};

const whereOf = ({ location, observer }: ReportEntry) => [location, observer].filter(Boolean).join(', ');

function tableBlocks(some: readonly ReportEntry[], { threads, remarks, today, all }: Around): DocumentBlock[] {
  const isWide = all.some((entry) => whereOf(entry) !== '');
  return [
    {
      kind: 'table',
      columns: ['Day', 'Of', 'What was seen', ...(isWide ? ['Where, who'] : [])],
      widths: ['auto', 'auto', 'wide', ...(isWide ? (['auto'] as const) : [])],
      rows: some.map((entry) => [
        `${entryDay(entry.on, today)}\n${entry.time}`,
        entry.title,
        entryLines(entry, threads[entry.id] ?? [], remarks[entry.id]).join('\n'),
        ...(isWide ? [whereOf(entry)] : []),
      ]),
    },
  ];
}

const sentenceBlocks = (some: readonly ReportEntry[], { threads, remarks, today }: Around): DocumentBlock[] =>
  some.flatMap((entry): DocumentBlock[] => [
    { kind: 'heading', level: 3, text: entry.title },
    {
      kind: 'text',
      quiet: true,
      text: [entryDay(entry.on, today), entry.time, whereOf(entry)].filter(Boolean).join(' · '),
    },
    ...entryLines(entry, threads[entry.id] ?? [], remarks[entry.id]).map((text) => ({ kind: 'text' as const, text })),
  ]);

const cardBlocks = (some: readonly ReportEntry[], { threads, remarks, today }: Around): DocumentBlock[] =>
  some.flatMap((entry): DocumentBlock[] => [
    { kind: 'heading', level: 3, text: entry.title },
    {
      kind: 'facts',
      facts: [
        ['Day', `${entryDay(entry.on, today)}, ${entry.time}`],
        ...(whereOf(entry) ? [['Where, who', whereOf(entry)] satisfies [string, string]] : []),
        ['Seen', entryLines(entry, threads[entry.id] ?? [], remarks[entry.id]).join('\n')],
      ],
    },
  ]);
