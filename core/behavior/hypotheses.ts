import type { Incident } from '../entries/incidents/incident';

export interface FunctionWeight {
  name: string;
  /** Incidents that name it. */
  n: number;
  /** The same, where an incident with several counts as one shared among them. */
  weight: number;
  /** Of all incidents that name any. */
  share: number;
}

/**
 * The observers' hypotheses of what a behavior gets the student, counted; an incident that names several is shared equally among
 * them, so that the weights add up to the incidents. It is what observers thought, never a finding.
 *
 * @returns the heaviest first; none when no incident names any
 */
export function functionWeights(incidents: readonly Pick<Incident, 'functions'>[]): FunctionWeight[] {
  const weights = new Map<string, { n: number; weight: number }>();
  let named = 0;
  for (const incident of incidents) {
    if (incident.functions.length === 0) continue;
    named++;
    for (const name of incident.functions) {
      const { n, weight } = weights.get(name) ?? { n: 0, weight: 0 };
      weights.set(name, { n: n + 1, weight: weight + 1 / incident.functions.length });
    }
  }
  return [...weights]
    .map(([name, { n, weight }]) => ({ name, n, weight, share: weight / named }))
    .sort((a, b) => b.weight - a.weight || a.name.localeCompare(b.name));
}
