import { dateSeenFrom, type IsoDate } from '../../calendar/iso-date';
import type { GoalDefinition } from '../../goals/goal';
import { comparableWith } from '../../goals/same-meaning';
import type { Progress } from '../progress';
import type { SeriesPoint } from '../series';
import { type GoalGraph, goalGraph, type PointEntry } from './goal-graph';

/** A goal of a plan before, that a goal continues. */
export interface EarlierGoal {
  goal: Pick<GoalDefinition, 'measure' | 'startsOn'>;
  points: readonly SeriesPoint[];
}

/** Points of other plans are joined among themselves only: no phase of the goal has such a number. */
const OTHER_PLANS = -1000;

/**
 * A goal's graph through its years: the points of the goals that it continues before its own, as far as they can be compared, with a line
 * where each plan began. What is judged, and the aim line, are of the present plan alone.
 *
 * @param earlier  the oldest first
 * @returns the graph, and how many of the earlier goals were measured otherwise and are not in it
 */
export function graphThroughYears(
  goal: GoalDefinition,
  progress: Progress,
  earlier: readonly EarlierGoal[],
  { entries, today }: { entries: readonly PointEntry[]; today: IsoDate },
): { graph: GoalGraph; leftOut: number } {
  const isCompared = comparableWith(goal.measure);
  const alike = earlier.filter((one) => isCompared(one.goal.measure));
  const before = alike.flatMap(({ points }, at) => points.map((point) => ({ ...point, phase: OTHER_PLANS - at })));
  const graph = goalGraph(goal, { ...progress, points: [...before, ...progress.points] }, entries, today);
  const line = (on: IsoDate) => ({ on, label: `Plan from ${dateSeenFrom(on, today)}` });
  const plans = alike.length === 0 ? [] : [...alike.map((one) => line(one.goal.startsOn)), line(goal.startsOn)];
  return { graph: { ...graph, phases: [...plans, ...graph.phases] }, leftOut: earlier.length - alike.length };
}
