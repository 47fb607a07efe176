import type { CountData } from '~/core/measures/count';
import type { DurationData } from '~/core/measures/duration';
import type { IntervalsData } from '~/core/measures/intervals';
import type { MeasureData, MeasureDefinition } from '~/core/measures/measure';
import type { ReadingAloudData } from '~/core/measures/reading-aloud';
import { type Clock, isRunning, secondsOn } from './clock';

const tenths = (value: number) => Math.round(value * 10) / 10;

/**
 * What would be recorded if the session ended now: a running clock is read, what it times is written in.
 *
 * @returns null where nothing is marked
 */
export function finished(
  measure: MeasureDefinition,
  { data, clock }: { data: MeasureData | null; clock: Clock },
  now: number,
): MeasureData | null {
  const seconds = secondsOn(clock, now);
  if (measure.kind === 'duration' && isRunning(clock) && seconds > 0) {
    const { episodes, sessionSeconds } = (data ?? { episodes: [], sessionSeconds: null }) as DurationData;
    return { episodes: [...episodes, tenths(seconds)], sessionSeconds };
  }
  if (data === null) return null;
  if (measure.kind === 'count' && isRunning(clock)) {
    return { ...(data as CountData), minutes: Math.max(0.1, tenths(seconds / 60)) };
  }
  if (measure.kind === 'readingAloud' && isRunning(clock)) {
    return { ...(data as ReadingAloudData), seconds: Math.max(1, Math.round(seconds)) };
  }
  if (measure.kind === 'intervals' && isRunning(clock)) {
    return { intervals: withMissed(data as IntervalsData, endedIntervals(measure, seconds)) };
  }
  return data;
}

/** How many intervals have ended after so many seconds; no more than were planned. */
export function endedIntervals(
  { seconds: length, planned }: { seconds: number; planned: number | null },
  seconds: number,
): number {
  return Math.min(planned ?? Number.POSITIVE_INFINITY, Math.floor(seconds / length + 1e-9));
}

/** The intervals up to the last that ended; those nobody answered are missed, which is not a no. */
export function withMissed({ intervals }: IntervalsData, ended: number): (boolean | null)[] {
  return Array.from({ length: Math.max(intervals.length, ended) }, (_, i) => intervals[i] ?? null);
}
