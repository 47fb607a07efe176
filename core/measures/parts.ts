import type { MeasureData, MeasureDefinition } from './measure';

/** The items or steps of a measure that has some. */
export const partsIn = (definition: MeasureDefinition): readonly { key: string; label: string }[] =>
  definition.kind === 'itemCheck' ? definition.items : definition.kind === 'taskAnalysis' ? definition.steps : [];

/** Each opportunity with what it was of, where a measure has items or steps, and what it came to. */
export function outcomesIn(data: MeasureData): { part: string | null; outcome: string }[] {
  if ('trials' in data) return data.trials.map((outcome) => ({ part: null, outcome }));
  if ('counts' in data) {
    return Object.entries(data.counts).flatMap(([outcome, n]) => (n > 0 ? [{ part: null, outcome }] : []));
  }
  if ('items' in data) return data.items.map(({ item, outcome }) => ({ part: item, outcome }));
  if ('steps' in data) return data.steps.map(({ step, outcome }) => ({ part: step, outcome }));
  return [];
}
