import { z } from 'zod';
import { defined } from '../defined';
import { hasDistinctKeys, keyField } from './named';

/** One way of helping, from none to most. `words` go into sentences: “alone” for no help, else “a gesture prompt”. */
export const supportLevel = z.object({
  key: keyField,
  label: z.string().trim().min(1).max(24),
  words: z.string().trim().min(1).max(60),
});
export type SupportLevel = z.infer<typeof supportLevel>;

/** What an opportunity can be besides a success at some support level. */
export const unsupportedOutcomes = ['incorrect', 'noResponse', 'refused'] as const;
export type UnsupportedOutcome = (typeof unsupportedOutcomes)[number];

export const unsupportedWords: Record<UnsupportedOutcome, { label: string; words: string }> = {
  incorrect: { label: 'Incorrect', words: 'incorrect' },
  noResponse: { label: 'No response', words: 'no response' },
  refused: { label: 'Refused', words: 'refused' },
};

/** The support levels that a new goal begins with, from none to most; common practice, to be changed. */
export const usualLevels: SupportLevel[] = [
  { key: 'independent', label: 'Independent', words: 'alone' },
  { key: 'gesture', label: 'Gesture', words: 'a gesture' },
  { key: 'spoken', label: 'Spoken', words: 'a spoken prompt' },
  { key: 'hands', label: 'Hands on', words: 'hand-over-hand help' },
];

const reserved: readonly string[] = [...unsupportedOutcomes, 'notDone'];

/** The fields of a definition whose outcomes are support levels, first the least help. */
export const supportFields = {
  levels: z.array(supportLevel).min(1).max(8),
  /** The most support that still counts as a success. */
  mostSupport: z.string(),
};

export interface Support {
  levels: SupportLevel[];
  mostSupport: string;
}

/** Holds the support fields against each other: for `superRefine`. */
export function checkSupport({ levels, mostSupport }: Support, context: z.core.$RefinementCtx): void {
  const keys = levels.map((level) => level.key);
  const refuse = (message: string, path: string) =>
    context.addIssue({ code: 'custom', message, path: [path], input: levels });
  if (!hasDistinctKeys(levels)) refuse('Two support levels have the same key.', 'levels');
  if (keys.some((key) => reserved.includes(key))) {
    refuse(`A support level may not be called ${reserved.slice(0, -1).join(', ')} or ${reserved.at(-1)}.`, 'levels');
  }
  if (!keys.includes(mostSupport)) {
    refuse('The most support that still counts must be one of the levels.', 'mostSupport');
  }
}

/** What an opportunity can come to: the goal's levels, then what is no success at any level. */
export function outcomesOf({ levels }: Pick<Support, 'levels'>): SupportLevel[] {
  return [...levels, ...unsupportedOutcomes.map((key) => ({ key, ...unsupportedWords[key] }))];
}

/** The schema of one outcome: a support level of the goal’s own, or one of the others. */
export function outcomeField({ levels }: Support, others: readonly string[]) {
  return z.enum([...levels.map((level) => level.key), ...others] as [string, ...string[]], {
    error: 'This is not one of the goal’s support levels.',
  });
}

/** The keys of the levels that count as a success: those up to and with the most support that still counts. */
export function successLevels({ levels, mostSupport }: Support): Set<string> {
  const last = levels.findIndex((level) => level.key === mostSupport);
  return new Set(levels.slice(0, last + 1).map((level) => level.key));
}

/** “with a gesture or less help”, or just “alone”. */
export function supportAllowed({ levels, mostSupport }: Support): string {
  const at = levels.findIndex((level) => level.key === mostSupport);
  const words = defined(levels[at]).words;
  return at === 0 ? words : `with ${words} or less help`;
}

/** How often each key comes up. */
export function levelCounts(keys: Iterable<string>): Map<string, number> {
  const counts = new Map<string, number>();
  for (const key of keys) counts.set(key, (counts.get(key) ?? 0) + 1);
  return counts;
}
