import { defined } from '../defined';
import type { Incident } from '../entries/incidents/incident';
import { fisherExact, oddsRatio, yulesQ } from '../statistics/two-by-two';
import { wilsonInterval } from '../statistics/wilson';

/** What an incident holds of which a share can be told. */
export type Facet = 'antecedents' | 'consequences' | 'settings';

export interface FacetShare {
  name: string;
  /** Incidents of the behavior that name it. */
  n: number;
  /** All incidents of the behavior. */
  of: number;
  share: number;
  /** Wilson interval of the share. */
  low: number;
  high: number;
  /** Incidents of the student's other behaviors: how many name it, of how many. */
  others: { n: number; of: number };
  /** How much likelier it is beside this behavior than beside others; null where there are no others. */
  oddsRatio: number | null;
  yulesQ: number | null;
  /** Fisher's exact test, two-sided. */
  p: number | null;
}

/** The names that an incident gives for a facet; each once, as the incident's schema sees to. */
export function namesIn(incident: Incident, facet: Facet): readonly string[] {
  if (facet === 'settings') return incident.location === null ? [] : [incident.location];
  return incident[facet];
}

/** In how many incidents each name of a facet stands, and how many incidents there are. */
export interface FacetCounts {
  facet: Facet;
  incidents: number;
  names: ReadonlyMap<string, number>;
}

export function countFacet(incidents: readonly Incident[], facet: Facet): FacetCounts {
  const names = new Map<string, number>();
  for (const incident of incidents) {
    for (const name of namesIn(incident, facet)) names.set(name, (names.get(name) ?? 0) + 1);
  }
  return { facet, incidents: incidents.length, names };
}

/**
 * How often each antecedent, consequence or location stands beside a behavior, and how that compares with the student's
 * other behaviors. Incidents exist only where a behavior occurred: a share says what tends to come before, not how likely the
 * behavior is after it.
 *
 * @param own  the incidents of the behavior
 * @param all  the counts of all incidents, those of the behavior among them
 * @returns the commonest first
 */
export function facetShares(own: readonly Incident[], all: FacetCounts): FacetShare[] {
  const others = all.incidents - own.length;
  return [...countFacet(own, all.facet).names]
    .map(([name, n]): FacetShare => {
      const elsewhere = defined(all.names.get(name)) - n;
      const table = { a: n, b: own.length - n, c: elsewhere, d: others - elsewhere };
      return {
        name,
        n,
        of: own.length,
        share: n / own.length,
        ...wilsonInterval(n, own.length),
        others: { n: elsewhere, of: others },
        oddsRatio: others === 0 ? null : oddsRatio(table),
        yulesQ: yulesQ(table),
        p: others === 0 ? null : fisherExact(table),
      };
    })
    .sort((x, y) => y.n - x.n || x.name.localeCompare(y.name));
}
