import type { IsoDate } from '~/core/calendar/iso-date';
import { shortDate } from '~/core/calendar/iso-date';
import type { Outcome } from '~/core/entries/observation';
import { type ItemState, itemCheck, itemHistory } from '~/core/measures/item-check/item-check';
import { type MeasureData, type MeasureDefinition, measureOf } from '~/core/measures/measure';
import { own } from '~/core/measures/measure-of-goal';
import { stepsToTeach, taskAnalysis } from '~/core/measures/task-analysis/task-analysis';
import { toneOf } from '../platform/ui/outcome-tones';
import { breakdownWords } from './words';

/** What lies behind each session's figure: a row for each item, step, criterion or figure, a column for each session. */
export interface Breakdown {
  sessions: string[];
  /** What the last column says of a row over time; null where there is nothing to say. */
  standing: string | null;
  rows: { key: string; label: string; standing: string; cells: Cell[] }[];
}

/** One session's cell: a trial mark of a tone, or text; null where nothing was recorded. */
export type Cell = { tone: string | null; said: string } | null;

/** Sessions that there is room for: as trial marks, as figures. */
const TRIAL_MARKS = 12;
const FIGURES = 6;

const stateWords: Record<ItemState, string> = {
  known: 'known',
  coming: 'coming',
  missed: 'missed',
  notAsked: 'not asked yet',
};

/**
 * The newest sessions of a goal, broken down as its measure does; for trials there is a chart instead.
 *
 * @param entries  newest first
 */
export function breakdownOf(
  measure: MeasureDefinition,
  entries: readonly { on: IsoDate; outcome: Outcome }[],
): Breakdown | null {
  if (measure.kind === 'trials') return null;
  const all = entries.flatMap(({ on, outcome }) => (outcome.data === null ? [] : [{ on, data: outcome.data }]));
  const shown = all
    .slice(0, measure.kind === 'itemCheck' || measure.kind === 'taskAnalysis' ? TRIAL_MARKS : FIGURES)
    .reverse();
  if (shown.length === 0) return null;
  const of = measureOf(measure);
  const lines = shown.map(({ data }) => of.breakdown(data));
  const keys = [...new Map(lines.flat().map(({ key, label }) => [key, label]))];
  const standings = standingsOf(measure, all.toReversed());
  return {
    sessions: shown.map(({ on }) => shortDate(on)),
    standing: standings && (measure.kind === 'itemCheck' ? breakdownWords.soFar : 'Next'),
    rows: keys.map(([key, label]) => ({
      key,
      label,
      standing: standings?.get(key) ?? '',
      cells: shown.map(({ data }, i) => {
        const line = lines[i]?.find((one) => one.key === key);
        return !line || line.value === null ? null : { tone: toneIn(measure, data, key), said: line.said };
      }),
    })),
  };
}

/** The tone of an item's or a step's last outcome in a session. */
function toneIn(measure: MeasureDefinition, data: MeasureData, key: string): string | null {
  if (measure.kind === 'itemCheck') {
    const outcome = own(itemCheck, data).items.findLast(({ item }) => item === key)?.outcome;
    return outcome === undefined ? null : toneOf(measure, outcome);
  }
  if (measure.kind === 'taskAnalysis') {
    const outcome = own(taskAnalysis, data).steps.findLast(({ step }) => step === key)?.outcome;
    return outcome === undefined ? null : outcome === 'notDone' ? 'outcome-incorrect' : toneOf(measure, outcome);
  }
  return null;
}

function standingsOf(
  measure: MeasureDefinition,
  sessions: readonly { on: IsoDate; data: MeasureData }[],
): Map<string, string> | null {
  if (measure.kind === 'itemCheck') {
    const history = itemHistory(
      measure,
      sessions.map(({ on, data }) => ({ on, data: own(itemCheck, data) })),
    );
    return new Map(
      history.map(({ key, state, neverKnown }) => [
        key,
        neverKnown && state !== 'notAsked' ? breakdownWords.neverRightYet(stateWords[state]) : stateWords[state],
      ]),
    );
  }
  if (measure.kind === 'taskAnalysis') {
    const last = sessions.at(-1);
    if (!last) return null;
    return new Map(stepsToTeach(measure, own(taskAnalysis, last.data)).map(({ key }) => [key, 'to teach']));
  }
  return null;
}
