import type { ColumnDef } from '@tanstack/react-table';
import { useEffect } from 'react';
import { Link, useFetcher } from 'react-router';
import { entryDay } from '~/core/calendar/iso-date';
import { DataTable, sinceDay } from '../platform/ui/data-table';
import { EntryMarks } from '../platform/ui/entry-marks';
import { TrialMarks } from '../platform/ui/trial-marks';
import type { ShownEntry } from './shown-entry';
import { entriesTableWords } from './words';

/** Rows of a goal's entries that its page shows before one asks for all. */
export const FIRST_ROWS = 25;

/** An entry with what else its goal's table tells it apart by. */
export type TableEntry = ShownEntry & {
  phase: string;
  /** What it comes to, for sorting and for reading; null without a score. */
  value: number | null;
  valueSaid: string;
};

const columns: ColumnDef<TableEntry>[] = [
  {
    id: 'when',
    header: 'When',
    accessorFn: ({ on, time }) => `${on} ${time}`,
    filterFn: sinceDay,
    cell: ({ row: { original: entry } }) => (
      <>
        <Link to={`/students/${entry.studentId}/entries/${entry.id}`} className="link">
          {entryDay(entry.on)}
        </Link>
        <span className="block text-small text-ink-3">
          {entry.time}
          {entry.isCorrected && ' · corrected'}
          {entry.isSecond && entriesTableWords.secondObserver}
        </span>
      </>
    ),
  },
  {
    id: 'value',
    header: 'Value',
    accessorFn: ({ value }) => value ?? undefined,
    sortUndefined: 'last',
    cell: ({ row: { original: entry } }) => entry.valueSaid,
  },
  {
    id: 'seen',
    header: entriesTableWords.whatWasSeen,
    enableSorting: false,
    cell: ({ row: { original: entry } }) => (
      <>
        <TrialMarks tones={entry.tones} />
        <EntryMarks marks={entry.marks} />
        {entry.sentence}
        {entry.note && <span className="block text-small text-ink-2">{entry.note}</span>}
      </>
    ),
  },
  { id: 'place', header: 'Where', accessorFn: ({ location }) => location ?? '–', filterFn: 'equalsString' },
  { id: 'person', header: 'By', accessorFn: ({ observer }) => observer ?? '–', filterFn: 'equalsString' },
  { id: 'phase', header: 'Phase', accessorFn: ({ phase }) => phase, filterFn: 'equalsString' },
];

const filters = [
  { id: 'person', label: entriesTableWords.by },
  { id: 'place', label: entriesTableWords.where },
  { id: 'phase', label: entriesTableWords.phase },
];

interface EntriesTableProps {
  /** Those that came with the page. */
  newest: readonly TableEntry[];
  /** How many there are altogether. */
  all: number;
  /** Where to ask for the others. */
  from: string;
}

/** A goal's entries, newest first until sorted otherwise; filtered by day, person, place and phase. */
export function EntriesTable({ newest, all, from }: EntriesTableProps) {
  const { load, data } = useFetcher<{ entries: TableEntry[] }>();
  useEffect(() => {
    if (newest.length < all) void load(from);
  }, [newest, all, from, load]);
  const entries = newest.length < all ? (data?.entries ?? newest) : newest;
  if (entries.length === 0) return <p className="text-ink-2">{entriesTableWords.noEntriesYet}</p>;
  return (
    <DataTable
      rows={entries}
      columns={columns}
      names="when"
      wide="seen"
      filters={filters}
      hidden={['phase']}
      all={all}
      noun={['entry', 'entries']}
      caption={entriesTableWords.entriesAsATable}
      first={FIRST_ROWS}
    />
  );
}
