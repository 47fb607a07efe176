import { dayNumber, type IsoDate, shortDate } from '../../calendar/iso-date';
import type { GoalDefinition } from '../../goals/goal';
import { counted } from '../../words/counting';
import { aimLineAt } from '../aim-line';
import type { Progress } from '../progress';
import { nowText, valueSaid } from '../sentences';
import { joinedRuns, type SeriesPoint } from '../series';
import { axisOf } from './axis';

export const GRAPH = { width: 236, height: 66, inset: 4 };

/** A goal's small graph as the few path texts that draw it, made on the server. */
export interface SmallGraphShape {
  line: string;
  dots: string;
  aimLine: string;
  /** Where phases change. */
  phaseLines: number[];
  /** The target zone, from the top down or from the bottom up. */
  band: { y: number; height: number; edge: number };
  caption: string;
}

const round = (n: number) => Math.round(n * 10) / 10;

/** Lays a goal's points, aim line, phases and target out on the small graph. */
export function smallGraphShape(goal: GoalDefinition, progress: Progress, today: IsoDate): SmallGraphShape {
  const { width, height, inset } = GRAPH;
  const { max } = axisOf(goal, progress);
  const first = Math.min(dayNumber(goal.startsOn), progress.points[0]?.day ?? Number.POSITIVE_INFINITY);
  // Up to now, with a little of the way ahead, so that aim line and points can be told apart early in a year.
  const last = Math.max(dayNumber(today) + 7, first + 28);
  const x = (day: number) => round(inset + ((width - 2 * inset) * (day - first)) / (last - first));
  const y = (value: number) => round(inset + (height - 2 * inset) * (1 - value / max));
  const runs = joinedRuns(progress.points);
  const at = (point: SeriesPoint) => `${x(point.day)} ${y(point.value)}`;
  const { aimLine } = progress;
  const edge = y(goal.target);
  const isUp = goal.criterion.comparison === 'atLeast';
  return {
    line: runs.map((run) => `M${run.map(at).join('L')}`).join(''),
    dots: progress.points.map((point) => `M${at(point)}h0`).join(''),
    aimLine: aimLine ? aimLinePath(aimLine, last, x, y) : '',
    phaseLines: goal.phases.slice(1).map((phase) => x(dayNumber(phase.startsOn))),
    band: isUp ? { y: 0, height: edge, edge } : { y: edge, height: height - edge, edge },
    caption: graphCaption(goal, progress),
  };
}

function aimLinePath(
  aimLine: NonNullable<Progress['aimLine']>,
  last: number,
  x: (day: number) => number,
  y: (value: number) => number,
): string {
  const from = dayNumber(aimLine.from.on);
  const to = Math.min(last, dayNumber(aimLine.to.on));
  return `M${x(from)} ${y(aimLine.from.value)}L${x(to)} ${y(aimLineAt(aimLine, to))}`;
}

/** What a goal's graph shows, in a sentence. */
export function graphCaption(goal: GoalDefinition, progress: Progress): string {
  const { points } = progress;
  const now = nowText(goal, progress);
  const first = points[0];
  const last = points.at(-1);
  if (!first || !last) return 'No scores yet.';
  const said = (value: number) => valueSaid(goal, value);
  if (points.length === 1)
    return `1 score, ${shortDate(first.on)}: ${said(first.value)}. Target: ${said(goal.target)}.`;
  return `${counted(points.length, 'score', 'scores')} from ${shortDate(first.on)} to ${shortDate(last.on)}; ${now === null ? '' : `now ${now}, `}target ${said(goal.target)}.`;
}
