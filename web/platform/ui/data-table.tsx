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
import { useState } from 'react';
import type { IsoDate } from '~/core/calendar/iso-date';
import { counted } from '~/core/words/counting';
import { dataTableWords } from './words';

interface DataTableProps<Row> {
  rows: readonly Row[];
  columns: ColumnDef<Row>[];
  /** The column whose cell names its row. Of a row with a day it can be said since when. */
  names: string;
  /** The column that takes the room that is left. */
  wide: string;
  /** Columns of which one choice can be shown alone. */
  filters: readonly { id: string; label: string }[];
  /** Columns that are there to filter by only. */
  hidden?: readonly string[];
  /** How many rows there are altogether: more than are here while they are being fetched. */
  all: number;
  noun: readonly [one: string, many: string];
  caption: string;
  /** How many are shown before all are asked for. */
  first: number;
}

/** Rows that are sorted by their headings and filtered by choices and by day. */
export function DataTable<Row extends { id: string; on: IsoDate }>(props: DataTableProps<Row>) {
  const { rows: content, columns, names, wide, filters, hidden = [], all, noun, caption, first } = props;
  const [showsAll, setShowsAll] = useState(false);
  const [sorting, setSorting] = useState<SortingState>([]);
  const [columnFilters, setColumnFilters] = useState<ColumnFiltersState>([]);
  const table = useReactTable({
    data: content as Row[],
    columns,
    state: { sorting, columnFilters },
    initialState: { columnVisibility: Object.fromEntries(hidden.map((id) => [id, false])) },
    onSortingChange: setSorting,
    onColumnFiltersChange: setColumnFilters,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const { rows } = table.getRowModel();
  const shown = showsAll ? rows : rows.slice(0, first);
  // A cell may hold several: each is a choice of its own, and a row is shown for any of them.
  const choicesOf = (id: string) =>
    [...new Set(table.getCoreRowModel().rows.flatMap((row) => [row.getValue<string | string[]>(id)].flat()))]
      .filter(Boolean)
      .sort();
  // This table’s filters are texts.
  const filterOf = (id: string) => (table.getColumn(id)?.getFilterValue() as string | undefined) ?? '';
  return (
    <>
      <div className="no-print mb-2 flex flex-wrap items-center gap-x-5 gap-y-2 text-small text-ink-2">
        {filters
          .filter(({ id }) => choicesOf(id).length > 1)
          .map(({ id, label }) => (
            <label key={id} className="flex items-center gap-2">
              {label}
              <select
                className="select w-auto"
                value={filterOf(id)}
                onChange={(event) => table.getColumn(id)?.setFilterValue(event.target.value || undefined)}
              >
                <option value="">{dataTableWords.all}</option>
                {choicesOf(id).map((choice) => (
                  <option key={choice}>{choice}</option>
                ))}
              </select>
            </label>
          ))}
        <label className="flex items-center gap-2">
          {dataTableWords.since}
          <input
            type="date"
            className="input w-auto"
            value={filterOf(names)}
            onChange={(event) => table.getColumn(names)?.setFilterValue(event.target.value || undefined)}
          />
        </label>
        <p role="status">
          {columnFilters.length === 0 ? counted(all, ...noun) : dataTableWords.of(rows.length, counted(all, ...noun))}
        </p>
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by the keyboard */}
      <section aria-label={caption} tabIndex={0} className="keeps-head">
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
                      <button type="button" className="tap font-semibold" onClick={column.getToggleSortingHandler()}>
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
              <tr key={row.id} className="break-inside-avoid align-top">
                {row.getVisibleCells().map((cell) => {
                  const inside = flexRender(cell.column.columnDef.cell, cell.getContext());
                  return cell.column.id === names ? (
                    <th key={cell.id} scope="row" className="font-normal whitespace-nowrap">
                      {inside}
                    </th>
                  ) : (
                    <td
                      key={cell.id}
                      className={cell.column.id === wide ? 'min-w-64' : 'whitespace-nowrap print:whitespace-normal'}
                    >
                      {inside}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </section>
      {shown.length < rows.length && (
        <button type="button" className="btn no-print mt-3" onClick={() => setShowsAll(true)}>
          {dataTableWords.showAll(rows.length)}
        </button>
      )}
    </>
  );
}

/** Filters rows by their day: those since the day that is asked for. */
export const sinceDay = <Row extends { on: IsoDate }>(
  { original: { on } }: { original: Row },
  _: string,
  since: string,
) => on >= since;
