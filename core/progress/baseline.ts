import type { IsoDate } from '../calendar/iso-date';
import { defined } from '../defined';
import type { GoalDefinition } from '../goals/goal';
import { median } from '../statistics/median';
import type { SeriesPoint } from './series';

export interface Baseline {
  value: number;
  on: IsoDate;
  /** Stated in the plan, the median of the baseline phase, or nothing at the start of a cumulative total. */
  from: 'plan' | 'phase' | 'start';
}

/** Fewer points than this in the baseline phase make no baseline. */
export const LEAST_POINTS_FOR_BASELINE = 3;

/**
 * Where the student began: as the plan states it, else the median of the first baseline phase, dated on its last point. Where a
 * support was withdrawn later, that stretch stays a baseline of its own. A cumulative total begins at nothing.
 *
 * @returns null when neither is there
 * @see common practice in data-based program modification (Deno & Mirkin 1977): the median of three or more
 */
export function baselineOf(
  goal: Pick<GoalDefinition, 'baseline'> & { accumulates?: boolean; startsOn?: IsoDate },
  points: readonly SeriesPoint[],
): Baseline | null {
  if (goal.baseline) return { ...goal.baseline, from: 'plan' };
  if (goal.accumulates && goal.startsOn) return { value: 0, on: goal.startsOn, from: 'start' };
  const first = points.find((point) => point.isBaseline)?.phase;
  const before = points.filter((point) => point.isBaseline && point.phase === first);
  if (before.length < LEAST_POINTS_FOR_BASELINE) return null;
  return {
    value: median(before.map((point) => point.value)),
    on: defined(before.at(-1)).on,
    from: 'phase',
  };
}

/**
 * Where the student is now: the median of the last three points, or of as many as there are. Of a cumulative total it is the
 * last point, which holds all of them.
 *
 * @returns null when there is no point
 * @example nowOf([{ value: 10 }, { value: 40 }, { value: 80 }, { value: 60 }]) // 60
 */
export function nowOf(points: readonly { value: number }[], { accumulates = false } = {}): number | null {
  const last = points.slice(accumulates ? -1 : -3);
  return last.length === 0 ? null : median(last.map((point) => point.value));
}

/**
 * How much of the way from baseline to target has been made: (now − baseline) / (target − baseline).
 * Signed, and right for goals that go down; above 1 when beyond the target.
 *
 * @returns null when target equals baseline
 * @example progressToTarget(8, 5, 2) // 0.5: from 8 down towards 2, now 5
 */
export function progressToTarget(baseline: number, now: number, target: number): number | null {
  return target === baseline ? null : (now - baseline) / (target - baseline);
}

/**
 * What a goal without a baseline could take for one: the median of its first three scores, dated on the third (common practice).
 *
 * @param points  in order of date
 * @returns null with fewer
 */
export function offeredBaseline(points: readonly SeriesPoint[]): { value: number; on: IsoDate } | null {
  const first = points.filter(({ isFormer }) => !isFormer).slice(0, LEAST_POINTS_FOR_BASELINE);
  if (first.length < LEAST_POINTS_FOR_BASELINE) return null;
  return { value: median(first.map(({ value }) => value)), on: defined(first.at(-1)).on };
}
