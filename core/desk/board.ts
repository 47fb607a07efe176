import { defined } from '../defined';
import type { StepState } from '../school/step-words';
import { median } from '../statistics/median';

const MINUTE = 60_000;

/** Something that was said of one step, as the board needs it. */
export interface StateSaid {
  id: string;
  studentId: string;
  stepId: string;
  state: StepState;
  word: string;
  at: Date;
  /** When somebody marked it as seen. */
  seenAt: Date | null;
}

export interface Cell {
  stepId: string;
  state: StepState;
  word: string;
  /** Since when it is so; null for what nobody has touched. */
  since: Date | null;
  /** What was said last, to mark it as seen. */
  saidId: string | null;
  isSeen: boolean;
  /** How often this student has been stuck at it, this time too. */
  timesStuck: number;
}

export interface BoardRow {
  studentId: string;
  cells: Cell[];
}

const NOT_BEGUN = { state: 'notBegun', word: '', since: null, saidId: null, isSeen: false } as const;

/**
 * How some students stand with the steps of a piece of work. What was said last counts; said again alike, it is so since it was first said.
 *
 * @param said  of these students and steps, in any order
 */
export function boardRows(
  studentIds: readonly string[],
  stepIds: readonly string[],
  said: readonly StateSaid[],
): BoardRow[] {
  const byCell = new Map<string, StateSaid[]>();
  for (const one of inOrder(said)) {
    const key = cellKey(one.studentId, one.stepId);
    byCell.set(key, [...(byCell.get(key) ?? []), one]);
  }
  return studentIds.map((studentId) => ({
    studentId,
    cells: stepIds.map((stepId): Cell => cellOf(stepId, byCell.get(cellKey(studentId, stepId)) ?? [])),
  }));
}

const cellKey = (studentId: string, stepId: string) => `${studentId} ${stepId}`;

const inOrder = (said: readonly StateSaid[]) =>
  said.toSorted((a, b) => a.at.getTime() - b.at.getTime() || (a.id < b.id ? -1 : 1));

function cellOf(stepId: string, said: readonly StateSaid[]): Cell {
  const last = said.at(-1);
  if (!last) return { stepId, ...NOT_BEGUN, timesStuck: 0 };
  const before = said.findLastIndex(({ state }) => state !== last.state);
  const run = said.slice(before + 1);
  return {
    stepId,
    state: last.state,
    word: run.findLast(({ word }) => word !== '')?.word ?? '',
    since: defined(run[0]).at,
    saidId: last.id,
    isSeen: last.seenAt !== null,
    timesStuck: stuckSpells(said).length,
  };
}

/** Whether a cell waits for somebody: it says so, and nobody has seen it yet. */
export const needsSomebody = ({ state, isSeen }: Pick<Cell, 'state' | 'isSeen'>): boolean =>
  (state === 'stuck' || state === 'pleaseLook') && !isSeen;

/** A time of being stuck, in one piece. */
export interface StuckSpell {
  from: Date;
  /** Null while it lasts. */
  until: Date | null;
}

/**
 * The times at which one student was stuck at one step.
 *
 * @param said  of one student and step, in order of time
 */
export function stuckSpells(said: readonly Pick<StateSaid, 'state' | 'at'>[]): StuckSpell[] {
  const spells: StuckSpell[] = [];
  for (const { state, at } of said) {
    const open = spells.at(-1);
    const isOpen = open !== undefined && open.until === null;
    if (state === 'stuck' && !isOpen) spells.push({ from: at, until: null });
    if (state !== 'stuck' && isOpen) open.until = at;
  }
  return spells;
}

export interface StepSummary {
  stepId: string;
  counts: Record<StepState, number>;
  /** Students who were stuck at it at some time. */
  stuckStudents: number;
  /** The median of how long, in minutes; what lasts counts until now. Null where nobody was. */
  stuckMinutes: number | null;
}

/**
 * What all students come to at each step.
 *
 * @param now  until when what lasts has lasted
 */
