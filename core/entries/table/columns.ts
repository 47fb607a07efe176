import { type MeasureData, type MeasureDefinition, measureOf } from '../../measures/measure';
import { unsupportedOutcomes, unsupportedWords } from '../../measures/support-levels';
import { sum } from '../../statistics/spread';
import { refusal } from '../../words/refusal';
import { type Cell, choiceCell, lengthCell, numberCell, partsOf } from './cells';

export interface Column {
  key: string;
  label: string;
  /** What a cell may hold, as an example. */
  example: string;
}

/** The texts of a row's cells by column; what is not in it is empty. */
export type Cells = Record<string, string>;

/** What a row says of the goal, or its messages by column. */
export type RowData = { ok: true; data: MeasureData } | { ok: false; messages: Record<string, string> };

interface Shape<D> {
  columns: (definition: D) => Column[];
  /** The data of a row whose cells are read one by one with `take`; what cannot be read is noted by it. */
  read: (definition: D, cells: Cells, take: Take) => unknown;
  /** The column in which a part of the data stands that the measure refuses. */
  columnOf?: (definition: D, path: readonly PropertyKey[]) => string;
}

/** Reads a column with a function, and notes what is wrong with it. */
type Take = <T>(key: string, read: (text: string) => Cell<T>) => T | undefined;

type Of<K extends MeasureDefinition['kind']> = Extract<MeasureDefinition, { kind: K }>;

const outcomes = unsupportedOutcomes.map((key) => ({ key, label: unsupportedWords[key].label }));
/** Short ways of writing right and wrong in a cell; common practice on paper. Where help has levels, “right” must say which. */
function marks(levels: readonly { key: string }[], wrong: string): Record<string, string> {
  const [only, ...others] = levels;
  const ways: Record<string, string> = { '-': wrong, '−': wrong, '0': wrong };
  if (only && others.length === 0) for (const sign of ['+', '1', 'x', '✓']) ways[sign] = only.key;
  return ways;
}
const markExample = ([first, ...others]: readonly { label: string }[]) =>
  others.length === 0 ? '+ or −' : (first?.label ?? '');

/** Several lengths of time in one cell. */
const lengths = (text: string): Cell<number[]> => {
  const read = partsOf(text).map(lengthCell);
  const bad = read.find((cell) => !cell.ok);
  return bad && !bad.ok ? bad : { ok: true, value: read.flatMap((cell) => (cell.ok ? [cell.value] : [])) };
};

/** The cells that are filled, each with its thing. */
function filled<T extends { key: string }, R>(
  things: readonly T[],
  cells: Cells,
  read: (thing: T) => R | undefined,
): R[] {
  return things.flatMap((thing) => (cells[thing.key] ? (read(thing) ?? []) : []));
}

