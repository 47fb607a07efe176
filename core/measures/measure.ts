import { z } from 'zod';
import { refusal } from '../words/refusal';
import { type CountData, count, countDefinition } from './count';
import { type DurationData, duration, durationDefinition } from './duration';
import { type IntervalsData, intervals, intervalsDefinition } from './intervals';
import { type ItemsData, items, itemsDefinition } from './items';
import { type LatencyData, latency, latencyDefinition } from './latency';
import type { MeasureKind } from './measure-kind';
import { type ReadingAloudData, readingAloud, readingAloudDefinition } from './reading-aloud';
import { type RubricData, rubric, rubricDefinition } from './rubric';
import { type RunningTotalData, runningTotal, runningTotalDefinition } from './running-total';
import { type StepsData, steps, stepsDefinition } from './steps';
import { type TrialsData, trials, trialsDefinition } from './trials';

/** How a goal is measured. One member for each kind; a new kind is one file here and one strip in `web/measures/`. */
export const measureDefinition = z.discriminatedUnion('kind', [
  trialsDefinition,
  itemsDefinition,
  countDefinition,
  durationDefinition,
  latencyDefinition,
  intervalsDefinition,
  rubricDefinition,
  runningTotalDefinition,
  stepsDefinition,
  readingAloudDefinition,
]);
export type MeasureDefinition = z.infer<typeof measureDefinition>;

interface DataOf {
  trials: TrialsData;
  items: ItemsData;
  count: CountData;
  duration: DurationData;
  latency: LatencyData;
  intervals: IntervalsData;
  rubric: RubricData;
  runningTotal: RunningTotalData;
  steps: StepsData;
  readingAloud: ReadingAloudData;
}

/** What one session of a goal holds, in the shape of its measure. */
export type MeasureData = DataOf[keyof DataOf];

const kinds: { [K in keyof DataOf]: MeasureKind<Extract<MeasureDefinition, { kind: K }>, DataOf[K]> } = {
  trials,
  items,
  count,
  duration,
  latency,
  intervals,
  rubric,
  runningTotal,
  steps,
  readingAloud,
};

/** The functions of a goal's measure; they are handed its definition and data that its schema has let through. */
export function measureOf({ kind }: MeasureDefinition): MeasureKind<MeasureDefinition, MeasureData> {
  return kinds[kind] as unknown as MeasureKind<MeasureDefinition, MeasureData>;
}

/**
 * Data as it arrives, held against a goal's measure.
 *
 * @returns the data, or the first message a teacher should read
 */
export function readData(
  definition: MeasureDefinition,
  raw: unknown,
): { ok: true; data: MeasureData } | { ok: false; message: string } {
  const parsed = measureOf(definition).data(definition).safeParse(raw, { error: refusal });
  if (parsed.success) return { ok: true, data: parsed.data };
  return { ok: false, message: (parsed.error.issues[0] as z.core.$ZodIssue).message };
}
