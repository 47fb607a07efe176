import { z } from 'zod';
import { clockTimeField } from '../calendar/date-fields';
import { dateSeenFrom, type IsoDate } from '../calendar/iso-date';
import { type Choice, type ChoiceKind, kindWords, plainName } from '../entries/incidents/choice';
import { noteField } from '../entries/observation';
import { lengthCell, partsOf, timeCell } from '../measures/cells';
import { counted } from '../words/counting';
import { dayOrders, fileDay, guessDayOrder } from './days';
import type { EntryFacts } from './entries';
import { type FileField, type FileTable, filledDown, guessColumns, rowCells } from './file-table';
import { type ImportStudent, observerIn, studentIn } from './naming';
import type { Planned, PreviewRow } from './preview';

export const incidentFields = [
  { key: 'student', headings: ['student', 'name', 'student name', 'child', 'pupil', 'learner', 'student id'] },
  { key: 'on', headings: ['date', 'day', 'on', 'incident date'] },
  { key: 'time', headings: ['time', 'time of day', 'at', 'start time', 'start'] },
  { key: 'antecedent', headings: ['antecedent', 'a', 'before', 'antecedents', 'what happened before', 'trigger'] },
  { key: 'behavior', headings: ['behavior', 'behaviour', 'b', 'behaviors', 'target behavior', 'what happened'] },
  { key: 'consequence', headings: ['consequence', 'c', 'after', 'consequences', 'what happened after', 'response'] },
  { key: 'function', headings: ['function', 'possible function', 'hypothesis'] },
  { key: 'location', headings: ['location', 'place', 'setting', 'where'] },
  { key: 'intensity', headings: ['intensity', 'severity', 'level'] },
  { key: 'duration', headings: ['duration', 'length', 'how long', 'lasted'] },
  { key: 'note', headings: ['note', 'notes', 'comment', 'comments', 'remarks', 'description'] },
  { key: 'observer', headings: ['observer', 'staff', 'observed by', 'recorded by', 'teacher'] },
] as const satisfies readonly FileField[];
export type IncidentFieldKey = (typeof incidentFields)[number]['key'];

const facets = [
  'behavior',
  'antecedent',
  'consequence',
  'function',
  'location',
  'intensity',
] as const satisfies ChoiceKind[];
type Facet = (typeof facets)[number];

/** What is said of a file of incidents. */
export const incidentsMapping = z.object({
  sheet: z.number().int().min(0).default(0),
  columns: z.array(z.enum(['', ...incidentFields.map(({ key }) => key)]).default('')).max(200),
  dayOrder: z.enum(dayOrders).default('monthFirst'),
  time: clockTimeField.default('12:00'),
  studentId: z.uuid().nullable().default(null),
  /** In what a bare number of a duration counts. */
  durationIn: z.enum(['minutes', 'seconds']).default('minutes'),
  /** Whether what is on no list yet is offered from now on, or stands in these incidents alone. */
  offersNew: z.boolean().default(false),
  fillsDown: z.boolean().default(false),
});
export type IncidentsMapping = z.infer<typeof incidentsMapping>;

export interface IncidentFacts extends Pick<EntryFacts, 'today' | 'people' | 'observerId' | 'there'> {
  students: ImportStudent[];
  choices: ReadonlyMap<string, readonly Choice[]>;
}

/** What an incident of a file names: by the id of a choice, or by a name that none has yet. */
export interface Naming {
  kind: Facet;
  id: string | null;
  name: string;
}

export interface IncidentCommand {
  studentId: string;
  on: IsoDate;
  time: string;
  observerId: string;
  seconds: number | null;
  note: string;
  named: Naming[];
}

/** What makes two incidents the same: whose, when, and which behaviors. */
export const incidentMark = (studentId: string, on: IsoDate, time: string, behaviors: readonly string[]) =>
  `${studentId} ${on} ${time} ${behaviors.map(plainName).toSorted().join('|')}`;

export function guessIncidents(table: FileTable, { students }: Pick<IncidentFacts, 'students'>): IncidentsMapping {
  const columns = guessColumns(table.head, incidentFields);
  const texts = (key: string) =>
    columns.flatMap((held, at) => (held === key ? table.rows.map((row) => row[at] ?? '') : []));
  const heading = table.head[columns.indexOf('duration')] ?? '';
  return incidentsMapping.parse({
    columns,
    offersNew: true,
    dayOrder: guessDayOrder(texts('on')),
    studentId: columns.includes('student') ? null : students.length === 1 ? students[0]?.id : null,
    durationIn: /sec/i.test(heading) ? 'seconds' : 'minutes',
    fillsDown: texts('student').some((text, i) => i > 0 && text === '') && texts('student')[0] !== '',
  });
}

