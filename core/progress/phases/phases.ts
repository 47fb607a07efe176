import { defined } from '../../defined';
import type { Direction, GoalDefinition } from '../../goals/goal';
import { median } from '../../statistics/median';
import { largest, mean, smallest, standardDeviation } from '../../statistics/spread';
import { phaseName, type SeriesPoint } from '../series';
import { type TheilSenLine, theilSen } from '../trend/theil-sen';
import type { DayValue } from '../trend/trend-line';
import type { LeastVariance } from '../trend/weighted';
import {
  baselineCorrectedTau,
  type Change,
  changeAtLine,
  type DualCriterion,
  dualCriterion,
  logResponseRatio,
  napInterval,
} from './change';
import { nonoverlapOfAllPairs, percentageOfNonoverlappingData, tau, tauU } from './nonoverlap';

/** Whether a phase has points enough to be compared: fewer than 3, 3 or 4, or 5 and more. */
export type EnoughPoints = 'tooFew' | 'withReservations' | 'enough';

export interface PhaseFigures {
  name: string;
  n: number;
  mean: number;
  median: number;
  min: number;
  max: number;
  /** Standard deviation of the sample; null with one point. */
  sd: number | null;
  /** Null with fewer than three points. */
  trend: TheilSenLine | null;
  /** Share of the points within a quarter of the median to either side, 0 … 1. */
  withinQuarter: number;
  /** Whether that share is four in five or more; null with fewer than three points, of which nothing can be said. */
  stable: boolean | null;
  enough: EnoughPoints;
}

export interface PhaseComparison {
  from: string;
  to: string;
  nap: number;
  /** Its 95% interval (Newcombe 2006, method 5). */
  napLow: number;
  napHigh: number;
  pnd: number;
  tau: number;
  /** (S_AB − S_A) / (n_A · n_B): Parker and others 2011, the trend of A taken off. */
  tauU: number;
  /** The first three points' median against the last three's before, in the value's unit; above 0 is for the better. */
  immediate: number;
  /** Above 0 is for the better. */
  baselineCorrectedTau: number;
  /** Not oriented; null where a mean is not above 0. */
  logResponseRatio: { value: number; se: number } | null;
  /** Null with fewer than five points a side. */
  dualCriterion: Pick<DualCriterion, 'pass' | 'needed' | 'published' | 'beyond'> | null;
  /** At the second phase’s first day, in the value’s unit, not oriented; with 95% intervals. */
  levelChange: Change | null;
  /** A week. */
  slopeChange: Change | null;
  /** The poorer of both phases' marks. */
  enough: EnoughPoints;
}

export interface NamedPhase {
  name: string;
  /** In order of date. */
  points: readonly (DayValue & { weight?: number })[];
}

/** The goal’s phases with their points as it is measured now, and what lies before the first of them. */
export function namedPhases({ phases }: Pick<GoalDefinition, 'phases'>, points: readonly SeriesPoint[]): NamedPhase[] {
  return [-1, ...phases.keys()].map((index) => ({
    name: phaseName(phases, index),
    points: points.filter((point) => point.phase === index && !point.isFormer),
  }));
}

const POINTS_WITH_RESERVATIONS = 3;
const POINTS_ENOUGH = 5;
const QUARTER = 0.25;
const STABLE_SHARE = 0.8;
/** In percent: see `phaseFigures`. */
const LEAST_SHARE = 10;
const POINTS_AT_THE_LINE = 3;

/**
 * Whether so many points are enough.
 *
 * @see What Works Clearinghouse, single-case design standards: five points in a phase, three with reservations
 */
export function enoughPoints(n: number): EnoughPoints {
  if (n >= POINTS_ENOUGH) return 'enough';
  return n >= POINTS_WITH_RESERVATIONS ? 'withReservations' : 'tooFew';
}

/**
 * What one phase comes to.
 *
 * @param isShare  whether the values are percentages: then a median below 10% is taken for 10%, since a quarter of next to nothing leaves
 *   no room (our own rule); of other figures with a median of 0 only those that are 0 too lie within
 * @returns null for a phase without points
 * @see stability within ±25% of the median for 80% of the points: common practice (Gast & Ledford, Single Case Research Methodology)
 * @example phaseFigures({ name: 'A', points: [8, 10, 10, 11, 20].map((value, day) => ({ day, value })) })?.stable // true: 4 of 5 lie from 7.5 to 12.5
 */
export function phaseFigures({ name, points }: NamedPhase, isShare = false): PhaseFigures | null {
  if (points.length === 0) return null;
  const values = points.map((point) => point.value);
  const middle = median(values);
  const room = QUARTER * Math.max(Math.abs(middle), isShare ? LEAST_SHARE : 0);
  const within = values.filter((value) => Math.abs(value - middle) <= room + 1e-9).length;
  const withinQuarter = within / values.length;
  return {
    name,
    n: values.length,
    mean: mean(values),
    median: middle,
    min: smallest(values),
    max: largest(values),
    sd: standardDeviation(values),
    trend: theilSen(points),
    withinQuarter,
    stable: values.length < POINTS_WITH_RESERVATIONS ? null : withinQuarter >= STABLE_SHARE - 1e-9,
    enough: enoughPoints(values.length),
  };
}

/**
 * What changed from one phase to the next, for the better above 0 (or above a half, for NAP).
 *
 * @throws RangeError when a phase is empty
 */
export function comparePhases(
  a: NamedPhase,
  b: NamedPhase,
  direction: Direction,
  least: LeastVariance,
): PhaseComparison {
  const before = a.points.map((point) => point.value);
  const after = b.points.map((point) => point.value);
  const nap = nonoverlapOfAllPairs(before, after, direction);
  const change = median(after.slice(0, POINTS_AT_THE_LINE)) - median(before.slice(-POINTS_AT_THE_LINE));
  const interval = napInterval(before, after, direction);
  const dual = dualCriterion(a.points, b.points, direction);
  const weighed = ({ points }: NamedPhase) => points.map((point) => ({ ...point, weight: point.weight || 1 }));
  const changes = changeAtLine(weighed(a), weighed(b), least);
  return {
    from: a.name,
    to: b.name,
    nap,
    napLow: interval.low,
    napHigh: interval.high,
    pnd: percentageOfNonoverlappingData(before, after, direction),
    tau: tau(before, after, direction),
    tauU: tauU(before, after, direction),
    immediate: direction === 'increase' ? change : 0 - change,
    baselineCorrectedTau: baselineCorrectedTau(a.points, b.points, direction).value,
    logResponseRatio: logResponseRatio(before, after),
    dualCriterion: dual && (({ pass, needed, published, beyond }) => ({ pass, needed, published, beyond }))(dual),
    ...changes,
    enough: enoughPoints(Math.min(before.length, after.length)),
  };
}

export interface PhaseAnalysis {
  phases: PhaseFigures[];
  /** Each phase against the one before it. */
  comparisons: PhaseComparison[];
}

/** Every phase with points, and each compared with the one with points before it. */
export function phaseAnalysis(
  phases: readonly NamedPhase[],
  direction: Direction,
  least: LeastVariance,
  isShare = false,
): PhaseAnalysis {
  const measured = phases.filter((phase) => phase.points.length > 0);
  return {
    phases: measured.flatMap((phase) => phaseFigures(phase, isShare) ?? []),
    comparisons: measured
      .slice(1)
      .map((phase, i): PhaseComparison => comparePhases(defined(measured[i]), phase, direction, least)),
  };
}
