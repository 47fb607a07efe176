import type { WatchedStretch } from '../entries/incidents/incident';
import { fisherExact } from '../statistics/two-by-two';
import { wilsonInterval } from '../statistics/wilson';

/** One occasion on which somebody looked, whether the behavior occurred or not. */
export interface Occasion {
  antecedents: readonly string[];
  occurred: boolean;
}

export interface Probability {
  n: number;
  of: number;
  p: number;
  low: number;
  high: number;
}

export interface ConditionalProbability {
  antecedent: string;
  /** How often the behavior occurred where the antecedent was there. */
  after: Probability;
  /** … and where it was not; null where it always was. */
  without: Probability | null;
  /** Fisher's exact test of the two, two-sided. */
  p: number;
}

/**
 * How likely the behavior is after each antecedent, beside how likely it is at all: to be told only where occasions without
 * the behavior were recorded too.
 *
 * @returns the base probability (null without occasions) and one entry for each antecedent, the likeliest first
 * @see conditional against base (background) probability: Vollmer, Borrero, Wright, Van Camp & Lalli (2001), JABA 34
 */
export function conditionalProbabilities(occasions: readonly Occasion[]): {
  base: Probability | null;
  antecedents: ConditionalProbability[];
} {
  const all = occasions.length;
  const occurred = occasions.filter((occasion) => occasion.occurred).length;
  const counts = new Map<string, { n: number; of: number }>();
  for (const occasion of occasions) {
    for (const name of new Set(occasion.antecedents)) {
      const { n, of } = counts.get(name) ?? { n: 0, of: 0 };
      counts.set(name, { n: n + (occasion.occurred ? 1 : 0), of: of + 1 });
    }
  }
  return {
    base: all === 0 ? null : probability(occurred, all),
    antecedents: [...counts]
      .map(([antecedent, { n, of }]) => ({
        antecedent,
        after: probability(n, of),
        without: of === all ? null : probability(occurred - n, all - of),
        p: fisherExact({ a: n, b: of - n, c: occurred - n, d: all - of - (occurred - n) }),
      }))
      .sort((a, b) => b.after.p - a.after.p || a.antecedent.localeCompare(b.antecedent)),
  };
}

function probability(n: number, of: number): Probability {
  return { n, of, p: n / of, ...wilsonInterval(n, of) };
}

/**
 * How likely a behavior is to occur in an observation window, by part of the day: stretches in which none occurred are occasions
 * too.
 *
 * @param watched  the stretches of one behavior
 */
export function likelihoodByPart(watched: readonly Pick<WatchedStretch, 'part' | 'count'>[]) {
  return conditionalProbabilities(
    watched.map(({ part, count }) => ({ antecedents: part === null ? [] : [part], occurred: count > 0 })),
  );
}
