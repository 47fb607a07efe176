import { z } from 'zod';
import { clockTimeField } from '../calendar/date-fields';
import { dateSeenFrom, type IsoDate, longDate } from '../calendar/iso-date';
import type { Outcome } from '../entries/observation';
import { outcomeSentence } from '../individual-report/report';
import { timeCell } from '../measures/cells';
import { type MeasureDefinition, measureOf } from '../measures/measure';
import { dayOrders, fileDay, guessDayOrder } from './days';
import { type SessionCells, sessionOf } from './entry-outcome';
import { type FileField, type FileTable, filledDown, guessColumns, plainText, rowCells, unmarked } from './file-table';
import { type ImportStudent, type Nameable, named, observerIn, oneOf, studentIn } from './naming';
import type { Planned, PreviewRow } from './preview';

export const entryFields = [
  { key: 'student', headings: ['student', 'name', 'student name', 'child', 'pupil', 'learner', 'student id'] },
  { key: 'goal', headings: ['goal', 'goal number', 'objective', 'target', 'skill', 'goal no', 'iep goal'] },
  { key: 'on', headings: ['date', 'day', 'on', 'session date', 'observed on'] },
  { key: 'time', headings: ['time', 'time of day', 'at'] },
  { key: 'score', headings: ['score', 'result', 'value', 'data', 'percent', 'percentage', 'correct', 'amount'] },
  {
    key: 'outOf',
    headings: ['out of', 'of', 'opportunities', 'trials', 'total', 'tries', 'minutes watched', 'errors'],
  },
  { key: 'reason', headings: ['no score', 'reason', 'why no score'] },
  { key: 'note', headings: ['note', 'notes', 'comment', 'comments', 'remarks'] },
  { key: 'observer', headings: ['observer', 'staff', 'observed by', 'recorded by', 'data by', 'teacher'] },
  { key: 'location', headings: ['location', 'place', 'setting', 'where', 'room'] },
] as const satisfies readonly FileField[];
export type EntryFieldKey = (typeof entryFields)[number]['key'];

/** A column whose heading names a part of the score: a level, an item, a criterion. */
export const PART = 'part';
/** A column of a wide table: one goal’s scores, a day to a row. */
export const goalColumn = (goalId: string) => `goal:${goalId}`;

const columnKeys = new Set<string>([...entryFields.map(({ key }) => key), PART, '']);
const columnField = z.string().refine((key) => columnKeys.has(key) || /^goal:[0-9a-f-]{36}$/.test(key));

/** What is said of a file of entries. */
export const entriesMapping = z.object({
  sheet: z.number().int().min(0).default(0),
  columns: z.array(columnField.default('')).max(200),
  dayOrder: z.enum(dayOrders).default('monthFirst'),
  /** The time of those that say none. */
  time: clockTimeField.default('12:00'),
  /** Whose all of it is, where no column says so; and of which goal. */
  studentId: z.uuid().nullable().default(null),
  goalId: z.uuid().nullable().default(null),
  help: z.enum(['least', 'most']).default('most'),
  areFractions: z.boolean().default(false),
  /** Whether a blank student or date goes on with the one above: merged cells. */
  fillsDown: z.boolean().default(false),
});
export type EntriesMapping = z.infer<typeof entriesMapping>;

export interface ImportGoal extends Nameable {
  studentId: string;
  number: string;
  shortName: string;
  /** Each way in which it is or was measured, with the day from which it holds, oldest first. */
  measures: { version: number; from: IsoDate; measure: MeasureDefinition }[];
  /** The first day of which an entry can be: of the plan, or of the goal where that began before it. */
  opensOn: IsoDate | null;
}

/** What a file of entries is held against. */
export interface EntryFacts {
  today: IsoDate;
  /** Whom the one who carries in may observe. */
  students: ImportStudent[];
  goals: ImportGoal[];
  /** Of the teams; with the students on whose teams they are or were. */
  people: (Nameable & { studentIds: readonly string[] })[];
  locations: Nameable[];
  /** Who carries it in: the observer of what names none. */
  observerId: string;
  /** What is recorded already, as `entryMark`, with how often. */
  there: ReadonlyMap<string, number>;
}

export interface EntryCommand {
  studentId: string;
  goalId: string;
  version: number;
  on: IsoDate;
  time: string;
  outcome: Outcome;
  note: string;
  observerId: string;
  locationId: string | null;
}

/** What makes two entries the same: the goal, the day, and what was scored, whatever the order in which its parts are kept. */
export const entryMark = (goalId: string, on: IsoDate, { data, reason }: Outcome) =>
  `${goalId} ${on} ${reason ?? inOrder(data)}`;

const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, part: unknown) =>
    part && typeof part === 'object' && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => a.localeCompare(b)))
      : part,
  );

