import type { IsoDate } from '../../calendar/iso-date';
import { dateCell, reasonCell, timeCell } from '../../measures/cells';
import { type MeasureData, type MeasureDefinition, measureOf } from '../../measures/measure';
import type { Cells, Column, Take } from '../../measures/measure-table';
import { refusal } from '../../words/refusal';
import { noteField, type Outcome } from '../observation';

export const MOST_ROWS = 200;

/** All columns of a goal's table: when, what the measure needs, and what else there may be to say. */
export function tableColumns(definition: MeasureDefinition): Column[] {
  return [
    { key: 'on', label: 'Date', example: '11/20' },
    { key: 'time', label: 'Time', example: '9:05' },
    ...measureOf(definition).columns,
    { key: 'reason', label: 'No score', example: 'Absent' },
    { key: 'note', label: 'Note', example: '' },
  ];
}

export interface TableRow {
  on: IsoDate;
  time: string;
  outcome: Outcome;
  note: string;
}

export type ReadRow =
  | { is: 'blank' }
  | { is: 'row'; row: TableRow }
  | { is: 'wrong'; messages: Record<string, string> };

/**
 * A row of a goal's table as an entry.
 *
 * @param time  the time of a row that says none
 * @returns the entry, nothing for an empty row, or a message at each cell that needs another look
 */
export function readRow(
  definition: MeasureDefinition,
  texts: Cells,
  { today, time }: { today: IsoDate; time: string },
): ReadRow {
  const cells = Object.fromEntries(Object.entries(texts).map(([key, text]) => [key, text.trim()]));
  if (Object.values(cells).every((text) => text === '')) return { is: 'blank' };
  const messages: Record<string, string> = {};
  const on = dateCell(cells.on ?? '', today);
  if (!on.ok) messages.on = on.message;
  const at = cells.time ? timeCell(cells.time) : { ok: true as const, value: time };
  if (!at.ok) messages.time = at.message;
  const reason = reasonCell(cells.reason ?? '');
  if (!reason.ok) messages.reason = reason.message;
  const note = noteField.safeParse(cells.note ?? '');
  if (!note.success) messages.note = note.error.issues[0]?.message ?? '';
  const outcome = outcomeOf(definition, cells, reason.ok ? reason.value : null, messages);
  if (!outcome || !on.ok || !at.ok || !note.success || Object.keys(messages).length > 0)
    return { is: 'wrong', messages };
  return { is: 'row', row: { on: on.value, time: at.value, outcome, note: note.data } };
}

function outcomeOf(
  definition: MeasureDefinition,
  cells: Cells,
  reason: Outcome['reason'],
  messages: Record<string, string>,
): Outcome | null {
  const isMarked = measureOf(definition).columns.some(({ key }) => cells[key]);
  if (reason !== null) {
    if (isMarked) messages.reason = 'Either a score or a reason why there is none.';
    return { data: null, reason };
  }
  const read = readMeasureCells(definition, cells);
  if (read.ok) return { data: read.data, reason: null };
  Object.assign(messages, read.messages);
  return null;
}

/** What a paste comes to: the rows' cells by column, or why it does not fit. */
export type Pasted = { ok: true; rows: Cells[] } | { ok: false; message: string };

/**
 * A block of cells as columns of the table. When its first row names columns it goes by these names; else it fills the
 * columns from the one where it was pasted.
 *
 * @param block  rows of cells
 * @param from  the column in which the paste began
 */
export function pasteInto(columns: readonly Column[], block: readonly (readonly string[])[], from: string): Pasted {
  const [head = [], ...rest] = block;
  const named = head.map((name) => columns.find(({ label }) => label.toLowerCase() === name.trim().toLowerCase())?.key);
  const isHead =
    named.length > 1 && named.some((key) => key !== undefined) && head.every((cell) => !/^\d/.test(cell.trim()));
  const start = columns.findIndex(({ key }) => key === from);
  const widest = Math.max(0, ...block.map((row) => row.length));
  if (isHead) {
    const unknown = head.filter((_, i) => named[i] === undefined && head[i]?.trim());
    if (unknown.length > 0) {
      return { ok: false, message: `There is no column “${unknown[0]}” here. The columns are: ${labelsOf(columns)}.` };
    }
  } else if (start + widest > columns.length) {
    const left = columns.length - start;
    const message = `What was pasted is ${widest} columns wide; from “${columns[start]?.label}” on there are ${left}. The columns are: ${labelsOf(columns)}.`;
    return { ok: false, message };
  }
  const keys = isHead ? named : columns.slice(start).map(({ key }) => key);
  const rows = (isHead ? rest : block).map((row) =>
    Object.fromEntries(row.flatMap((text, i) => (keys[i] ? [[keys[i], text.trim()]] : []))),
  );
  return rows.length > MOST_ROWS
    ? { ok: false, message: `At most ${MOST_ROWS} rows fit in one table; these are ${rows.length}.` }
    : { ok: true, rows };
}

const labelsOf = (columns: readonly Column[]) => columns.map(({ label }) => label).join(', ');

/** What a row says of the goal, or its messages by column. */
type RowData = { ok: true; data: MeasureData } | { ok: false; messages: Record<string, string> };

/**
 * The cells of a row as data of the goal's measure.
 *
 * @returns the data, or a message at each column that needs another look
 */
function readMeasureCells(definition: MeasureDefinition, cells: Cells): RowData {
  const measure = measureOf(definition);
  const messages: Record<string, string> = {};
  const take: Take = (key, read) => {
    const cell = read(cells[key] ?? '');
    if (cell.ok) return cell.value;
    messages[key] = cell.message;
    return undefined;
  };
  const raw = measure.readCells(cells, take);
  if (Object.keys(messages).length > 0) return { ok: false, messages };
  const parsed = measure.data.safeParse(raw, { error: refusal });
  if (parsed.success) return { ok: true, data: parsed.data };
  const first = measure.columns[0]?.key ?? '';
  for (const { path, message } of parsed.error.issues) messages[measure.columnOf(path) ?? first] ??= message;
  return { ok: false, messages };
}
