import { defined } from '../defined';
import type { Incident } from '../entries/incidents/incident';
import { fisherExact, oddsRatio, yulesQ } from '../statistics/two-by-two';
import { wilsonInterval } from '../statistics/wilson';

/** What a note holds of which a share can be told. */
export type Facet = 'antecedents' | 'consequences' | 'settings';

export interface FacetShare {
  name: string;
  /** Notes of the behavior that name it. */
  n: number;
  /** All notes of the behavior. */
  of: number;
  share: number;
  /** Wilson interval of the share. */
  low: number;
  high: number;
  /** Notes of the student's other behaviors: how many name it, of how many. */
  others: { n: number; of: number };
  /** How much likelier it is beside this behavior than beside others; null where there are no others. */
  oddsRatio: number | null;
  yulesQ: number | null;
  /** Fisher's exact test, two-sided. */
  p: number | null;
}

/** The names that a note gives for a facet; each once, as the note's schema sees to. */
export function namesIn(note: Incident, facet: Facet): readonly string[] {
  if (facet === 'settings') return note.location === null ? [] : [note.location];
  return note[facet];
}

/** In how many notes each name of a facet stands, and how many notes there are. */
export interface FacetCounts {
  facet: Facet;
  notes: number;
  names: ReadonlyMap<string, number>;
}

export function countFacet(notes: readonly Incident[], facet: Facet): FacetCounts {
  const names = new Map<string, number>();
  for (const note of notes) {
    for (const name of namesIn(note, facet)) names.set(name, (names.get(name) ?? 0) + 1);
  }
  return { facet, notes: notes.length, names };
}

/**
 * How often each antecedent, consequence or location stands beside a behavior, and how that compares with the student's
 * other behaviors. Notes exist only where a behavior occurred: a share says what tends to come before, not how likely the
 * behavior is after it.
 *
 * @param own  the notes of the behavior
 * @param all  the counts of all notes, those of the behavior among them
 * @returns the commonest first
 */
export function facetShares(own: readonly Incident[], all: FacetCounts): FacetShare[] {
  const others = all.notes - own.length;
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
