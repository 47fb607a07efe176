import { z } from 'zod';
import { addDays, type IsoDate, longDate } from '../calendar/iso-date';
import { type GoalInput, goalInput } from '../goals/goal-input';
import { numberCell } from '../measures/cells';
import { beginningOf, type Kind, kinds, type MeasureDefinition, measureKinds, measureOf } from '../measures/measure';
import { readable } from '../words/readable';
import { criterionCell } from './criterion-cell';
import { dayOrders, fileDay, guessDayOrder } from './days';
import { type FileField, type FileTable, filledDown, guessColumns, plainText, rowCells } from './file-table';
import { type ImportStudent, studentIn } from './naming';
import type { Planned, PreviewRow } from './preview';

export const goalFields = [
  { key: 'student', headings: ['student', 'name', 'student name', 'child', 'pupil', 'learner', 'student id'] },
  { key: 'number', headings: ['number', 'goal number', 'no', 'goal no', 'nr'] },
  { key: 'shortName', headings: ['short name', 'title', 'goal name', 'label'] },
  { key: 'wording', headings: ['goal', 'wording', 'goal text', 'objective', 'annual goal', 'description', 'iep goal'] },
  { key: 'area', headings: ['area', 'domain', 'subject', 'goal area'] },
  { key: 'measure', headings: ['measure', 'measured by', 'method', 'measurement', 'data type'] },
  { key: 'planned', headings: ['opportunities', 'trials', 'tries', 'trials per session', 'minutes watched'] },
  { key: 'criterion', headings: ['criterion', 'criteria', 'mastery', 'mastery criterion', 'target'] },
  { key: 'baselineValue', headings: ['baseline', 'present level', 'starting point'] },
  { key: 'baselineOn', headings: ['baseline date', 'baseline on', 'date of baseline'] },
  { key: 'startsOn', headings: ['from', 'start', 'starts', 'start date', 'begins', 'goal from'] },
  { key: 'targetOn', headings: ['until', 'target date', 'end', 'end date', 'by', 'goal until'] },
  { key: 'planFrom', headings: ['plan from', 'plan starts', 'plan start', 'iep start', 'iep start date'] },
  { key: 'planUntil', headings: ['plan until', 'plan ends', 'plan end', 'iep end', 'iep end date'] },
] as const satisfies readonly FileField[];
export type GoalFieldKey = (typeof goalFields)[number]['key'];

const columnField = z.enum(['', ...goalFields.map(({ key }) => key)]);

/** What is said of a file of goals. */
export const goalsMapping = z.object({
  sheet: z.number().int().min(0).default(0),
  columns: z.array(columnField.default('')).max(200),
  dayOrder: z.enum(dayOrders).default('monthFirst'),
  studentId: z.uuid().nullable().default(null),
  /** How goals are measured that do not say. */
  measure: z.enum(measureKinds as [Kind, ...Kind[]]).default('trials'),
  fillsDown: z.boolean().default(false),
});
export type GoalsMapping = z.infer<typeof goalsMapping>;

export interface PlanDates {
  startsOn: IsoDate;
  endsOn: IsoDate;
}

export interface GoalFacts {
  today: IsoDate;
  /** Those whose goals one may edit, with the plan that holds. */
  students: (ImportStudent & { plan: PlanDates | null })[];
  /** Goals that are worked on. */
  goals: { studentId: string; number: string; wording: string }[];
}

export interface GoalCommand {
  studentId: string;
  /** Of a student who has none. */
  plan: PlanDates | null;
  goal: Omit<GoalInput, 'id'>;
}

/** Other ways in which people say how something is measured; common practice, our own choice of words. */
const alsoCalled: Partial<Record<Kind, string[]>> = {
  trials: ['trial', 'accuracy', 'percent correct', 'percent', 'percentage', 'discrete trials', 'opportunities'],
  itemCheck: ['items', 'checklist', 'list'],
  frequency: ['count', 'rate', 'how often', 'event recording'],
  duration: ['time', 'minutes', 'how long'],
  latency: ['response time'],
  intervalRecording: ['interval', 'intervals', 'on task', 'time sampling'],
  rubric: ['scale', 'rating', 'points'],
  cumulativeTotal: ['total', 'hours', 'sum'],
  taskAnalysis: ['steps', 'chain'],
  oralReading: ['oral reading', 'fluency', 'words per minute', 'wpm', 'orf'],
  measurement: ['reading', 'probe'],
};

