import { z } from 'zod';
import { type AbcRange, analyseAbc } from '~/core/analyse/analyse-abc';
import { type AgreementRows, type agreementKinds, analyseAgreement } from '~/core/analyse/analyse-agreement';
import { analyseLatency } from '~/core/analyse/analyse-latency';
import { analyseSeries, type SeriesOptions, type SeriesRow } from '~/core/analyse/analyse-series';
import { clockTimeField, isoDateField } from '~/core/calendar/date-fields';
import { type Timetable, timetableDefinition } from '~/core/calendar/timetable';
import { defined } from '~/core/defined';
import { type Incident, incidentDefinition, type WatchedStretch } from '~/core/entries/incidents/incident';
import { type Cell, Malformed, type Row, readTable } from './table';

const numberText = z
  .string()
  .regex(/^[+-]?(\d+(\.\d*)?|\.\d+)(e[+-]?\d+)?$/i, { error: (issue) => `“${issue.input}” is not a number.` })
  .transform(Number)
  .refine(Number.isFinite, { error: 'The number is too large.' });
const countText = numberText.refine((n) => n >= 0, { error: 'It cannot be below nothing.' });
const opportunitiesText = numberText.refine((n) => n > 0, { error: 'There must be some.' });
const shareText = numberText.refine((n) => n >= 0 && n <= 100, { error: 'A percentage lies between 0 and 100.' });
const dateText = z.unknown().transform((text, context) => {
  if (isoDateField.safeParse(text).success) return text as string;
  context.issues.push({ code: 'custom', message: `“${text}” is not a date such as 2026-03-02.`, input: text });
  return z.NEVER;
});
const weekdayText = numberText.refine((n) => [1, 2, 3, 4, 5, 6, 7].includes(n), { error: 'Monday is 1, Sunday is 7.' });
const yesNoText = z
  .string()
  .toLowerCase()
  .pipe(
    z.enum(['1', '0', 'yes', 'no', 'y', 'n', 'true', 'false'], {
      error: 'Write yes or no (or 1 or 0, true or false).',
    }),
  )
  .transform((text) => ['1', 'yes', 'y', 'true'].includes(text));
const wallTimeText = z
  .string()
  .regex(/^\d{4}-\d\d-\d\d[T ]\d\d:\d\d(:\d\d(\.\d+)?)?$/, {
    error: (issue) => `“${issue.input}” is not a date and time such as 2026-03-02T09:15.`,
  })
  .transform((text) => ({ on: text.slice(0, 10), time: text.slice(11, 16) }))
  .pipe(incidentDefinition.pick({ on: true, time: true }));

/** A cell held against its schema; where it fails, its line and column. */
function read<T>(cell: Cell, schema: z.ZodType<T>): T {
  const parsed = schema.safeParse(cell.text);
  if (parsed.success) return parsed.data;
  throw new Malformed(cell.line, cell.column, `${cell.name}: ${parsed.error.issues[0]?.message ?? 'cannot be read.'}`);
}

const cellOf = (row: Row, name: string) => row[name] as Cell;

/** The optional columns that hold a name. */
const namesIn = (row: Row) => ({
  phase: row.phase ? row.phase.text : null,
  place: row.place?.text || null,
  observer: row.observer?.text || null,
  isBaseline: row.baseline?.text ? read(row.baseline, yesNoText) : null,
});

function seriesRows(table: readonly Row[]): SeriesRow[] {
  return table.flatMap((row) => {
    const date = read(cellOf(row, 'date'), dateText);
    const value = cellOf(row, 'value');
    if (value.text === '') return [];
    const of = row.of && row.of.text !== '' ? read(row.of, opportunitiesText) : null;
    return [{ date, value: read(value, of === null ? numberText : shareText), of, ...namesIn(row) }];
  });
}

function seriesOf(table: readonly Row[], options: SeriesOptions) {
  const rows = seriesRows(table);
  const { line, column } = cellOf(defined(table[0]), 'value');
  if (rows.length === 0) throw new Malformed(line, column, 'value: no row has one.');
  return { kind: 'series', blank: table.length - rows.length, ...analyseSeries(rows, options) };
}

/**
 * `date,value` and optional `phase`, `of` (opportunities; the value then is a percentage), `place` and `observer`. A blank value is no
 * value: the row is counted, and makes no point.
 */
export function analyseSeriesFile(text: string, options: SeriesOptions) {
  return seriesOf(readTable(text, ['date', 'value']), options);
}

