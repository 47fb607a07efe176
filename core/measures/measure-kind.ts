import type { z } from 'zod';
import { percent } from '../words/counting';
import type { PairAgreement } from './agreement/pair';
import type { Comparison, CriterionDefinition } from './criterion-definition';
import type { MeasureTable } from './measure-table';
import type { Noun } from './named';
import type { BreakdownLine, Score, Scored } from './score';

export interface Axis {
  /** The largest value the axis must hold; null when that depends on what was measured. */
  max: number | null;
  /** What stands after a figure on the axis: “%”, “ min”. */
  unit: string;
  /** What a change is counted in: “points”, “minutes”. */
  change: string;
}

/**
 * What every kind of measure can do. `D` is the goal's own definition of it, `T` what one session holds. Within its folder a kind
 * knows both; everybody else asks `measureOf`.
 */
export interface MeasureKind<D, T extends object> {
  /** What one wants to know of a goal: the measure is chosen by it. */
  question: string;
  /** What the trade calls it: beside the question, smaller. */
  term: string;
  example: string;
  /** What a new goal of this kind begins with. */
  beginning: D;
  /** Whether data is of this kind: it is told by the property that only this kind has. */
  holds: (data: object) => data is T;
  /** The schema of what one session of this goal may hold; what it refuses, it refuses in words a teacher understands. */
  data: (definition: D) => z.ZodType<T>;
  /** The sessions of a day as one, from their raw counts; never an average of averages. */
  pool: (definition: D, sessions: readonly [T, ...T[]]) => T;
  /** Whether each point holds everything up to it, and not its own day only. */
  accumulates: boolean;
  /** Whether the value is a share of like opportunities, of which it can be said how sure it is. */
  isShare: boolean;
  score: (definition: D, data: T) => Score;
  /** The names of the parts that a session should hold and does not; left out where a session has no such parts. */
  required?: (definition: D, data: T) => string[];
  breakdown: (definition: D, data: T) => BreakdownLine[];
  /**
   * The session as the report says it.
   *
   * @param soFar  of a measure that accumulates: everything up to and with this session, where that is known
   */
  sentence: (definition: D, data: T, soFar?: number | null) => string;
  /** A value with its unit: “75%”, “14 an hour”. */
  said: (definition: D, value: number) => string;
  /** What a value comes from: “3 of 4”, “7 in 30 min”. */
  basis: (definition: D, score: Scored) => string;
  /** A criterion's value as a count, where that can be said beforehand: “5 of 6”. */
  asCount: (definition: D, value: number, comparison: Comparison) => string | null;
  /**
   * How many opportunities a session is planned to hold, null where the goal does not say; left out where a session has none. Whether they
   * are independent of each other: only then can it be told how easily luck would meet a criterion.
   */
  opportunities?: (definition: D) => { planned: number | null; areIndependent: boolean };
  /** The least that a session must hold to count for the criterion, where it is not half of what is planned. */
  usualMinimum?: (definition: D) => number;
  /** What `weight` counts. */
  weightNoun: (definition: D) => Noun;
  axis: (definition: D) => Axis;
  /** The same definition with neutral names for all that is the goal's own, for the discreet view. */
  discreet: (definition: D) => D;
  /** What a new goal of this kind begins with; common practice, to be changed. */
  defaultCriterion: (definition: D) => CriterionDefinition;
  /**
   * What the data mean: without the names of things, and without what only helps to collect them. Where it changes, the goal is
   * measured anew.
   */
  meaning: (definition: D) => unknown[];
  /**
   * What a figure means whatever was looked at: where only the rest of `meaning` changes, figures of both versions can be compared. All of
   * `meaning`, where it is left out.
   */
  scale?: (definition: D) => unknown[];
  /** The columns of a table from paper, and how a row of it is read. */
  table: MeasureTable<D>;
  /**
   * How far two observers of the same session agree, by the method that suits the measure.
   *
   * @returns null where they have nothing in common to compare
   * @see Cooper, Heron & Heward, Applied Behavior Analysis, “Improving and assessing the quality of behavioral measurement”
   */
  agreement: (definition: D, a: T, b: T) => PairAgreement | null;
  /** What would be recorded if the session ended now, its clock having run for so many seconds; for a kind that is timed. */
  withClock?: (definition: D, data: T | null, seconds: number) => T | null;
}

/** What all measures in percent have in common. */
export const percentAxis: Axis = { max: 100, unit: '%', change: 'points' };

/** What measures have in common whose value is a share of like opportunities, in percent. */
export const shareOfChances = {
  accumulates: false,
  isShare: true,
  said: (_: unknown, value: number) => percent(value),
  basis: (_: unknown, { amount, weight }: Scored) => `${amount} of ${weight}`,
  axis: () => percentAxis,
};
