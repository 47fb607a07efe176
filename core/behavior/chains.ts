import { wilsonInterval } from '../statistics/wilson';
import type { AbcNote } from './abc-note';
import { namesIn } from './shares';

export interface Chain {
  antecedent: string;
  behavior: string;
  consequence: string;
  /** Notes that hold the whole chain. */
  n: number;
  /** All notes of the behavior. */
  of: number;
  share: number;
  low: number;
  high: number;
}

/**
 * The whole chains A → B → C, the commonest first. A note with several antecedents, behaviors or consequences holds each
 * chain that they make; one without an antecedent or without a consequence holds none, and still counts among the notes of
 * its behavior.
 *
 * @param behavior  only the chains through this one; all, when null
 */
export function chainsOf(notes: readonly AbcNote[], behavior: string | null = null): Chain[] {
  const counts = new Map<string, Map<string, Map<string, number>>>();
  const of = new Map<string, number>();
  for (const note of notes) {
    for (const b of new Set(note.behaviors)) {
      if (behavior !== null && b !== behavior) continue;
      of.set(b, (of.get(b) ?? 0) + 1);
      for (const a of namesIn(note, 'antecedents')) {
        for (const c of namesIn(note, 'consequences')) {
          const ends = entry(entry(counts, b), a);
          ends.set(c, (ends.get(c) ?? 0) + 1);
        }
      }
    }
  }
  const chains: Chain[] = [];
  for (const [b, starts] of counts) {
    const total = of.get(b) as number;
    for (const [antecedent, ends] of starts) {
      for (const [consequence, n] of ends) {
        chains.push({
          antecedent,
          behavior: b,
          consequence,
          n,
          of: total,
          share: n / total,
          ...wilsonInterval(n, total),
        });
      }
    }
  }
  const said = (chain: Chain) => `${chain.antecedent} ${chain.behavior} ${chain.consequence}`;
  return chains.sort((x, y) => y.n - x.n || said(x).localeCompare(said(y)));
}

/** The map within a map, made when it is first asked for. */
function entry<V>(map: Map<string, Map<string, V>>, key: string): Map<string, V> {
  const found = map.get(key) ?? new Map<string, V>();
  map.set(key, found);
  return found;
}