const shapes: { [K in MeasureDefinition['kind']]: Shape<Of<K>> } = {
  trials: {
    columns: ({ levels, chance }) => [
      ...[...levels, ...outcomes].map(({ key, label }) => ({ key, label, example: '2' })),
      { key: 'opportunities', label: `Of ${chance.many}`, example: 'adds up' },
    ],
    read: ({ levels }, cells, take) => {
      const all = [...levels, ...outcomes].map(({ key }) => key);
      const counts = Object.fromEntries(
        all.flatMap((key) => {
          const count = take(key, numberCell);
          return count === undefined || count === null ? [] : [[key, count]];
        }),
      );
      const said = cells.opportunities ? take('opportunities', numberCell) : null;
      return { counts, opportunities: said ?? sum(Object.values(counts)) };
    },
    columnOf: (_, path) => (path[0] === 'counts' && path[1] ? String(path[1]) : 'opportunities'),
  },
  items: {
    columns: ({ items, levels }) => items.map(({ key, label }) => ({ key, label, example: markExample(levels) })),
    read: ({ items, levels }, cells, take) => ({
      items: filled(items, cells, ({ key }) => {
        const read = (text: string) => choiceCell(text, [...levels, ...outcomes], marks(levels, 'incorrect'));
        const outcome = take(key, read);
        return outcome === undefined ? undefined : { item: key, outcome };
      }),
    }),
  },
  count: {
    columns: ({ counted, sessionMinutes }) => [
      { key: 'count', label: counted.many, example: '7' },
      { key: 'minutes', label: 'Minutes watched', example: sessionMinutes === null ? '30' : String(sessionMinutes) },
    ],
    read: ({ sessionMinutes }, _, take) => ({
      count: take('count', numberCell) ?? undefined,
      minutes: take('minutes', numberCell) ?? sessionMinutes ?? undefined,
    }),
    columnOf: (_, path) => (path[0] === 'count' ? 'count' : 'minutes'),
  },
  duration: {
    columns: ({ episode }) => [
      { key: 'episodes', label: `Each ${episode.one}`, example: '4:30; 1:15' },
      { key: 'sessionSeconds', label: 'Session', example: '30:00' },
    ],
    read: (_, cells, take) => ({
      episodes: take('episodes', lengths) ?? [],
      sessionSeconds: cells.sessionSeconds ? take('sessionSeconds', lengthCell) : null,
    }),
    columnOf: (_, path) => (path[0] === 'sessionSeconds' ? 'sessionSeconds' : 'episodes'),
  },
  latency: {
    columns: ({ cue }) => [{ key: 'responses', label: `After each ${cue.one}, seconds`, example: '12; 8; none' }],
    read: (_, __, take) => ({
      responses:
        take('responses', (text) => {
          const parts = partsOf(text).map(
            (part): Cell<number | null> =>
              /^(none|no|–|-)$/i.test(part) ? { ok: true, value: null } : lengthCell(part),
          );
          const bad = parts.find((part) => !part.ok);
          return bad && !bad.ok ? bad : { ok: true, value: parts.flatMap((part) => (part.ok ? [part.value] : [])) };
        }) ?? [],
    }),
  },
  intervals: {
    columns: () => [{ key: 'intervals', label: 'Intervals: + yes, − no, . missed', example: '++−+.+' }],
    read: (_, __, take) => ({
      intervals:
        take('intervals', (text) => {
          const signs = [...text.replace(/\s/g, '')];
          if (signs.some((sign) => !'+-−.'.includes(sign))) return { ok: false, message: 'Only +, − and a point.' };
          return { ok: true, value: signs.map((sign) => (sign === '.' ? null : sign === '+')) };
        }) ?? [],
    }),
  },
  rubric: {
    columns: ({ criteria }) =>
      criteria.map(({ key, label, levels }) => ({
        key,
        label,
        example: `${levels[0]?.points} to ${levels.at(-1)?.points}`,
      })),
    read: ({ criteria }, cells, take) => ({
      ratings: filled(criteria, cells, ({ key, levels }) => {
        const points = take(key, (text) => {
          const read = numberCell(text);
          if (!read.ok || levels.some((level) => level.points === read.value)) return read;
          return { ok: false, message: `One of: ${levels.map((level) => level.points).join(', ')}.` };
        });
        return points === undefined || points === null ? undefined : { criterion: key, points, rater: null };
      }),
    }),
  },
  runningTotal: {
    columns: ({ unit, categories }) => [
      { key: 'amount', label: unit.many, example: '1.5' },
      ...(categories.length > 0 ? [{ key: 'category', label: 'Of', example: categories[0]?.label ?? '' }] : []),
    ],
    read: ({ categories }, cells, take) => {
      const category = cells.category ? take('category', (text) => choiceCell(text, categories)) : null;
      return { amounts: [{ amount: take('amount', numberCell) ?? undefined, category }] };
    },
    columnOf: (_, path) => (path.at(-1) === 'category' ? 'category' : 'amount'),
  },
  steps: {
    columns: ({ steps, levels }) => steps.map(({ key, label }) => ({ key, label, example: markExample(levels) })),
    read: ({ steps, levels }, cells, take) => ({
      steps: filled(steps, cells, ({ key }) => {
        const choices = [...levels, { key: 'notDone', label: 'Not done' }];
        const outcome = take(key, (text) => choiceCell(text, choices, marks(levels, 'notDone')));
        return outcome === undefined ? undefined : { step: key, outcome };
      }),
    }),
  },
  readingAloud: {
    columns: () => [
      { key: 'words', label: 'Words', example: '92' },
      { key: 'errors', label: 'Errors', example: '4' },
      { key: 'seconds', label: 'Time', example: '1:00' },
    ],
    read: ({ seconds }, cells, take) => ({
      words: take('words', numberCell) ?? undefined,
      errors: take('errors', numberCell) ?? undefined,
      seconds: cells.seconds ? take('seconds', lengthCell) : (seconds ?? undefined),
    }),
    columnOf: (_, path) => String(path[0] ?? 'words'),
  },
};

const shapeOf = (definition: MeasureDefinition) => shapes[definition.kind] as unknown as Shape<MeasureDefinition>;

/** The columns that a goal's measure needs, in order. */
export const columnsOf = (definition: MeasureDefinition): Column[] => shapeOf(definition).columns(definition);

/**
 * The cells of a row as data of the goal's measure.
 *
 * @returns the data, or a message at each column that needs another look
 */
export function readMeasureCells(definition: MeasureDefinition, cells: Cells): RowData {
  const shape = shapeOf(definition);
  const messages: Record<string, string> = {};
  const take: Take = (key, read) => {
    const cell = read(cells[key] ?? '');
    if (cell.ok) return cell.value;
    messages[key] = cell.message;
    return undefined;
  };
  const raw = shape.read(definition, cells, take);
  if (Object.keys(messages).length > 0) return { ok: false, messages };
  const parsed = measureOf(definition).data(definition).safeParse(raw, { error: refusal });
  if (parsed.success) return { ok: true, data: parsed.data };
  const first = columnsOf(definition)[0]?.key ?? '';
  for (const { path, message } of parsed.error.issues)
    messages[shape.columnOf?.(definition, path) ?? first] ??= message;
  return { ok: false, messages };
}
