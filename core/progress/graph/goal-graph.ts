import { addDays, dayNumber, type IsoDate, isoDate, longDate } from '../../calendar/iso-date';
import { directionOf, type GoalDefinition } from '../../goals/goal';
import { measureOf } from '../../measures/measure';
import { dualCriterion } from '../phases/change';
import { namedPhases } from '../phases/phases';
import type { Progress } from '../progress';
import { valueSaid } from '../sentences';
import { joinedRuns, type SeriesPoint } from '../series';
import type { DrawnTrend } from '../trend/drawn-trend';
import { axisOf } from './axis';
import { graphCaption } from './small-graph-shape';

/** What a point says of the entries behind it. */
export interface PointEntry {
  id: string;
  observer: string | null;
  location: string | null;
  note: string | null;
}

/** How a point is drawn otherwise than others. */
interface PointMarks {
  /** Hollow: it holds less than the criterion’s minimum. */
  isPartial?: boolean;
  /** An open arrow: it lies somewhere beyond the limit. */
  isBeyond?: boolean;
}

interface At {
  on: IsoDate;
  value: number;
}

/** What the large graph of a goal draws. */
export interface GoalGraph {
  /** Points in stretches that may be joined. */
  runs: (At & PointMarks & { said: string })[][];
  aimLine: [At, At] | null;
  /** The trend of the present phase. */
  trend: [At, At] | null;
  /** The stretch in which its line lies with 95% confidence. */
  trendBand?: { on: IsoDate; low: number; high: number }[];
  /** Two lines of the phase before, drawn on through the present one: what would be if nothing had changed. */
  dualCriterion?: [At, At][];
  phases: { on: IsoDate; label: string }[];
  /** The stretch of dates shown: some of the way ahead, not all of it, or what was measured would be crowded. */
  from: IsoDate;
  to: IsoDate;
  /** Null where there is none. */
  target: number | null;
  isUp: boolean;
  max: number;
  unit: string;
  caption: string;
}

/**
 * Lays out a goal's graph; each point carries its date, figure, observers, places and notes in words.
 *
 * @param until  the day that it ends with, for a report of a period; else some of the way ahead is shown
 */
export function goalGraph(
  goal: GoalDefinition,
  progress: Progress,
  entries: readonly PointEntry[],
  today: IsoDate,
  until?: IsoDate,
): GoalGraph {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const { aimLine, points, present, trend } = progress;
  const [first, last] = [present[0], present.at(-1)];
  const end = (point: SeriesPoint): At => ({ on: point.on, value: trend?.levelAt(point.day).level ?? 0 });
  const { max, unit } = axisOf(goal, progress);
  return {
    runs: joinedRuns(points).map((run) =>
      run.map((point) => ({
        ...{ on: point.on, value: point.value, said: pointSaid(goal, point, byId) },
        ...(isPartial(goal, point) ? { isPartial: true } : {}),
        ...(point.isBeyond ? { isBeyond: true } : {}),
      })),
    ),
    aimLine: aimLine && [aimLine.from, aimLine.to],
    trend: trend && first && last ? [end(first), end(last)] : null,
    ...(trend && first && last ? { trendBand: bandOf(trend, first.day, last.day) } : {}),
    ...dualLines(goal, progress),
    phases: goal.phases.map((phase) => ({ on: phase.startsOn, label: phase.label })),
    ...stretchShown(goal, points, today, until),
    target: goal.target,
    isUp: goal.criterion.comparison === 'atLeast',
    max,
    unit,
    caption: graphCaption(goal, progress),
  };
}

/** Whether a point holds less than the criterion’s minimum: kept and weighed by what it has, but neither for nor against the criterion. */
const isPartial = ({ criterion }: GoalDefinition, { weight }: SeriesPoint) => weight < criterion.minimumOpportunities;

/** The lines of the phase before the last, drawn on through the last one, where both hold five points or more. */
function dualLines(goal: GoalDefinition, { points }: Progress): Pick<GoalGraph, 'dualCriterion'> {
  const [before, after] = namedPhases(goal, points)
    .map((phase) => phase.points)
    .filter((some) => some.length > 0)
    .slice(-2);
  const dual = before && after && dualCriterion(before, after, directionOf(goal.criterion));
  const [first, last] = [after?.[0], after?.at(-1)];
  if (!dual || !first || !last) return {};
  const line = (at: (day: number) => number): [At, At] => [
    { on: isoDate(first.day), value: at(first.day) },
    { on: isoDate(last.day), value: at(last.day) },
  ];
  return { dualCriterion: [line(() => dual.meanLine), line(dual.lineAt)] };
}

const BAND_STEPS = 12;

/** The edges of the trend’s band at evenly spread days. */
function bandOf(trend: DrawnTrend, from: number, to: number) {
  const days = Array.from({ length: BAND_STEPS + 1 }, (_, i) => Math.round(from + ((to - from) * i) / BAND_STEPS));
  return [...new Set(days)].map((day) => {
    const { low, high } = trend.levelAt(day);
    return { on: isoDate(day), low, high };
  });
}

function stretchShown(goal: GoalDefinition, points: readonly SeriesPoint[], today: IsoDate, until?: IsoDate) {
  const firstDay = points[0]?.on;
  const from = firstDay && firstDay < goal.startsOn ? firstDay : goal.startsOn;
  if (until !== undefined) return { from, to: until > from ? until : addDays(from, 1) };
  const passed = Math.max(14, dayNumber(today) - dayNumber(from));
  const ahead = addDays(from, Math.round(passed * 1.3));
  return { from, to: ahead < goal.targetOn || goal.targetOn < today ? ahead : goal.targetOn };
}

function pointSaid(goal: GoalDefinition, point: SeriesPoint, byId: ReadonlyMap<string, PointEntry>): string {
  const entries = point.observations.flatMap((id) => byId.get(id) ?? []);
  const distinct = (values: (string | null)[]) => [...new Set(values.filter(Boolean))].join(', ');
  const measure = measureOf(goal.measure);
  const parts = [
    `${longDate(point.on)}: ${measure.basis(point)}, ${valueSaid(goal, point.value)}${isPartial(goal, point) ? ' (partial: under the minimum)' : ''}`,
    distinct(entries.map((entry) => entry.observer)),
    distinct(entries.map((entry) => entry.location)),
    ...new Set(entries.map((entry) => entry.note)),
  ];
  return parts.filter(Boolean).join(' · ');
}