/** What a file of entries most likely holds: its columns by their headings, the order of its dates, how it writes shares. */
export function guessEntries(table: FileTable, facts: Pick<EntryFacts, 'goals' | 'students'>): EntriesMapping {
  const columns: string[] = guessColumns(table.head, entryFields);
  const hasGoals = columns.includes('goal') || columns.includes('score');
  const parts = new Set(
    facts.goals.flatMap(({ measures }) =>
      measures.flatMap(({ measure }) => measureOf(measure).columns.map(({ label }) => plainText(label))),
    ),
  );
  for (const [at, heading] of table.head.entries()) {
    if (columns[at] || heading === '') continue;
    const goal = goalsHeaded(heading, facts);
    if (goal.length === 1 && goal[0] && !hasGoals) columns[at] = goalColumn(goal[0].id);
    else if (parts.has(plainText(heading))) columns[at] = PART;
  }
  const texts = (key: string) =>
    columns.flatMap((held, at) =>
      held === key || (key === 'score' && held.startsWith('goal:')) ? table.rows.map((row) => row[at] ?? '') : [],
    );
  const figures = texts('score')
    .filter((text) => /^\d*[.,]?\d+$/.test(text))
    .map((text) => Number(text.replace(',', '.')));
  const mapped = entriesMapping.parse({ columns });
  return {
    ...mapped,
    dayOrder: guessDayOrder(texts('on')),
    areFractions: figures.some((n) => n > 0 && n < 1) && figures.every((n) => n <= 1),
    fillsDown: ['student', 'on'].some((key) => isMerged(texts(key))),
    studentId: !columns.includes('student') && facts.students.length === 1 ? (facts.students[0]?.id ?? null) : null,
  };
}

/** Mostly blank between filled cells: what a merged cell leaves. */
const isMerged = (texts: readonly string[]) => {
  const blank = texts.filter((text) => text === '').length;
  return texts.length > 2 && texts[0] !== '' && blank > 0 && blank >= texts.length / 3;
};

/** The goals that a heading of a wide table can mean: by the student and the goal that it names, or by a goal’s name alone. */
function goalsHeaded(heading: string, { goals, students }: Pick<EntryFacts, 'goals' | 'students'>): ImportGoal[] {
  const plain = plainText(heading);
  const whole = goals.filter(({ names }) => names.includes(plain));
  if (whole.length > 0) return whole;
  const student = students.filter(({ names }) => names.some((name) => plain === name || plain.startsWith(`${name} `)));
  if (student.length !== 1 || !student[0]) return [];
  const [{ id, names }] = student as [ImportStudent];
  const theirs = goals.filter(({ studentId }) => studentId === id);
  const rest = names.filter((name) => plain.startsWith(name)).map((name) => plain.slice(name.length).trim());
  if (rest.includes('')) return theirs;
  return theirs.filter((goal) => rest.some((text) => goal.names.includes(text)));
}

/** One session of a file before it is held against its goal. */
interface Found extends SessionCells {
  row: number;
  student: string;
  goal: string;
  goalId: string | null;
}

/**
 * What each row of a file of entries comes to. A wide table (a column for each goal) gives an entry for each cell that is filled; blank
 * cells are nothing, and never zero. What is there already is not taken twice, and twice in the file is twice.
 */
export function planEntries(table: FileTable, mapping: EntriesMapping, facts: EntryFacts): Planned<EntryCommand> {
  const { columns } = mapping;
  const rows = mapping.fillsDown ? filledDown(table.rows, columns, ['student', 'goal', 'on']) : table.rows;
  const left = new Map(facts.there);
  const read = readsOnce(mapping, facts);
  const planned: Planned<EntryCommand> = { rows: [], commands: [] };
  for (const [at, row] of rows.entries()) {
    for (const found of foundIn(table, row, at, mapping)) {
      const result = entryOf(found, mapping, facts, read);
      planned.rows.push(result.shown);
      if (!result.command) continue;
      const mark = entryMark(result.command.goalId, result.command.on, result.command.outcome);
      const n = left.get(mark) ?? 0;
      if (n > 0) {
        left.set(mark, n - 1);
        result.shown.fate = 'there';
      } else planned.commands.push(result.command);
    }
  }
  return planned;
}

/** Days and scores are the same in many rows of a file, and are read once. */
function readsOnce({ dayOrder, help, areFractions }: EntriesMapping, { today }: EntryFacts) {
  const days = new Map<string, ReturnType<typeof fileDay>>();
  const sessions = new Map<string, { session: ReturnType<typeof sessionOf>; messages: string[] }>();
  return {
    day: (text: string) => {
      const known = days.get(text) ?? fileDay(text, dayOrder, today);
      days.set(text, known);
      return known;
    },
    session: (found: SessionCells, of: string, measure: MeasureDefinition) => {
      const { score, outOf, reason, note } = found.cells;
      const key = JSON.stringify([of, score, outOf, reason, note, found.parts]);
      const known = sessions.get(key);
      if (known) return known;
      const messages: string[] = [];
      const fresh = { session: sessionOf(found, measure, { help, areFractions }, today, messages), messages };
      sessions.set(key, fresh);
      return fresh;
    },
  };
}

