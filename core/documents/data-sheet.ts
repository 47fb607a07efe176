import { type Choice, choiceKinds, kindWords } from '../entries/incidents/choice';
import { tableColumns } from '../entries/table/table';
import type { GoalDefinition } from '../goals/goal';
import type { MeasureDefinition } from '../measures/measure';
import { noScoreReasons, noScoreWords } from '../measures/score';
import { criterionSentence } from '../progress/mastery';
import { listed } from '../words/counting';
import type { DocumentBlock, ReportDocument } from './document';

/** A box to tick. */
const TICK = '□';

/** High enough to write in by hand, in points. */
const WRITABLE = 26;

/** More columns than this want the page laid across. */
const MOST_UPRIGHT = 6;

interface SheetGoal extends GoalDefinition {
  number: string;
  shortName: string;
  wording: string;
}

interface Whose {
  studentName: string;
  schoolName: string;
}

const filledIn = 'Observed by: ______________________   Where: ______________________';

/** What may be written into the columns of a measure, as the table that takes the sheet reads it. */
function howToWrite(measure: MeasureDefinition): string {
  const ways = tableColumns(measure).flatMap(({ key, label, example }) =>
    example && key !== 'reason' ? [`${label}: ${example}`] : [],
  );
  return `One row for each session. Examples: ${ways.join(' · ')}.`;
}

/**
 * A blank sheet for one goal, a row for each session: the columns of the table that takes what was written, in their order.
 *
 * @param rows  how many sessions there is room for
 */
export function goalSheet(goal: SheetGoal, { studentName, schoolName }: Whose, rows: number): ReportDocument {
  const columns = tableColumns(goal.measure);
  const reasons = noScoreReasons.map((reason) => noScoreWords[reason].label);
  return {
    title: `Data sheet of ${studentName}, ${goal.number} ${goal.shortName}`,
    head: `${studentName} · data sheet · ${goal.number} ${goal.shortName} · ${schoolName}`,
    isWide: columns.length > MOST_UPRIGHT,
    blocks: [
      { kind: 'heading', level: 1, text: `${goal.number} · ${goal.shortName}` },
      { kind: 'text', text: `${studentName}: ${goal.wording}` },
      { kind: 'text', quiet: true, text: criterionSentence(goal) },
      { kind: 'text', quiet: true, text: `${howToWrite(goal.measure)} No score: ${listed(reasons)}.` },
      { kind: 'text', text: filledIn },
      {
        kind: 'sheet',
        columns: columns.map(({ label }) => label),
        widths: columns.map(() => 'wide'),
        rows: blank(rows, columns.length),
        height: WRITABLE,
      },
    ],
  };
}

const blank = (rows: number, columns: number): string[][] =>
  Array.from({ length: rows }, () => Array.from({ length: columns }, () => ''));

/** A blank sheet for a round: its goals in their order, a page for each time that it is gone through. */
export function roundSheet(
  name: string,
  goals: readonly (SheetGoal & { studentName: string })[],
  { schoolName }: Pick<Whose, 'schoolName'>,
  sessions: number,
): ReportDocument {
  const rows = goals.map((goal) => [
    goal.studentName,
    `${goal.number} · ${goal.shortName}`,
    tableColumns(goal.measure)
      .slice(2, -2)
      .map(({ label }) => label)
      .join(', '),
    '',
    '',
  ]);
  const one = (at: number): DocumentBlock[] => [
    { kind: 'heading', level: 1, text: sessions === 1 ? name : `${name}, ${at + 1} of ${sessions}` },
    { kind: 'text', text: `Date: ________________   Time: ________   ${filledIn}` },
    {
      kind: 'sheet',
      columns: ['Student', 'Goal', 'To note', 'Noted', 'Note'],
      widths: ['auto', 'auto', 'wide', 'wide', 'wide'],
      rows,
      height: 2 * WRITABLE,
    },
  ];
  return {
    title: `Data sheet of a round: ${name}`,
    head: `${name} · data sheet · ${schoolName}`,
    isWide: true,
    blocks: Array.from({ length: sessions }, (_, at) => one(at)).flatMap((blocks, at) =>
      at === 0 ? blocks : [{ kind: 'pageBreak' as const }, ...blocks],
    ),
  };
}

/** A blank sheet for incidents of one student, with what is offered to tick: a row for each incident. */
export function incidentSheet(
  choices: readonly Choice[],
  { studentName, schoolName }: Whose,
  rows: number,
): ReportDocument {
  const offered = (kind: Choice['kind']) =>
    choices.filter((choice) => choice.kind === kind && choice.state === 'offered' && choice.mergedInto === null);
  const kinds = choiceKinds.filter((kind) => kind !== 'function' && offered(kind).length > 0);
  const row = [
    '\n',
    ...kinds.map((kind) =>
      offered(kind)
        .map(({ name }) => `${TICK} ${name}`)
        .join('\n'),
    ),
    '',
  ];
  return {
    title: `Incident sheet of ${studentName}`,
    head: `${studentName} · incident sheet · ${schoolName}`,
    isWide: true,
    blocks: [
      { kind: 'heading', level: 1, text: `Incidents of ${studentName}` },
      { kind: 'text', text: `${filledIn}   One row for each incident.` },
      {
        kind: 'sheet',
        columns: ['Date, time, how long', ...kinds.map((kind) => kindWords[kind].asks), 'Note'],
        widths: ['auto', ...kinds.map(() => 'wide' as const), 'wide'],
        rows: Array.from({ length: rows }, () => row),
        height: 2 * WRITABLE,
      },
    ],
  };
}
