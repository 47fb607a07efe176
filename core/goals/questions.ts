import { type MeasureDefinition, measureDefinition } from '../measures/measure';

/** What one wants to know of a goal: the measure is chosen by it. */
export const questions: Record<MeasureDefinition['kind'], { question: string; example: string }> = {
  trials: { question: 'How many chances go right', example: '5 of 6 edges, alone or with a gesture' },
  items: { question: 'Which ones go right', example: 'six words: flour and bowl, not yet oven' },
  count: { question: 'How often', example: '7 calls in half an hour' },
  duration: { question: 'How long', example: 'two pauses, 6 minutes altogether' },
  latency: { question: 'How soon', example: '12 seconds from the bell to the first step' },
  intervals: { question: 'How much of the time', example: 'at work in 14 of 20 intervals' },
  rubric: { question: 'How well', example: '3 of 4 points: “measures twice before cutting”' },
  runningTotal: { question: 'How much altogether', example: '18 of 40 hours in the garden' },
  steps: { question: 'Which steps', example: 'steps 1 to 4 of washing up alone' },
  readingAloud: { question: 'Reading aloud', example: '54 words correct per minute' },
};

export const measureKinds = Object.keys(questions) as MeasureDefinition['kind'][];

/** The support levels that a new goal begins with, from none to most; common practice, to be changed. */
export const usualLevels = [
  { key: 'independent', label: 'Independent', words: 'alone' },
  { key: 'gesture', label: 'Gesture', words: 'a gesture' },
  { key: 'spoken', label: 'Spoken', words: 'a spoken prompt' },
  { key: 'hands', label: 'Hands on', words: 'hand-over-hand help' },
];

const support = { levels: usualLevels, mostSupport: 'independent' };

/** What a new goal of a kind begins with. */
const beginnings: Record<MeasureDefinition['kind'], object> = {
  trials: { ...support, planned: 10 },
  items: { items: [{ key: 'item1', label: 'First word' }], item: { one: 'word', many: 'words' } },
  count: { per: 'hour' },
  duration: { of: 'total' },
  latency: {},
  intervals: { method: 'momentary', seconds: 60, planned: 20 },
  rubric: {
    criteria: [
      {
        key: 'criterion1',
        label: 'The work',
        levels: [
          { points: 1, words: 'Begun' },
          { points: 2, words: 'With help' },
          { points: 3, words: 'Nearly alone' },
          { points: 4, words: 'Alone and with care' },
        ],
      },
    ],
  },
  runningTotal: { unit: { one: 'hour', many: 'hours' }, total: 40 },
  steps: { ...support, steps: [{ key: 'step1', label: 'First step' }] },
  readingAloud: { seconds: 60 },
};

/** The definition that a new goal of a kind begins with. */
export function beginningOf(kind: MeasureDefinition['kind']): MeasureDefinition {
  return measureDefinition.parse({ kind, ...beginnings[kind] });
}
