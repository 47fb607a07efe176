import { z } from 'zod';
import type { Score } from './score';
import { scoreTrials, type TrialsData, trialsData, trialsDefinition, trialsSentence } from './trials';

/** How a goal is measured. One member for each kind; a new kind is one file here and one strip in `web/observe/`. */
export const measureDefinition = z.discriminatedUnion('kind', [trialsDefinition]);
export type MeasureDefinition = z.infer<typeof measureDefinition>;

/** What one session of a goal holds, in the shape of its measure. */
export type MeasureData = TrialsData;

interface Measure {
  data: (definition: MeasureDefinition) => z.ZodType<MeasureData>;
  /** One session's score, or the pooled score of all sessions of a day. */
  score: (definition: MeasureDefinition, ...sessions: readonly MeasureData[]) => Score;
  sentence: (definition: MeasureDefinition, data: MeasureData) => string;
  /** The largest value the axis must hold, and the unit its figures carry. */
  axis: { max: number; unit: string };
}

const measures: Record<MeasureDefinition['kind'], Measure> = {
  trials: { data: trialsData, score: scoreTrials, sentence: trialsSentence, axis: { max: 100, unit: '%' } },
};

/** The functions of a goal's measure. */
export function measureOf(definition: MeasureDefinition): Measure {
  return measures[definition.kind];
}