function foundIn(table: FileTable, row: readonly string[], at: number, { columns, goalId }: EntriesMapping): Found[] {
  if (row.every((cell) => cell === '')) return [];
  const cells = rowCells(row, columns);
  const base = { row: table.firstRow + at, student: cells.student ?? '', goal: cells.goal ?? '' };
  const wide = columns.flatMap((key, i) =>
    key.startsWith('goal:') ? [{ goalId: key.slice(5), text: row[i] ?? '' }] : [],
  );
  if (wide.length > 0) {
    return wide
      .filter(({ text }) => text !== '')
      .map(({ goalId, text }) => ({ ...base, goalId, cells: { ...cells, score: text }, parts: [] }));
  }
  const parts = columns.flatMap((key, i): [string, string][] =>
    key === PART && row[i] ? [[table.head[i] ?? '', unmarked(row[i] ?? '')]] : [],
  );
  if (!cells.score && !cells.reason && parts.length === 0) return [];
  return [{ ...base, goalId, cells, parts }];
}

function entryOf(
  found: Found,
  mapping: EntriesMapping,
  facts: EntryFacts,
  read: ReturnType<typeof readsOnce>,
): { shown: PreviewRow; command: EntryCommand | null } {
  const { row, cells } = found;
  const messages: string[] = [];
  const shown: PreviewRow = {
    row,
    fate: 'wrong',
    about: found.student || found.goal,
    says: cells.score ?? '',
    messages,
  };
  const goal = goalOfRow(found, mapping, facts, messages);
  if (!goal) return { shown, command: null };
  shown.about = `${facts.students.find(({ id }) => id === goal.studentId)?.name ?? ''} · ${goal.number} ${goal.shortName}`;
  const on = read.day(cells.on ?? '');
  if (!on.ok) {
    messages.push(`Date: ${on.message}`);
    return { shown, command: null };
  }
  shown.about += ` · ${dateSeenFrom(on.value, facts.today)}`;
  if (on.value > facts.today) messages.push('Date: This lies in the future.');
  if (goal.opensOn !== null && on.value < goal.opensOn) {
    messages.push(`Date: The plan began on ${longDate(goal.opensOn)}. Let the goal begin earlier, or leave this out.`);
  }
  const held = goal.measures.findLast(({ from }) => from <= on.value) ?? goal.measures[0];
  if (!held) return { shown, command: null };
  const { session, messages: wrong } = read.session(found, `${goal.id} ${held.version}`, held.measure);
  messages.push(...wrong);
  const time = cells.time ? timeCell(cells.time) : { ok: true as const, value: mapping.time };
  if (!time.ok) messages.push(`Time: ${time.message}`);
  const observerId = observerIn(cells.observer ?? '', goal.studentId, facts, messages);
  const locationId = cells.location
    ? oneOf(cells.location, facts.locations, messages, {
        label: 'Location',
        none: `the school has no “${cells.location}”. Add it under School, or correct it.`,
        several: `“${cells.location}” could be more than one.`,
      })
    : null;
  if (session) shown.says = [outcomeSentence(held.measure, session.outcome), session.note].filter(Boolean).join(' ');
  if (!session || !time.ok || messages.length > 0) return { shown, command: null };
  shown.fate = 'new';
  const { studentId, id: goalId } = goal;
  const where = { observerId, locationId };
  return {
    shown,
    command: {
      studentId,
      goalId,
      version: held.version,
      on: on.value,
      time: time.value,
      outcome: session.outcome,
      note: session.note,
      ...where,
    },
  };
}

function goalOfRow(found: Found, mapping: EntriesMapping, facts: EntryFacts, messages: string[]): ImportGoal | null {
  const ofColumn = facts.goals.find(({ id }) => id === found.goalId)?.studentId ?? null;
  const asked = { students: facts.students, studentId: mapping.studentId ?? ofColumn, whom: 'whom you observe' };
  const studentId = studentIn(found.student, asked, messages);
  if (studentId === null) return null;
  const theirs = facts.goals.filter((goal) => goal.studentId === studentId);
  if (found.goalId !== null && found.goal === '') {
    const goal = theirs.find(({ id }) => id === found.goalId);
    if (!goal) messages.push('Goal: this column is of a goal of somebody else.');
    return goal ?? null;
  }
  if (found.goal === '' && theirs.length === 1) return theirs[0] ?? null;
  const wanted = plainText(found.goal);
  const matches = named(wanted, theirs);
  if (matches.length === 1) return matches[0] ?? null;
  const list = theirs.map(({ number, shortName }) => `${number} ${shortName}`).join('; ');
  if (theirs.length === 0) messages.push('Goal: this student has no goal yet.');
  else if (found.goal === '') messages.push(`Goal: say which: ${list}.`);
  else if (matches.length > 1)
    messages.push(`Goal: “${found.goal}” could be more than one. Write its number: ${list}.`);
  else messages.push(`Goal: there is no “${found.goal}”. There are: ${list}.`);
  return null;
}
