import { type MeasureData, type MeasureDefinition, measureOf } from '~/core/measures/measure';
import type { MeasureKind } from '~/core/measures/measure-kind';
import { type Clock, isRunning, secondsOn } from './clock';

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
  return isRunning(clock) ? measureOf(measure).withClock(data, secondsOn(clock, now)) : data;
}

/** The same within the data sheet of a kind that is timed. */
export function finishedOf<D, T extends object>(
  { withClock }: MeasureKind<D, T>,
  { definition, data, clock }: { definition: D; data: T | null; clock: Clock },
  now: number,
): T | null {
  return isRunning(clock) && withClock ? withClock(definition, data, secondsOn(clock, now)) : data;
}
