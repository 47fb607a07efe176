import { fisherExact, oddsRatio, yulesQ } from '../statistics/two-by-two';
import { wilsonInterval } from '../statistics/wilson';
import type { AbcNote } from './abc-note';

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

/** The distinct names that a note gives for a facet. */
export function namesIn(note: AbcNote, facet: Facet): readonly string[] {
  if (facet === 'settings') return note.setting === null ? [] : [note.setting];
  const names = note[facet];
  return names.length < 2 ? names : [...new Set(names)];
}

/**
 * How often each antecedent, consequence or setting stands beside a behavior, and how that compares with the student's
 * other behaviors. Notes exist only where a behavior occurred: a share says what tends to come before, not how likely the
 * behavior is after it.
 *
 * @param own  the notes of the behavior
 * @param others  the notes without it
 * @returns the commonest first
 */
export function facetShares(own: readonly AbcNote[], others: readonly AbcNote[], facet: Facet): FacetShare[] {
  const beside = countNames(own, facet);
  const elsewhere = countNames(others, facet);
  return [...beside]
    .map(([name, n]): FacetShare => {
      const other = elsewhere.get(name) ?? 0;
      const table = { a: n, b: own.length - n, c: other, d: others.length - other };
      return {
        name,
        n,
        of: own.length,
        share: n / own.length,
        ...wilsonInterval(n, own.length),
        others: { n: other, of: others.length },
        oddsRatio: others.length === 0 ? null : oddsRatio(table),
        yulesQ: yulesQ(table),
        p: others.length === 0 ? null : fisherExact(table),
      };
    })
    .sort((x, y) => y.n - x.n || x.name.localeCompare(y.name));
}

function countNames(notes: readonly AbcNote[], facet: Facet): Map<string, number> {
  const counts = new Map<string, number>();
  for (const note of notes) {
    for (const name of namesIn(note, facet)) counts.set(name, (counts.get(name) ?? 0) + 1);
  }
  return counts;
}