function kindOf(text: string): Kind | null {
  const asked = plainText(text);
  return (
    measureKinds.find(
      (kind) =>
        [kinds[kind].term, kinds[kind].question, kind].some((one) => plainText(one) === asked) ||
        alsoCalled[kind]?.includes(asked),
    ) ?? null
  );
}

export function guessGoals(table: FileTable, { students }: Pick<GoalFacts, 'students'>): GoalsMapping {
  const columns = guessColumns(table.head, goalFields);
  const texts = (...keys: string[]) =>
    columns.flatMap((key, at) => (keys.includes(key) ? table.rows.map((row) => row[at] ?? '') : []));
  const names = texts('student');
  return goalsMapping.parse({
    columns,
    dayOrder: guessDayOrder(texts('baselineOn', 'startsOn', 'targetOn', 'planFrom', 'planUntil')),
    studentId: names.length === 0 && students.length === 1 ? students[0]?.id : null,
    fillsDown: names[0] !== '' && names.some((name) => name === ''),
  });
}

/** What each row of a file of goals comes to. A goal that the student has already, by number and wording, is not made twice. */
export function planGoals(table: FileTable, mapping: GoalsMapping, facts: GoalFacts): Planned<GoalCommand> {
  const rows = mapping.fillsDown ? filledDown(table.rows, mapping.columns, ['student']) : table.rows;
  const numbers = new Map(facts.goals.map((goal) => [`${goal.studentId} ${goal.number}`, goal.wording]));
  const plans = new Map(facts.students.map(({ id, plan }) => [id, plan]));
  const planned: Planned<GoalCommand> = { rows: [], commands: [] };
  for (const [at, row] of rows.entries()) {
    if (row.every((cell) => cell === '')) continue;
    const { shown, command } = goalOf(rowCells(row, mapping.columns), mapping, facts, plans);
    planned.rows.push({ row: table.firstRow + at, ...shown });
    if (!command) continue;
    const key = `${command.studentId} ${command.goal.number}`;
    const there = numbers.get(key);
    const last = planned.rows.at(-1);
    if (there !== undefined && last) {
      const isSame = plainText(there) === plainText(command.goal.wording);
      last.fate = isSame ? 'there' : 'wrong';
      if (!isSame) last.messages.push(`Number: another goal of this student has the number ${command.goal.number}.`);
      continue;
    }
    numbers.set(key, command.goal.wording);
    plans.set(command.studentId, plans.get(command.studentId) ?? command.plan);
    planned.commands.push(command);
  }
  return planned;
}

type Shown = Omit<PreviewRow, 'row'>;

function goalOf(
  cells: Record<string, string>,
  mapping: GoalsMapping,
  facts: GoalFacts,
  plans: ReadonlyMap<string, PlanDates | null>,
): { shown: Shown; command: GoalCommand | null } {
  const messages: string[] = [];
  const shown: Shown = {
    fate: 'wrong',
    about: `${cells.student ?? ''} ${cells.number ?? ''}`.trim(),
    says: cells.wording ?? '',
    messages,
  };
  const studentId = studentIn(
    cells.student ?? '',
    { students: facts.students, studentId: mapping.studentId, whom: 'whose goals you set up' },
    messages,
  );
  const name = facts.students.find(({ id }) => id === studentId)?.name ?? cells.student;
  shown.about = `${name} · ${cells.number ?? ''}`;
  const dates = datesOf(cells, mapping, facts, messages);
  const known = studentId === null ? null : (plans.get(studentId) ?? null);
  const plan = known ?? planOf(dates, messages);
  const measure = measureFrom(cells, mapping, messages);
  if (!measure) return { shown, command: null };
  const criterion = cells.criterion
    ? criterionCell(cells.criterion, measure)
    : { ok: true as const, value: measureOf(measure).defaultCriterion() };
  if (!criterion.ok) messages.push(`Criterion: ${criterion.message}`);
  const baseline = numberCell((cells.baselineValue ?? '').replace(/\s*%$/, ''));
  if (!baseline.ok) messages.push(`Baseline: ${baseline.message}`);
  const startsOn = dates.startsOn ?? plan?.startsOn ?? facts.today;
  const targetOn = dates.targetOn ?? plan?.endsOn;
  if (!targetOn) messages.push('Until: say by when, or give the plan’s dates: this student has no plan yet.');
  if (!criterion.ok || !baseline.ok || !targetOn || studentId === null) return { shown, command: null };
  const value = baseline.value;
  const parsed = readable(goalInput).safeParse({
    // The id is given when it comes in.
    ...{ id: '00000000-0000-4000-8000-000000000000', number: cells.number, area: cells.area ?? '' },
    ...{
      shortName: cells.shortName || shortened(cells.wording ?? ''),
      wording: cells.wording,
      measure,
      criterion: criterion.value,
    },
    ...{ baselineValue: value, baselineOn: value === null ? null : (dates.baselineOn ?? startsOn), startsOn, targetOn },
  });
  if (!parsed.success) {
    messages.push(
      ...parsed.error.issues.map(({ path, message }) => `${labels[String(path[0])] ?? 'Goal'}: ${message}`),
    );
    return { shown, command: null };
  }
  if (messages.length > 0) return { shown, command: null };
  shown.fate = 'new';
  shown.about = `${name} · ${parsed.data.number} ${parsed.data.shortName}`;
  shown.says = `${kinds[measure.kind].term}, ${criterionSaid(parsed.data)}, ${longDate(startsOn)} to ${longDate(targetOn)}`;
  return { shown, command: { studentId, plan: known ? null : plan, goal: parsed.data } };
}

