import type { Incident } from '../entries/incidents/incident';

export interface FunctionWeight {
  name: string;
  /** Notes that name it. */
  n: number;
  /** The same, where a note with several counts as one shared among them. */
  weight: number;
  /** Of all notes that name any. */
  share: number;
}

/**
 * The observers' hypotheses of what a behavior gets the student, counted; a note that names several is shared equally among
 * them, so that the weights add up to the notes. It is what observers thought, never a finding.
 *
 * @returns the heaviest first; none when no note names any
 */
export function functionWeights(notes: readonly Pick<Incident, 'functions'>[]): FunctionWeight[] {
  const weights = new Map<string, { n: number; weight: number }>();
  let named = 0;
  for (const note of notes) {
    if (note.functions.length === 0) continue;
    named++;
    for (const name of note.functions) {
      const { n, weight } = weights.get(name) ?? { n: 0, weight: 0 };
      weights.set(name, { n: n + 1, weight: weight + 1 / note.functions.length });
    }
  }
  return [...weights]
    .map(([name, { n, weight }]) => ({ name, n, weight, share: weight / named }))
    .sort((a, b) => b.weight - a.weight || a.name.localeCompare(b.name));
}