export function stepSummaries(
  rows: readonly BoardRow[],
  stepIds: readonly string[],
  said: readonly StateSaid[],
  now: Date,
): StepSummary[] {
  const ordered = inOrder(said);
  return stepIds.map((stepId, i) => {
    const counts: Record<StepState, number> = { notBegun: 0, atIt: 0, stuck: 0, pleaseLook: 0, done: 0 };
    for (const { cells } of rows) counts[defined(cells[i]).state]++;
    const byStudent = rows.map(({ studentId }) =>
      stuckSpells(ordered.filter((one) => one.studentId === studentId && one.stepId === stepId)),
    );
    const minutes = byStudent
      .flat()
      .map(({ from, until }) => ((until ?? now).getTime() - from.getTime()) / MINUTE)
      .filter((length) => length >= 0);
    return {
      stepId,
      counts,
      stuckStudents: byStudent.filter((spells) => spells.length > 0).length,
      stuckMinutes: minutes.length === 0 ? null : median(minutes),
    };
  });
}

export type BoardOrder = 'need' | 'name' | 'step';

/**
 * The rows as the board shows them: who waits longest first; or as they come; or who is farthest behind first.
 *
 * @param rows  in order of name
 */
export function orderedRows(rows: readonly BoardRow[], order: BoardOrder): BoardRow[] {
  if (order === 'name') return [...rows];
  if (order === 'step') return rows.toSorted((a, b) => doneCount(a) - doneCount(b));
  return rows.toSorted((a, b) => waitsSince(a) - waitsSince(b));
}

const doneCount = ({ cells }: BoardRow) => cells.filter(({ state }) => state === 'done').length;

/** Stuck comes before what only asks for a look; who waits for nothing comes last. */
function waitsSince({ cells }: BoardRow): number {
  const since = (wanted: StepState) =>
    Math.min(
      ...cells
        .filter((cell) => cell.state === wanted && needsSomebody(cell))
        .map((cell) => cell.since?.getTime() ?? Number.POSITIVE_INFINITY),
    );
  const stuck = since('stuck');
  if (stuck !== Number.POSITIVE_INFINITY) return stuck - 1e15;
  return since('pleaseLook');
}

/** Where somebody waits, with where it stands among the steps. */
export interface WaitingCell extends Cell {
  studentId: string;
  /** Of the steps, from 0. */
  at: number;
}

/** Every step that waits for somebody, by the order in which their students are seen to. */
export const waitingCells = (rows: readonly BoardRow[]): WaitingCell[] =>
  orderedRows(rows, 'need').flatMap(({ studentId, cells }) =>
    cells.flatMap((cell, at) => (needsSomebody(cell) ? [{ ...cell, studentId, at }] : [])),
  );

/** What changed within this time is “just now”. */
const JUST_NOW = 15 * MINUTE;
const MOST_JUST_NOW = 5;

/** What was begun and finished just now, the newest first; what waits for somebody stands elsewhere. */
export const justNow = (said: readonly StateSaid[], now: Date): StateSaid[] =>
  inOrder(said)
    .filter(({ at, state }) => (state === 'done' || state === 'atIt') && now.getTime() - at.getTime() < JUST_NOW)
    .slice(-MOST_JUST_NOW)
    .reverse();

/** Whole minutes since something; 0 where nobody has touched it, and where a clock was ahead. */
export const minutesSince = (since: Date | null, now: Date): number =>
  since === null ? 0 : Math.max(0, Math.floor((now.getTime() - since.getTime()) / MINUTE));

/** How many of all steps of all students are done. */
export const doneOf = (rows: readonly BoardRow[]): { count: number; of: number } => ({
  count: rows.reduce((sum, row) => sum + doneCount(row), 0),
  of: rows.reduce((sum, { cells }) => sum + cells.length, 0),
});

/** The step at which most students were stuck, the first of several; null where nobody was. */
export const mostStuckStep = (summaries: readonly StepSummary[]): StepSummary | null =>
  summaries.filter(({ stuckStudents }) => stuckStudents > 0).toSorted((a, b) => b.stuckStudents - a.stuckStudents)[0] ??
  null;