const labels: Record<string, string> = {
  ...{ number: 'Number', wording: 'Wording', shortName: 'Short name', area: 'Area', measure: 'Measure' },
  ...{
    criterion: 'Criterion',
    baselineValue: 'Baseline',
    baselineOn: 'Baseline date',
    targetOn: 'Until',
    startsOn: 'From',
  },
};

function criterionSaid({ criterion, measure }: Pick<GoalInput, 'criterion' | 'measure'>): string {
  const { comparison, rule } = criterion;
  const often = rule.kind === 'ofLast' ? `${rule.k} of the last ${rule.n}` : `${rule.n} in a row`;
  return `${comparison === 'atLeast' ? 'at least' : 'at most'} ${measureOf(measure).said(criterion.value)} in ${often}`;
}

const shortened = (wording: string) => {
  const words = wording.split(/\s+/).slice(0, 6).join(' ');
  return words.length > 60 ? `${words.slice(0, 59)}…` : words;
};

function datesOf(cells: Record<string, string>, { dayOrder }: GoalsMapping, { today }: GoalFacts, messages: string[]) {
  const day = (key: GoalFieldKey, label: string): IsoDate | null => {
    const text = cells[key] ?? '';
    if (text === '') return null;
    const read = fileDay(text, dayOrder, today);
    if (!read.ok) messages.push(`${label}: ${read.message}`);
    return read.ok ? read.value : null;
  };
  return {
    ...{
      baselineOn: day('baselineOn', 'Baseline date'),
      startsOn: day('startsOn', 'From'),
      targetOn: day('targetOn', 'Until'),
    },
    ...{ planFrom: day('planFrom', 'Plan from'), planUntil: day('planUntil', 'Plan until') },
  };
}

function planOf({ planFrom, planUntil }: ReturnType<typeof datesOf>, messages: string[]): PlanDates | null {
  if (planFrom === null && planUntil === null) return null;
  const startsOn = planFrom ?? addDays(planUntil ?? '', -364);
  const endsOn = planUntil ?? addDays(startsOn, 364);
  if (endsOn > startsOn) return { startsOn, endsOn };
  messages.push('Plan until: the plan ends after it starts.');
  return null;
}

function measureFrom(
  cells: Record<string, string>,
  mapping: GoalsMapping,
  messages: string[],
): MeasureDefinition | null {
  const kind = cells.measure ? kindOf(cells.measure) : mapping.measure;
  if (!kind) {
    messages.push(`Measure: one of: ${measureKinds.map((one) => kinds[one].term).join(', ')}.`);
    return null;
  }
  const beginning = beginningOf(kind);
  const planned = numberCell(cells.planned ?? '');
  if (!planned.ok || (planned.value !== null && (!Number.isInteger(planned.value) || planned.value < 1))) {
    messages.push('Opportunities: a whole number, please.');
    return null;
  }
  if (planned.value === null) return beginning;
  if (beginning.kind === 'trials' && planned.value <= 40) return { ...beginning, planned: planned.value };
  if (beginning.kind === 'frequency') return { ...beginning, sessionMinutes: planned.value };
  messages.push('Opportunities: of trials, up to 40; of a frequency, the minutes watched. Leave it blank here.');
  return null;
}
