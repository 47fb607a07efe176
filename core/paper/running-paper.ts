import { type IsoDate, longDate } from '../calendar/iso-date';
import type { Comment } from '../comments/comment';
import type { ReportEntry } from '../report/report';
import { counted } from '../words/counting';
import type { Paper } from './paper';

interface RunningPaper {
  studentShortName: string;
  schoolName: string;
  today: IsoDate;
  entries: readonly ReportEntry[];
  threads: Readonly<Record<string, readonly Comment[]>>;
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

/** The running report as a paper: a row for each entry, as its reader may see it. */
export function runningPaper({ studentShortName, schoolName, today, entries, threads }: RunningPaper): Paper {
  const hasPlace = entries.some(({ setting }) => setting);
  const hasObserver = entries.some(({ observer }) => observer);
  const where = (entry: ReportEntry) => [entry.setting, entry.observer].filter(Boolean).join(', ');
  const isWide = hasPlace || hasObserver;
  return {
    title: `Individual report of ${studentShortName}`,
    head: `${studentShortName} · individual report · ${schoolName} · ${longDate(today)}`,
    blocks: [
      { kind: 'heading', level: 1, text: studentShortName },
      { kind: 'text', quiet: true, text: `Individual report · ${counted(entries.length, 'entry', 'entries')}` },
      {
        kind: 'table',
        columns: ['Day', 'Of', 'What was seen', ...(isWide ? ['Where, who'] : [])],
        widths: ['auto', 'auto', 'wide', ...(isWide ? (['auto'] as const) : [])],
        rows: entries.map((entry) => [
          `${longDate(entry.on).replace(/, \d{4}$/, '')}\n${entry.time}`,
          entry.title,
          entryLines(entry, threads[entry.id] ?? []).join('\n'),
          ...(isWide ? [where(entry)] : []),
        ]),
      },
    ],
  };
}