/** The same of a file that holds many, told apart by a column `series`; null where there is no such column. */
export function analyseManySeries(text: string, options: SeriesOptions) {
  const table = readTable(text, ['date', 'value']);
  if (!table[0]?.series) return null;
  const names = [...new Set(table.map((row) => cellOf(row, 'series').text))];
  return names.map((series) => ({
    series,
    ...seriesOf(
      table.filter((row) => cellOf(row, 'series').text === series),
      options,
    ),
  }));
}

/** `date,seconds`, one row for each cue; a blank is one without a response. */
export function analyseLatencyFile(text: string, limitSeconds: number | null) {
  const cues = readTable(text, ['date', 'seconds']).map((row) => ({
    date: read(cellOf(row, 'date'), dateText),
    seconds: numberIn(row.seconds),
  }));
  return { kind: 'latency', format: 2, days: analyseLatency(cues, limitSeconds) };
}

/** The names in a cell, each once. */
const severalIn = (cell: Cell) => [
  ...new Set(
    cell.text
      .split('|')
      .map((name) => name.trim())
      .filter(Boolean),
  ),
];

/** The number in a cell that may be blank. */
const numberIn = (cell: Cell | undefined) => (cell && cell.text !== '' ? read(cell, countText) : null);

/** `at,behavior,antecedent,consequence` and what else a note may say; several in a cell are parted by `|`. */
export function analyseAbcFile(text: string, range: AbcRange) {
  const incidents = readTable(text, ['at', 'behavior', 'antecedent', 'consequence']).map((row): Incident => {
    const behavior = cellOf(row, 'behavior');
    const behaviors = severalIn(behavior);
    if (behaviors.length === 0) throw new Malformed(behavior.line, behavior.column, 'behavior: Say which it was.');
    return {
      ...read(cellOf(row, 'at'), wallTimeText),
      behaviors,
      antecedents: severalIn(cellOf(row, 'antecedent')),
      consequences: severalIn(cellOf(row, 'consequence')),
      location: row.location?.text || row.setting?.text || null,
      observer: row.observer?.text || null,
      functions: row.function ? severalIn(row.function) : [],
      seconds: numberIn(row.seconds) || null,
      intensity: numberIn(row.intensity),
    };
  });
  return { kind: 'abc', ...analyseAbc(incidents, range) };
}

/** `weekday,part,from,to` and, where there is one, `location`: a timetable. */
export function timetableFrom(text: string): Timetable {
  const rows = readTable(text, ['weekday', 'part', 'from', 'to']);
  const blocks = rows.map((row) => ({
    weekday: read(cellOf(row, 'weekday'), weekdayText),
    part: cellOf(row, 'part').text,
    from: read(cellOf(row, 'from'), clockTimeField),
    to: read(cellOf(row, 'to'), clockTimeField),
    location: row.location?.text || null,
  }));
  const timetable = timetableDefinition.safeParse(blocks);
  if (timetable.success) return timetable.data;
  const { path, message } = defined(timetable.error.issues[0]);
  const cell = defined(rows[Number(path[0] ?? 0)])[String(path[1] ?? 'part')];
  throw new Malformed(cell?.line ?? 1, cell?.column ?? 1, message);
}

/** `date,behavior,count,minutes` and, where it is known, `part`: observation windows. */
export function windowsFrom(text: string): WatchedStretch[] {
  return readTable(text, ['date', 'behavior', 'count', 'minutes']).map((row) => ({
    on: read(cellOf(row, 'date'), dateText),
    part: row.part?.text || null,
    behavior: cellOf(row, 'behavior').text,
    count: read(cellOf(row, 'count'), countText),
    minutes: read(cellOf(row, 'minutes'), opportunitiesText),
  }));
}

/** `a,b`, one row for each thing that both looked at. A row that one of them left blank is left out, and counted. */
export function analyseAgreementFile(text: string, kind: (typeof agreementKinds)[number]) {
  const table = readTable(text, ['a', 'b']);
  const both = table.filter((row) => cellOf(row, 'a').text !== '' && cellOf(row, 'b').text !== '');
  if (both.length === 0) throw new Malformed(cellOf(table[0] as Row, 'a').line, 1, 'No row was filled in by both.');
  const columns = <T>(schema: z.ZodType<T>) => ({
    a: both.map((row) => read(cellOf(row, 'a'), schema)),
    b: both.map((row) => read(cellOf(row, 'b'), schema)),
  });
  const rows: AgreementRows =
    kind === 'interval'
      ? { kind, ...columns(yesNoText) }
      : kind === 'total' || kind === 'duration'
        ? { kind, ...columns(countText) }
        : { kind, ...columns(z.string()) };
  return { ...analyseAgreement(rows), leftOut: table.length - both.length };
}
