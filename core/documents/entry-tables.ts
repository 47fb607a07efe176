import type { ReportEntry } from '../individual-report/report';
import { type MeasureDefinition, measureOf } from '../measures/measure';
import { noScoreWords } from '../measures/score';
import type { Table, TableCell } from './table';

/** A goal as its sheet is called. */
interface TableGoal {
  id: string;
  number: string;
  shortName: string;
}

interface EntryTablesAround {
  goals: readonly TableGoal[];
  /** How an observation's goal was measured when it was made; null where that is not known any more. */
  measureAt: (entry: ReportEntry) => MeasureDefinition | null;
  /** What was answered to an entry, a line each. */
  answersTo: (entry: ReportEntry) => readonly string[];
}

const kinds: Record<ReportEntry['kind'], string> = {
  observation: 'goal',
  incident: 'incident',
  count: 'count',
  note: 'note',
  reflection: 'reflection',
};

const yes = (is: boolean): TableCell => (is ? 'yes' : null);
const textOf = (text: string | null): TableCell => text || null;

/** The figures of an observation, as far as its reader is shown them. */
interface Figures {
  value: number | null;
  unit: string | null;
  amount: number | null;
  /** The opportunities that a share is of; other measures say in `basis` what they are held against. */
  of: number | null;
  basis: string | null;
  isBeyond: boolean;
  noScore: string | null;
  parts: { label: string; value: number | null }[];
}

const NONE: Figures = {
  ...{ value: null, unit: null, amount: null, of: null, basis: null, isBeyond: false, noScore: null },
  parts: [],
};

function figuresOf({ outcome }: ReportEntry, definition: MeasureDefinition | null): Figures {
  if (outcome === null || definition === null) return NONE;
  if (outcome.reason !== null) return { ...NONE, noScore: noScoreWords[outcome.reason].label };
  const measure = measureOf(definition);
  const score = measure.score(outcome.data);
  const parts = measure.breakdown(outcome.data).map(({ label, value }) => ({ label, value }));
  if (score.value === null) return { ...NONE, parts };
  return {
    value: score.value,
    unit: measure.axis.unit.trim() || null,
    amount: score.amount,
    of: measure.isShare ? score.weight : null,
    basis: measure.basis(score),
    isBeyond: score.isBeyond ?? false,
    noScore: null,
    parts,
  };
}

const figureFields = ['value', 'unit', 'amount', 'out of', 'basis', 'beyond limit', 'no score'];
const figureCells = ({ value, unit, amount, of, basis, isBeyond, noScore }: Figures): TableCell[] => [
  ...[value, unit, amount, of, basis],
  ...[yes(isBeyond), noScore],
];

const aboutFields = ['location', 'observer', 'second observer', 'version', 'note', 'answers', 'sentence'];
const aboutCells = (entry: ReportEntry, answers: readonly string[]): TableCell[] => [
  ...[textOf(entry.location), textOf(entry.observer), yes(entry.isSecond), entry.version || null],
  ...[textOf(entry.note), textOf(answers.join('\n')), entry.sentence],
];

/**
 * The entries of a report for those who compute with them: one table of all, a row each, and one for each goal in which what lies
 * behind its figure has a column of its own. What a reader may not see of an entry is blank.
 *
 * @param entries  in the order in which they are wanted
 */
export function entryTables(entries: readonly ReportEntry[], around: EntryTablesAround): [Table, ...Table[]] {
  const { goals, measureAt, answersTo } = around;
  const read = entries.map((entry) => ({
    entry,
    figures: figuresOf(entry, measureAt(entry)),
    answers: answersTo(entry),
  }));
  const all: Table = {
    name: 'Entries',
    fields: [
      'date',
      'time',
      'kind',
      'of',
      ...figureFields.slice(0, 5),
      'parts',
      ...figureFields.slice(5),
      ...aboutFields,
    ],
    rows: read.map(({ entry, figures, answers }) => {
      const cells = figureCells(figures);
      const parts = figures.parts.flatMap(({ label, value }) => (value === null ? [] : [`${label} ${value}`]));
      return [
        ...[{ on: entry.on }, { time: entry.time }, kinds[entry.kind], entry.title],
        ...[...cells.slice(0, 5), textOf(parts.join(' | ')), ...cells.slice(5)],
        ...aboutCells(entry, answers),
      ];
    }),
  };
  const ofGoals = goals.flatMap(({ id, number, shortName }): Table[] => {
    const own = read.filter(({ entry }) => entry.goalId === id);
    if (own.length === 0) return [];
    // Levels and items may have changed over the versions of a goal: every name that was ever used has its column.
    const labels = [...new Set(own.flatMap(({ figures }) => figures.parts.map(({ label }) => label)))];
    return [
      {
        name: `${number} ${shortName}`,
        fields: ['date', 'time', ...figureFields, ...labels, ...aboutFields],
        rows: own.map(({ entry, figures, answers }) => [
          ...[{ on: entry.on }, { time: entry.time }, ...figureCells(figures)],
          ...labels.map((label) => figures.parts.find((part) => part.label === label)?.value ?? null),
          ...aboutCells(entry, answers),
        ]),
      },
    ];
  });
  return [all, ...ofGoals];
}
