import type { ReportEntry } from '../individual-report/report';
import { type MeasureData, type MeasureDefinition, measureOf } from '../measures/measure';
import { outcomesIn, partsIn } from '../measures/parts';
import { noScoreWords } from '../measures/score';
import { outcomesOf } from '../measures/support-levels';
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
  /** What each item or step came to, and as which level where it has some: two levels may be worth the same. */
  parts: { label: string; value: number | null; level: string | null }[];
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
  const levels = levelsIn(definition, outcome.data);
  const parts = measure
    .breakdown(outcome.data)
    .map(({ label, value }) => ({ label, value, level: levels.get(label) ?? null }));
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

/** The level of each item or step by its name, where a measure has both. */
function levelsIn(definition: MeasureDefinition, data: MeasureData): Map<string, string> {
  if (!('levels' in definition)) return new Map();
  const parts = new Map(partsIn(definition).map(({ key, label }) => [key, label]));
  const levels = new Map(outcomesOf(definition).map(({ key, label }) => [key, label]));
  return new Map(
    outcomesIn(data).flatMap(({ part, outcome }) =>
      part === null ? [] : [[parts.get(part) ?? part, levels.get(outcome) ?? outcome]],
    ),
  );
}

const whenFields = ['date', 'time'];
const figureFields = ['value', 'unit', 'amount', 'out of', 'basis', 'beyond limit', 'no score'];
const aboutFields = ['location', 'observer', 'second observer', 'version', 'note', 'answers', 'sentence'];

/** An entry with the cells that stand of it in the table of all and in that of its goal. */
interface Read {
  entry: ReportEntry;
  parts: Figures['parts'];
  when: TableCell[];
  figures: TableCell[];
  about: TableCell[];
}

function readEntry(entry: ReportEntry, { measureAt, answersTo }: EntryTablesAround): Read {
  const { parts, value, unit, amount, of, basis, isBeyond, noScore } = figuresOf(entry, measureAt(entry));
  const { on, time, location, observer, isSecond, version, note, sentence } = entry;
  const answers = answersTo(entry).join('\n');
  return {
    ...{ entry, parts, when: [{ on }, { time }] },
    figures: [value, unit, amount, of, basis, yes(isBeyond), noScore],
    about: [
      ...[textOf(location), textOf(observer), yes(isSecond), version || null],
      ...[textOf(note), textOf(answers), sentence],
    ],
  };
}

/** The figures of the table of all, in which the parts stand as one text before what is said of them. */
const AFTER_PARTS = 5;
const withParts = <T>(figures: readonly T[], parts: T): T[] => figures.toSpliced(AFTER_PARTS, 0, parts);

function partsSaid(parts: Figures['parts']): TableCell {
  return textOf(
    parts.flatMap(({ label, value, level }) => (value === null ? [] : [`${label} ${level ?? value}`])).join(' | '),
  );
}

/**
 * The entries of a report for those who compute with them: one table of all, a row each, and one for each goal in which what lies
 * behind its figure has a column of its own. What a reader may not see of an entry is blank.
 *
 * @param entries  in the order in which they are wanted
 */
export function entryTables(entries: readonly ReportEntry[], around: EntryTablesAround): [Table, ...Table[]] {
  const read = entries.map((entry) => readEntry(entry, around));
  const all: Table = {
    name: 'Entries',
    fields: [...whenFields, 'kind', 'of', ...withParts(figureFields, 'parts'), ...aboutFields],
    rows: read.map(({ entry, parts, when, figures, about }) =>
      when.concat([kinds[entry.kind], entry.title], withParts(figures, partsSaid(parts)), about),
    ),
  };
  const ofGoals = around.goals.flatMap(({ id, number, shortName }): Table[] => {
    const own = read.filter(({ entry }) => entry.goalId === id);
    if (own.length === 0) return [];
    // Levels and items may have changed over the versions of a goal: every name that was ever used has its column.
    const labels = [...new Set(own.flatMap(({ parts }) => parts.map(({ label }) => label)))];
    const withLevels = new Set(own.flatMap(({ parts }) => parts.flatMap(({ label, level }) => (level ? [label] : []))));
    const ofParts = (parts: Figures['parts']) =>
      labels.flatMap((wanted) => {
        const part = parts.find(({ label }) => label === wanted);
        return withLevels.has(wanted) ? [part?.level ?? null, part?.value ?? null] : [part?.value ?? null];
      });
    const partFields = labels.flatMap((label) => (withLevels.has(label) ? [label, `${label}: score`] : [label]));
    return [
      {
        name: `${number} ${shortName}`,
        fields: [...whenFields, ...figureFields, ...partFields, ...aboutFields],
        rows: own.map(({ parts, when, figures, about }) => when.concat(figures, ofParts(parts), about)),
      },
    ];
  });
  return [all, ...ofGoals];
}