/** What each row of a table of incidents comes to; its notes say which names are on no list yet. */
export function planIncidents(
  table: FileTable,
  mapping: IncidentsMapping,
  facts: IncidentFacts,
): Planned<IncidentCommand> {
  const rows = mapping.fillsDown ? filledDown(table.rows, mapping.columns, ['student', 'on']) : table.rows;
  const left = new Map(facts.there);
  const fresh = new Map<string, { about: string; times: number }>();
  const planned: Planned<IncidentCommand> = { rows: [], commands: [] };
  for (const [at, row] of rows.entries()) {
    if (row.every((cell) => cell === '')) continue;
    const { shown, command } = incidentOf(rowCells(row, mapping.columns), mapping, facts);
    const last: PreviewRow = { row: table.firstRow + at, ...shown };
    planned.rows.push(last);
    if (!command) continue;
    const behaviors = command.named.flatMap(({ kind, name }) => (kind === 'behavior' ? [name] : []));
    const mark = incidentMark(command.studentId, command.on, command.time, behaviors);
    const n = left.get(mark) ?? 0;
    if (n > 0) {
      left.set(mark, n - 1);
      last.fate = 'there';
      continue;
    }
    planned.commands.push(command);
    const student = facts.students.find((one) => one.id === command.studentId)?.name ?? '';
    for (const { kind, id, name } of command.named) {
      if (id !== null) continue;
      const key = `${command.studentId} ${kind} ${plainName(name)}`;
      const about = `${student}, ${kindWords[kind].one}: “${name}”`;
      fresh.set(key, { about, times: (fresh.get(key)?.times ?? 0) + 1 });
    }
  }
  const notes = [...fresh.values()].map(({ about, times }) => `${about} (${counted(times, 'time', 'times')})`);
  return { ...planned, notes };
}

type Shown = Omit<PreviewRow, 'row'>;

function incidentOf(
  cells: Record<string, string>,
  mapping: IncidentsMapping,
  facts: IncidentFacts,
): { shown: Shown; command: IncidentCommand | null } {
  const messages: string[] = [];
  const shown: Shown = { fate: 'wrong', about: cells.student ?? '', says: cells.behavior ?? '', messages };
  const studentId = studentIn(
    cells.student ?? '',
    { students: facts.students, studentId: mapping.studentId, whom: 'whom you observe' },
    messages,
  );
  const on = fileDay(cells.on ?? '', mapping.dayOrder, facts.today);
  if (!on.ok) messages.push(`Date: ${on.message}`);
  else if (on.value > facts.today) messages.push('Date: This lies in the future.');
  const time = cells.time ? timeCell(cells.time) : { ok: true as const, value: mapping.time };
  if (!time.ok) messages.push(`Time: ${time.message}`);
  const seconds = secondsOf(cells.duration ?? '', mapping, messages);
  const note = noteField.safeParse(cells.note ?? '');
  if (!note.success) messages.push(`Note: ${note.error.issues[0]?.message}`);
  if (!cells.behavior) messages.push('Behavior: say what happened.');
  if (studentId === null) return { shown, command: null };
  const name = facts.students.find(({ id }) => id === studentId)?.name ?? '';
  shown.about = `${name}${on.ok ? ` · ${dateSeenFrom(on.value, facts.today)}` : ''}`;
  const observerId = observerIn(cells.observer ?? '', studentId, facts, messages);
  const named = facets.flatMap((kind) =>
    namesIn(kind, cells[kind] ?? '', facts.choices.get(studentId) ?? [], messages),
  );
  if (messages.length > 0 || !on.ok || !time.ok || !note.success) return { shown, command: null };
  shown.fate = 'new';
  const fresh = named.filter(({ id }) => id === null).length;
  shown.says = `${named.map((one) => one.name).join(' · ')}${fresh > 0 ? ` (${counted(fresh, 'new choice', 'new choices')})` : ''}`;
  return { shown, command: { studentId, on: on.value, time: time.value, observerId, seconds, note: note.data, named } };
}

function secondsOf(text: string, { durationIn }: IncidentsMapping, messages: string[]): number | null {
  if (text === '') return null;
  const read = lengthCell(text.replace(/\s*(?:min|minutes|m|sec|seconds|s)\.?$/i, ''));
  if (!read.ok || read.value <= 0) {
    messages.push('Duration: minutes and seconds such as 4:30, or a number.');
    return null;
  }
  const isSeconds = /s(?:ec|econds)?\.?$/i.test(text);
  const isMinutes = /m(?:in|inutes)?\.?$/i.test(text) || (!isSeconds && durationIn === 'minutes');
  return text.includes(':') || !isMinutes ? read.value : 60 * read.value;
}

/** One place and one intensity; of everything else there may be several in a cell. */
function namesIn(kind: Facet, text: string, choices: readonly Choice[], messages: string[]): Naming[] {
  if (text === '') return [];
  const isOne = kind === 'location' || kind === 'intensity';
  const names = isOne ? [text] : [...new Set(partsOf(text))];
  return names.flatMap((name): Naming[] => {
    if (name.length > 80) {
      messages.push(
        `${name.slice(0, 30)}…: a choice has at most 80 letters. Keep it short here, and the rest in the note.`,
      );
      return [];
    }
    const own = choices.filter((choice) => choice.kind === kind && plainName(choice.name) === plainName(name));
    const found = own.find(({ mergedInto }) => mergedInto === null) ?? own[0];
    const id = found ? (found.mergedInto ?? found.id) : null;
    if (id === null && kind === 'intensity') {
      messages.push(`Intensity: there is no “${name}” in the student’s own scale.`);
      return [];
    }
    return [{ kind, id, name: found?.name ?? name }];
  });
}
