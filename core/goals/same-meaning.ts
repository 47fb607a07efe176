import { type MeasureDefinition, measureOf } from '../measures/measure';

/**
 * Whether data taken under one definition mean the same under another. Other names, other planned numbers and another way
 * of saying the same raw data (an hour for a minute) change nothing; other levels, items, steps, criteria, another method
 * or another kind do, and begin a new version of the goal.
 */
export function meansTheSame(a: MeasureDefinition, b: MeasureDefinition): boolean {
  return a.kind === b.kind && JSON.stringify(measureOf(a).meaning()) === JSON.stringify(measureOf(b).meaning());
}

/** Whether the figures of two versions of a goal can be compared, though it was measured anew: another list of items, all else as it was. */
export function canBeCompared(a: MeasureDefinition, b: MeasureDefinition): boolean {
  return (
    a === b || (a.kind === b.kind && JSON.stringify(measureOf(a).scale()) === JSON.stringify(measureOf(b).scale()))
  );
}

/** The same for many that were made under few definitions: each definition is looked at once. */
export function comparableWith(measure: MeasureDefinition): (other: MeasureDefinition) => boolean {
  const known = new Map<MeasureDefinition, boolean>();
  return (other) => {
    const found = known.get(other) ?? canBeCompared(other, measure);
    known.set(other, found);
    return found;
  };
}
