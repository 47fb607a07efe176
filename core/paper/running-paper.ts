import { type IsoDate, longDate } from '../calendar/iso-date';
import type { Comment } from '../comments/comment';
import type { EntryGroup } from '../report/groups';
import type { ReportEntry } from '../report/report';
import { counted } from '../words/counting';
import type { Paper, PaperBlock } from './paper';

interface RunningPaper {
  studentShortName: string;
  schoolName: string;
  today: IsoDate;
  /** As they stand on the page: in their order, group by group. */
  groups: readonly EntryGroup<ReportEntry>[];
  threads: Readonly<Record<string, readonly Comment[]>>;
  /** What it is narrowed to, in words; empty for all of it. */
  about?: string;
}

/** Everything that an entry says to its reader, as lines. */
export function entryLines(entry: ReportEntry, thread: readonly Comment[]): string[] {
  const said = thread
    .filter(({ hidden }) => hidden === null)
    .map(({ by, to, text, kind }) => {
      const addressed = kind === 'reflection' ? ', a reflection' : to ? ` to ${to.name}` : '';
      return `${by.name}${addressed}: ${text}`;
    });
  return [entry.sentence, entry.note ?? '', ...said].filter(Boolean);
}

/** The running report as a paper: a row for each entry, as its reader may see it, with a table for each group of the page. */
export function runningPaper({ studentShortName, schoolName, today, groups, threads, about }: RunningPaper): Paper {
  const entries = groups.flatMap((group) => group.entries);
  const hasPlace = entries.some(({ setting }) => setting);
  const hasObserver = entries.some(({ observer }) => observer);
  const where = (entry: ReportEntry) => [entry.setting, entry.observer].filter(Boolean).join(', ');
  const isWide = hasPlace || hasObserver;
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
      ...groups.flatMap(({ title, entries: some }): PaperBlock[] => [
        ...(title ? [{ kind: 'heading' as const, level: 2 as const, text: title }] : []),
        {
          kind: 'table',
          columns: ['Day', 'Of', 'What was seen', ...(isWide ? ['Where, who'] : [])],
          widths: ['auto', 'auto', 'wide', ...(isWide ? (['auto'] as const) : [])],
          rows: some.map((entry) => [
            `${longDate(entry.on).replace(/, \d{4}$/, '')}\n${entry.time}`,
            entry.title,
            entryLines(entry, threads[entry.id] ?? []).join('\n'),
            ...(isWide ? [where(entry)] : []),
          ]),
        },
      ]),
    ],
  };
}
