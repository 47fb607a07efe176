import { addDays, dayNumber, type IsoDate, isoDate, longDate } from '../../calendar/iso-date';
import type { GoalDefinition } from '../../goals/goal';
import { measureOf } from '../../measures/measure';
import type { Progress } from '../progress';
import { joinedRuns, type SeriesPoint } from '../series';
import type { TrendLine } from '../trend/trend-line';
import { axisOf } from './axis';
import { graphCaption } from './small-graph-shape';

/** What a point says of the entries behind it. */
interface PointEntry {
  id: string;
  observer: string | null;
  location: string | null;
  note: string | null;
}

interface At {
  on: IsoDate;
  value: number;
}

/** What the large graph of a goal draws. */
export interface GoalGraph {
  /** Points in stretches that may be joined. */
  runs: (At & { said: string })[][];
  course: [At, At] | null;
  trend: [At, At] | null;
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

/** Lays out a goal's graph; each point carries its date, figure, observers, places and notes in words. */
export function goalGraph(
  goal: GoalDefinition,
  progress: Progress,
  trend: TrendLine | null,
  entries: readonly PointEntry[],
  today: IsoDate,
): GoalGraph {
  const byId = new Map(entries.map((entry) => [entry.id, entry]));
  const { course, points, sinceCourse } = progress;
  const [first, last] = [sinceCourse[0], sinceCourse.at(-1)];
  const end = (point: SeriesPoint): At => ({ on: isoDate(point.day), value: trend?.at(point.day) ?? 0 });
  const { max, unit } = axisOf(goal, progress);
  return {
    runs: joinedRuns(points).map((run) =>
      run.map((point) => ({ on: point.on, value: point.value, said: pointSaid(goal, point, byId) })),
    ),
    course: course && [course.from, course.to],
    trend: trend && first && last ? [end(first), end(last)] : null,
    phases: goal.phases.map((phase) => ({ on: phase.startsOn, label: phase.label })),
    ...stretchShown(goal, points, today),
    target: goal.target,
    isUp: goal.criterion.comparison === 'atLeast',
    max,
    unit,
    caption: graphCaption(goal, progress),
  };
}

function stretchShown(goal: GoalDefinition, points: readonly SeriesPoint[], today: IsoDate) {
  const firstDay = points[0]?.on;
  const from = firstDay && firstDay < goal.startsOn ? firstDay : goal.startsOn;
  const passed = Math.max(14, dayNumber(today) - dayNumber(from));
  const ahead = addDays(from, Math.round(passed * 1.3));
  return { from, to: ahead < goal.targetOn || goal.targetOn < today ? ahead : goal.targetOn };
}

function pointSaid(goal: GoalDefinition, point: SeriesPoint, byId: ReadonlyMap<string, PointEntry>): string {
  const entries = point.observations.flatMap((id) => byId.get(id) ?? []);
  const distinct = (values: (string | null)[]) => [...new Set(values.filter(Boolean))].join(', ');
  const measure = measureOf(goal.measure);
  const parts = [
    `${longDate(point.on)}: ${measure.basis(point)}, ${measure.said(point.value)}`,
    distinct(entries.map((entry) => entry.observer)),
    distinct(entries.map((entry) => entry.location)),
    ...new Set(entries.map((entry) => entry.note)),
  ];
  return parts.filter(Boolean).join(' · ');
}
