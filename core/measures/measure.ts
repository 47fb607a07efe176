import { z } from 'zod';
import { defined } from '../defined';
import { refusal } from '../words/refusal';
import {
  type CumulativeTotalData,
  cumulativeTotal,
  cumulativeTotalDefinition,
} from './cumulative-total/cumulative-total';
import { type DurationData, duration, durationDefinition } from './duration/duration';
import { type FrequencyData, frequency, frequencyDefinition } from './frequency/frequency';
import {
  type IntervalRecordingData,
  intervalRecording,
  intervalRecordingDefinition,
} from './interval-recording/interval-recording';
import { type ItemCheckData, itemCheck, itemCheckDefinition } from './item-check/item-check';
import { type LatencyData, latency, latencyDefinition } from './latency/latency';
import type { MeasureKind } from './measure-kind';
import { type Measure, MeasureOfGoal } from './measure-of-goal';
import { type MeasurementData, measurement, measurementDefinition } from './measurement/measurement';
import { type OralReadingData, oralReading, oralReadingDefinition } from './oral-reading/oral-reading';
import { type RubricData, rubric, rubricDefinition } from './rubric/rubric';
import { type TaskAnalysisData, taskAnalysis, taskAnalysisDefinition } from './task-analysis/task-analysis';
import { type TrialsData, trials, trialsDefinition } from './trials/trials';

/**
 * The registry of the kinds of measure. A new kind is a folder here, one in `web/measures/`, and a line in each of the lists of this
 * file and in the two of `web/measures/`.
 */
export const measureDefinition = z.discriminatedUnion('kind', [
  trialsDefinition,
  itemCheckDefinition,
  frequencyDefinition,
  durationDefinition,
  latencyDefinition,
  intervalRecordingDefinition,
  rubricDefinition,
  cumulativeTotalDefinition,
  taskAnalysisDefinition,
  oralReadingDefinition,
  measurementDefinition,
]);
/** How a goal is measured. */
export type MeasureDefinition = z.infer<typeof measureDefinition>;
export type Kind = MeasureDefinition['kind'];
export type DefinitionOf<K extends Kind> = Extract<MeasureDefinition, { kind: K }>;

export interface DataOf {
  trials: TrialsData;
  itemCheck: ItemCheckData;
  frequency: FrequencyData;
  duration: DurationData;
  latency: LatencyData;
  intervalRecording: IntervalRecordingData;
  rubric: RubricData;
  cumulativeTotal: CumulativeTotalData;
  taskAnalysis: TaskAnalysisData;
  oralReading: OralReadingData;
  measurement: MeasurementData;
}

/** What one session of a goal holds, in the shape of its measure. */
export type MeasureData = DataOf[Kind];

/** Data of any kind of measure, as a device keeps it: told from everything else, not yet held against a goal. */
export const measureData = z.custom<MeasureData>(
  (value) => typeof value === 'object' && value !== null && Object.values(kinds).some(({ holds }) => holds(value)),
);

/** In the order in which a teacher is asked what to know. */
export const kinds: { [K in Kind]: MeasureKind<DefinitionOf<K>, DataOf[K]> } = {
  trials,
  itemCheck,
  frequency,
  duration,
  latency,
  intervalRecording,
  rubric,
  cumulativeTotal,
  taskAnalysis,
  oralReading,
  measurement,
};

/** The definition that a new goal of a kind begins with. */
export const beginningOf = <K extends Kind>(kind: K): DefinitionOf<K> => kinds[kind].beginning;

/** All kinds, in that order. */
export const measureKinds = measureDefinition.options.map(({ shape }) => shape.kind.value);

/** The functions of a goal's measure. They take data that its schema has let through, and refuse that of another kind. */
export function measureOf(definition: MeasureDefinition): Measure {
  switch (definition.kind) {
    case 'trials':
      return new MeasureOfGoal(trials, definition);
    case 'itemCheck':
      return new MeasureOfGoal(itemCheck, definition);
    case 'frequency':
      return new MeasureOfGoal(frequency, definition);
    case 'duration':
      return new MeasureOfGoal(duration, definition);
    case 'latency':
      return new MeasureOfGoal(latency, definition);
    case 'intervalRecording':
      return new MeasureOfGoal(intervalRecording, definition);
    case 'rubric':
      return new MeasureOfGoal(rubric, definition);
    case 'cumulativeTotal':
      return new MeasureOfGoal(cumulativeTotal, definition);
    case 'taskAnalysis':
      return new MeasureOfGoal(taskAnalysis, definition);
    case 'oralReading':
      return new MeasureOfGoal(oralReading, definition);
    case 'measurement':
      return new MeasureOfGoal(measurement, definition);
  }
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
  const parsed = measureOf(definition).data.safeParse(raw, { error: refusal });
  if (parsed.success) return { ok: true, data: parsed.data };
  return { ok: false, message: defined(parsed.error.issues[0]).message };
}
