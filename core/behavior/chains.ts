import type { Incident } from '../entries/incidents/incident';
import { wilsonInterval } from '../statistics/wilson';
import { namesIn } from './shares';

export interface Chain {
  antecedent: string;
  behavior: string;
  consequence: string;
  /** Incidents that hold the whole chain. */
  n: number;
  /** All incidents of the behavior. */
  of: number;
  share: number;
  low: number;
  high: number;
}

/**
 * The whole chains A → B → C through a behavior, the commonest first. An incident with several antecedents or consequences holds
 * each chain that they make; one without an antecedent or without a consequence holds none, and still counts among the incidents.
 *
 * @param incidents  the incidents of the behavior
 */
export function chainsThrough(behavior: string, incidents: readonly Incident[]): Chain[] {
  const counts = new Map<string, Map<string, number>>();
  for (const incident of incidents) {
    const consequences = namesIn(incident, 'consequences');
    for (const antecedent of namesIn(incident, 'antecedents')) {
      const ends = counts.get(antecedent) ?? new Map<string, number>();
      counts.set(antecedent, ends);
      for (const consequence of consequences) ends.set(consequence, (ends.get(consequence) ?? 0) + 1);
    }
  }
  const of = incidents.length;
  const chains = [...counts].flatMap(([antecedent, ends]) =>
    [...ends].map(([consequence, n]): Chain => {
      return { antecedent, behavior, consequence, n, of, share: n / of, ...wilsonInterval(n, of) };
    }),
  );
  return commonestFirst(chains);
}

/** Chains in order: the commonest first, those as common by name. */
export function commonestFirst(chains: readonly Chain[]): Chain[] {
  const said = (chain: Chain) => `${chain.antecedent} ${chain.behavior} ${chain.consequence}`;
  return chains.toSorted((x, y) => y.n - x.n || said(x).localeCompare(said(y)));
}
