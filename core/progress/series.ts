import { dayNumber, type IsoDate } from '../calendar/iso-date';
import { type SchoolCalendar, schoolDaysBetween } from '../calendar/school-days';
import { defined } from '../defined';
import type { ObservedSession } from '../entries/observation';
import type { GoalDefinition, Phase } from '../goals/goal';
import { comparableWith } from '../goals/same-meaning';
import { type MeasureData, type MeasureDefinition, measureOf } from '../measures/measure';

/** One point of a goal's series: a day, or a session where the goal says so. */
export interface SeriesPoint {
  on: IsoDate;
  day: number;
  value: number;
  /** What was counted or added up: successes, calls, seconds … */
  amount: number;
  /** What it is held against, and how much the point weighs: opportunities, minutes watched … */
  weight: number;
  /** Which of the goal's phases the point lies in; -1 before the first. */
  phase: number;
  isBaseline: boolean;
  /** It lies somewhere beyond the value: no response came within the limit. Never a success. */
  isBeyond: boolean;
  /** It was measured otherwise than the goal is now, so that the figures cannot be compared: shown, but not judged. */
  isFormer: boolean;
  /** Nothing was measured for long before this point: the line is broken here. */
  afterGap: boolean;
  /** The observations that it pools. */
  observations: string[];
  settings: string[];
  observers: string[];
}

/** School days without a point after which a line is broken, and after which there is no recent data. */
export const LONG_GAP_SCHOOL_DAYS = 10;

/** The index of the phase a date lies in; -1 before the first. */
export function phaseAt(phases: readonly Phase[], on: IsoDate): number {
  let index = -1;
  while (index + 1 < phases.length && defined(phases[index + 1]).startsOn <= on) index++;
  return index;
}

/** The label of a phase by its index, and what stands for the stretch before the first. */
export function phaseName(phases: readonly Phase[], index: number): string {
  return phases[index]?.label ?? 'Before';
}

const distinct = (values: readonly (string | null)[]) => [...new Set(values.filter((v) => v !== null))];

/** Whether values of two measures can stand on one axis. */
function isComparable(a: MeasureDefinition, b: MeasureDefinition): boolean {
  return a.kind === b.kind && !measureOf(a).accumulates && measureOf(a).axis.unit === measureOf(b).axis.unit;
}

/**
 * From observations to points, in order of date. The sessions of a day are pooled from their raw counts, unless each
 * session is its own point; a cumulative total's points hold all that came before. Sessions without a score make no point:
 * blank is not zero. A session that was measured otherwise is scored as it was measured; it makes a point only where that
 * can stand on the same axis.
 *
 * @param sessions  the goal's observations, in order of date and time
 */
export function seriesOf(
  goal: Pick<GoalDefinition, 'measure' | 'pointPer' | 'phases'>,
  sessions: readonly ObservedSession[],
  calendar: SchoolCalendar,
): SeriesPoint[] {
  const groups: ObservedSession[][] = [];
  for (const session of sessions) {
    if (session.outcome.data === null) continue;
    if (session.former && !isComparable(session.former, goal.measure)) continue;
    const last = groups.at(-1);
    const isSameDay = last?.[0]?.on === session.on && last[0].former === session.former;
    if (last && goal.pointPer === 'day' && isSameDay) last.push(session);
    else groups.push([session]);
  }
  const isCompared = comparableWith(goal.measure);
  const points: SeriesPoint[] = [];
  let soFar: MeasureData | null = null;
  for (const group of groups) {
    const { on, former } = defined(group[0]);
    const measure = measureOf(former ?? goal.measure);
    // A group has at least one session.
    const data = group.map((session) => session.outcome.data) as [MeasureData, ...MeasureData[]];
    if (measure.accumulates && soFar) data.unshift(soFar);
    const pooled = data.length === 1 ? data[0] : measure.pool(data);
    if (measure.accumulates) soFar = pooled;
    const score = measure.score(pooled);
    if (score.value === null) continue;
    const phase = phaseAt(goal.phases, on);
    const before = points.at(-1);
    points.push({
      on,
      day: dayNumber(on),
      value: score.value,
      amount: score.amount,
      weight: score.weight,
      phase,
      isBaseline: goal.phases[phase]?.isBaseline ?? false,
      isBeyond: score.isBeyond ?? false,
      isFormer: former !== undefined && !isCompared(former),
      afterGap: before !== undefined && isLongGap(before.on, on, calendar),
      observations: distinct(group.map((session) => session.id)),
      settings: distinct(group.map((session) => session.location)),
      observers: distinct(group.map((session) => session.observer)),
    });
  }
  return points;
}

/** Whether so many school days lie strictly between two points that the line is broken there. */
export function isLongGap(before: IsoDate, on: IsoDate, calendar: SchoolCalendar): boolean {
  // Two calendar weeks hold at most the ten school days; only beyond them is the calendar asked.
  if (dayNumber(on) - dayNumber(before) <= LONG_GAP_SCHOOL_DAYS) return false;
  return schoolDaysBetween(before, on, calendar) >= LONG_GAP_SCHOOL_DAYS;
}

export interface Gap {
  after: IsoDate;
  before: IsoDate;
  /** Strictly between the two points. */
  schoolDays: number;
  calendarDays: number;
}

/** The stretches without a point that break the line, in order of date. */
export function longGaps(points: readonly SeriesPoint[], calendar: SchoolCalendar): Gap[] {
  return points.flatMap((point, i) => {
    const last = points[i - 1];
    if (!last || !point.afterGap) return [];
    return {
      after: last.on,
      before: point.on,
      schoolDays: schoolDaysBetween(last.on, point.on, calendar),
      calendarDays: point.day - last.day - 1,
    };
  });
}

/** Consecutive points that may be joined: never across a phase line, a long gap or another way of measuring. */
export function joinedRuns(points: readonly SeriesPoint[]): SeriesPoint[][] {
  const runs: SeriesPoint[][] = [];
  for (const point of points) {
    const last = runs.at(-1);
    const before = last?.at(-1);
    const isLike = before?.phase === point.phase && before.isFormer === point.isFormer;
    if (last && !point.afterGap && isLike) last.push(point);
    else runs.push([point]);
  }
  return runs;
}
