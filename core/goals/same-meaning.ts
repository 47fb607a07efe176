import type { MeasureDefinition } from '../measures/measure';

const keysOf = (list: readonly { key: string }[]) => list.map(({ key }) => key);

/** What the data of a measure mean: without the names of things, and without what only helps to collect them. */
function meaningOf(measure: MeasureDefinition): unknown[] {
  switch (measure.kind) {
    case 'trials':
      return [keysOf(measure.levels), measure.mostSupport, measure.refusalIsOpportunity];
    case 'items':
      return [keysOf(measure.items), keysOf(measure.levels), measure.mostSupport];
    case 'steps':
      return [keysOf(measure.steps), keysOf(measure.levels), measure.mostSupport];
    case 'intervals':
      return [measure.method, measure.seconds];
    case 'rubric':
      return [measure.criteria.map(({ key, levels }) => [key, levels.map(({ points }) => points)]), measure.of];
    case 'runningTotal':
      return [measure.unit.one];
    case 'count':
    case 'duration':
    case 'latency':
    case 'readingAloud':
      return [];
  }
}

/**
 * Whether data taken under one definition mean the same under another. Other names, other planned numbers and another way
 * of saying the same raw data (an hour for a minute) change nothing; other levels, items, steps, criteria, another method
 * or another kind do, and begin a new version of the goal.
 */
export function meansTheSame(a: MeasureDefinition, b: MeasureDefinition): boolean {
  return a.kind === b.kind && JSON.stringify(meaningOf(a)) === JSON.stringify(meaningOf(b));
}
