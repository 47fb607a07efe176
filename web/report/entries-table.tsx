import {
  type ColumnDef,
  type ColumnFiltersState,
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  type SortingState,
  useReactTable,
} from '@tanstack/react-table';
import { useEffect, useState } from 'react';
import { Link, useFetcher } from 'react-router';
import { longDate } from '~/core/calendar/iso-date';
import { counted } from '~/core/words/counting';
import { Beads } from '../ui/beads';
import { FIRST_ROWS } from './first-rows';
import type { ShownEntry } from './shown-entry';

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
    filterFn: ({ original: { on } }, _, since: string) => on >= since,
    cell: ({ row: { original: entry } }) => (
      <>
        <Link to={`/students/${entry.studentId}/entries/${entry.id}`} className="underline underline-offset-2">
          {longDate(entry.on).replace(/, \d{4}$/, '')}
        </Link>
        <span className="block text-small text-ink-3">
          {entry.time}
          {entry.isCorrected && ' · corrected'}
          {entry.isSecond && ' · second observer'}
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
    header: 'What was seen',
    enableSorting: false,
    cell: ({ row: { original: entry } }) => (
      <>
        <Beads tones={entry.tones} />
        {entry.sentence}
        {entry.note && <span className="block text-small text-ink-2">{entry.note}</span>}
      </>
    ),
  },
  { id: 'place', header: 'Where', accessorFn: ({ setting }) => setting ?? '–', filterFn: 'equalsString' },
  { id: 'person', header: 'By', accessorFn: ({ observer }) => observer ?? '–', filterFn: 'equalsString' },
  { id: 'phase', header: 'Phase', accessorFn: ({ phase }) => phase, filterFn: 'equalsString' },
];

const filters = [
  { id: 'person', label: 'By' },
  { id: 'place', label: 'Where' },
  { id: 'phase', label: 'Phase' },
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
    if (newest.length < all) load(from);
  }, [newest, all, from, load]);
  const entries = newest.length < all ? (data?.entries ?? newest) : newest;
  const [showsAll, setShowsAll] = useState(false);
  const [sorting, setSorting] = useState<SortingState>([]);
  const [columnFilters, setColumnFilters] = useState<ColumnFiltersState>([]);
  const table = useReactTable({
    data: entries as TableEntry[],
    columns,
    state: { sorting, columnFilters },
    initialState: { columnVisibility: { phase: false } },
    onSortingChange: setSorting,
    onColumnFiltersChange: setColumnFilters,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  if (entries.length === 0) return <p className="text-ink-2">No entries yet.</p>;
  const { rows } = table.getRowModel();
  const shown = showsAll ? rows : rows.slice(0, FIRST_ROWS);
  const choicesOf = (id: string) => [...new Set(entries.map((entry) => choiceOf(entry, id)))].filter(Boolean).sort();
  return (
    <>
      <div className="no-print mb-2 flex flex-wrap items-center gap-x-5 gap-y-2 text-small text-ink-2">
        {filters
          .filter(({ id }) => choicesOf(id).length > 1)
          .map(({ id, label }) => (
            <label key={id} className="flex items-center gap-2">
              {label}
              <select
                className="select h-11 w-auto"
                value={(table.getColumn(id)?.getFilterValue() as string | undefined) ?? ''}
                onChange={(event) => table.getColumn(id)?.setFilterValue(event.target.value || undefined)}
              >
                <option value="">all</option>
                {choicesOf(id).map((choice) => (
                  <option key={choice}>{choice}</option>
                ))}
              </select>
            </label>
          ))}
        <label className="flex items-center gap-2">
          Since
          <input
            type="date"
            className="input h-11 w-auto"
            value={(table.getColumn('when')?.getFilterValue() as string | undefined) ?? ''}
            onChange={(event) => table.getColumn('when')?.setFilterValue(event.target.value || undefined)}
          />
        </label>
        <p role="status">
          {columnFilters.length === 0
            ? counted(all, 'entry', 'entries')
            : `${rows.length} of ${counted(all, 'entry', 'entries')}`}
        </p>
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard */}
      <section aria-label="Entries, as a table" tabIndex={0} className="overflow-x-auto">
        <table className="table table-sm">
          <thead>
            <tr className="text-ink-2">
              {table.getFlatHeaders().map(({ column, getContext }) => {
                const sorted = column.getIsSorted();
                const heading = flexRender(column.columnDef.header, getContext());
                return (
                  <th
                    key={column.id}
                    scope="col"
                    aria-sort={sorted ? (sorted === 'asc' ? 'ascending' : 'descending') : undefined}
                  >
                    {column.getCanSort() ? (
                      <button
                        type="button"
                        className="min-h-9 font-semibold pointer-coarse:min-h-11"
                        onClick={column.getToggleSortingHandler()}
                      >
                        {heading} <span aria-hidden>{sorted ? (sorted === 'asc' ? '↑' : '↓') : '·'}</span>
                      </button>
                    ) : (
                      heading
                    )}
                  </th>
                );
              })}
            </tr>
          </thead>
          <tbody>
            {shown.map((row) => (
              <tr key={row.id} className="align-top">
                {row.getVisibleCells().map((cell) => {
                  const content = flexRender(cell.column.columnDef.cell, cell.getContext());
                  return cell.column.id === 'when' ? (
                    <th key={cell.id} scope="row" className="font-normal whitespace-nowrap">
                      {content}
                    </th>
                  ) : (
                    <td key={cell.id} className={cell.column.id === 'seen' ? 'min-w-64' : 'whitespace-nowrap'}>
                      {content}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      {shown.length < rows.length && (
        <button type="button" className="btn mt-3" onClick={() => setShowsAll(true)}>
          Show all {rows.length}
        </button>
      )}
    </>
  );
}

function choiceOf(entry: TableEntry, id: string): string {
  if (id === 'person') return entry.observer ?? '–';
  return id === 'place' ? (entry.setting ?? '–') : entry.phase;
}
