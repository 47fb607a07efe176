import { z } from 'zod';
import type { IsoDate } from '../calendar/iso-date';
import { type MeasureData, type MeasureDefinition, measureOf } from '../measures/measure';
import { hasDistinctKeys, keyField } from '../measures/named';
import { median } from '../statistics/median';
import { counted, listed, percent } from '../words/counting';
import type { Outcome } from './observation';

/**
 * Which of a support’s steps the adult carried out in one session (fidelity, also called treatment integrity). Each step keeps the name it had
 * then: steps are reworded later. A step that nobody said anything of is not in the list.
 */
export const fidelityMarks = z
  .array(z.object({ key: keyField, label: z.string().trim().min(1).max(60), isDone: z.boolean() }))
  .min(1)
  .max(12)
  .refine(hasDistinctKeys, { error: 'A step of the support is said twice.' });
export type FidelityMarks = z.infer<typeof fidelityMarks>;

/** The percentage of the steps said that were done. */
export const fidelityShare = (marks: FidelityMarks): number =>
  (100 * marks.filter(({ isDone }) => isDone).length) / marks.length;

/** @example “3 of 4 support steps done (75%); not done: Card first.” */
export function fidelitySentence(marks: FidelityMarks): string {
  const left = marks.filter(({ isDone }) => !isDone).map(({ label }) => label);
  const done = `${marks.length - left.length} of ${counted(marks.length, 'support step', 'support steps')} done (${percent(fidelityShare(marks))})`;
  return left.length === 0 ? `${done}.` : `${done}; not done: ${listed(left)}.`;
}

/** What was said beside an entry, with its fidelity on a line of its own: it is shown to the team, where notes are shown. */
export const noteWithFidelity = (note: string, marks: FidelityMarks | null): string =>
  [note, marks ? fidelitySentence(marks) : ''].filter(Boolean).join('\n');

/** At least so much of a support has to be carried out for it to count as carried out: 80% is common practice, no published limit. */
export const ENOUGH_FIDELITY = 80;

export interface ObservedFidelity {
  on: IsoDate;
  marks: FidelityMarks | null;
  outcome: Outcome;
}

export interface FidelitySummary {
  /** Sessions that say which steps were done, of all sessions in the phase. */
  said: number;
  of: number;
  /** The percentage of all steps said that were done. */
  share: number;
  /** By the name that each step had in its first session of the list. */
  steps: { label: string; done: number; of: number }[];
  /** What the student did in sessions with enough fidelity and in those with less; null where there was none with a score. */
  outcomes: { isEnough: boolean; sessions: number; value: number | null }[];
}

/**
 * Fidelity of one phase beside what the student did in it: sessions with at least `ENOUGH_FIDELITY` of the steps and those with less,
 * each pooled where the goal’s figure is a share, else by the median of the sessions. It compares what came about, not what a support does: nobody dealt the sessions at random.
 *
 * @param sessions  newest first, so that steps have their present names
 * @returns null where no session says which steps were done
 */
export function fidelityOf(measure: MeasureDefinition, sessions: readonly ObservedFidelity[]): FidelitySummary | null {
  const said = sessions.flatMap(({ marks, outcome }) => (marks ? [{ marks, outcome }] : []));
  if (said.length === 0) return null;
  const all = said.flatMap(({ marks }) => marks);
  const steps = new Map<string, { label: string; done: number; of: number }>();
  for (const { key, label, isDone } of all) {
    const step = steps.get(key) ?? { label, done: 0, of: 0 };
    steps.set(key, { label, done: step.done + (isDone ? 1 : 0), of: step.of + 1 });
  }
  const outcomes = [true, false].map((isEnough) => {
    const of = said.filter(({ marks }) => fidelityShare(marks) >= ENOUGH_FIDELITY === isEnough);
    return {
      isEnough,
      sessions: of.length,
      value: together(
        measure,
        of.flatMap(({ outcome }) => outcome.data ?? []),
      ),
    };
  });
  return { said: said.length, of: sessions.length, share: fidelityShare(all), steps: [...steps.values()], outcomes };
}

function together(definition: MeasureDefinition, sessions: readonly MeasureData[]): number | null {
  const measure = measureOf(definition);
  const [first, ...others] = sessions;
  if (!first) return null;
  if (measure.isShare) return measure.score(measure.pool([first, ...others])).value;
  const values = sessions.flatMap((data) => measure.score(data).value ?? []);
  return values.length === 0 ? null : median(values);
}
