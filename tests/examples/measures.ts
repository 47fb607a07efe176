// One goal of each kind of measure, and how its tests ask them.
import { cumulativeTotalDefinition } from '~/core/measures/cumulative-total/cumulative-total';
import { durationDefinition } from '~/core/measures/duration/duration';
import { frequencyDefinition } from '~/core/measures/frequency/frequency';
import { intervalRecordingDefinition } from '~/core/measures/interval-recording/interval-recording';
import { itemCheckDefinition } from '~/core/measures/item-check/item-check';
import { latencyDefinition } from '~/core/measures/latency/latency';
import {
  type MeasureData,
  type MeasureDefinition,
  measureDefinition,
  measureOf,
  readData,
} from '~/core/measures/measure';
import { rubricDefinition } from '~/core/measures/rubric/rubric';
import { taskAnalysisDefinition } from '~/core/measures/task-analysis/task-analysis';

export const levels = [
  { key: 'independent', label: 'Independent', words: 'alone' },
  { key: 'gesture', label: 'Gesture', words: 'a gesture' },
];
export const named = (...labels: string[]) =>
  labels.map((label) => ({ key: label.toLowerCase().replace(/\W/g, ''), label }));

export const items = itemCheckDefinition.parse({
  kind: 'itemCheck',
  items: named('rain', 'their', 'said', 'soil'),
  item: { one: 'word', many: 'words' },
});
export const calls = frequencyDefinition.parse({
  kind: 'frequency',
  per: 'hour',
  counted: { one: 'call', many: 'calls' },
});
export const duration = durationDefinition.parse({ kind: 'duration', of: 'total' });
export const latency = latencyDefinition.parse({ kind: 'latency' });
export const intervals = intervalRecordingDefinition.parse({
  kind: 'intervalRecording',
  method: 'partial',
  seconds: 10,
  planned: 30,
});
export const rubric = rubricDefinition.parse({
  kind: 'rubric',
  criteria: named('Ideas', 'Order').map((one) => ({
    ...one,
    levels: [1, 2, 3, 4].map((points) => ({ points, words: `${one.label} at ${points}` })),
  })),
});
export const hours = cumulativeTotalDefinition.parse({
  kind: 'cumulativeTotal',
  unit: { one: 'hour', many: 'hours' },
  total: 40,
  categories: named('garden', 'kitchen'),
});
export const steps = taskAnalysisDefinition.parse({
  kind: 'taskAnalysis',
  steps: named('water on', 'soap', 'rub', 'rinse'),
  levels,
  mostSupport: 'independent',
  chaining: 'forward',
});
export const reading = measureDefinition.parse({ kind: 'oralReading' });

export const score = (definition: MeasureDefinition, data: MeasureData) => measureOf(definition).score(data);
export const pooled = (definition: MeasureDefinition, ...data: [MeasureData, ...MeasureData[]]) =>
  score(definition, measureOf(definition).pool(data));
export const sentence = (definition: MeasureDefinition, data: MeasureData) => measureOf(definition).sentence(data);
export const message = (definition: MeasureDefinition, data: unknown) => {
  const read = readData(definition, data);
  return read.ok ? undefined : read.message;
};
export const asCount = (definition: MeasureDefinition, value: number, comparison: 'atLeast' | 'atMost' = 'atLeast') =>
  measureOf(definition).asCount(value, comparison);
export const words = (...outcomes: [string, string][]) => ({
  items: outcomes.map(([item, outcome]) => ({ item, outcome })),
});
