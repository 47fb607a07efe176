import { z } from 'zod';
import { capitalised, numberWord, percent } from '../words/counting';
import type { Score } from './score';

/** One way of helping, from none to most. `words` go into sentences: “alone” for no help, else “a gesture prompt”. */
export const supportLevel = z.object({
  key: z.string().regex(/^[a-z][A-Za-z0-9]{0,23}$/),
  label: z.string().trim().min(1).max(24),
  words: z.string().trim().min(1).max(60),
});
export type SupportLevel = z.infer<typeof supportLevel>;

/** What a trial can be besides a success at some support level. */
export const unsupportedOutcomes = ['incorrect', 'noResponse', 'refused'] as const;
export type UnsupportedOutcome = (typeof unsupportedOutcomes)[number];

export const unsupportedWords: Record<UnsupportedOutcome, { label: string; words: string }> = {
  incorrect: { label: 'Not yet', words: 'not yet' },
  noResponse: { label: 'No answer', words: 'without an answer' },
  refused: { label: 'Declined', words: 'declined' },
};

const isUnsupported = (outcome: string): outcome is UnsupportedOutcome =>
  (unsupportedOutcomes as readonly string[]).includes(outcome);

/** A goal measured by trials: its own ordered support levels, first the least help. */
export const trialsDefinition = z
  .object({
    kind: z.literal('trials'),
    levels: z.array(supportLevel).min(1).max(8),
    /** The most support that still counts as a success. */
    mostSupport: z.string(),
    /** Whether a refusal is a chance that was not taken (usual) or no chance at all. */
    refusalIsOpportunity: z.boolean().default(true),
    /** How many chances a session is meant to hold, when the goal says. */
    planned: z.number().int().min(1).max(40).nullable().default(null),
    /** More than this in one session is taken for a slip. */
    mostTrials: z.number().int().min(1).max(100).default(40),
    /** What a chance is called in this goal's sentences. */
    chance: z
      .object({ one: z.string().min(1).max(30), many: z.string().min(1).max(30) })
      .default({ one: 'chance', many: 'chances' }),
  })
  .refine((d) => new Set(d.levels.map((level) => level.key)).size === d.levels.length, {
    error: 'Two support levels have the same key.',
  })
  .refine((d) => !d.levels.some((level) => isUnsupported(level.key)), {
    error: 'A support level may not be called incorrect, noResponse or refused.',
  })
  .refine((d) => d.levels.some((level) => level.key === d.mostSupport), {
    error: 'The most support that still counts must be one of the levels.',
    path: ['mostSupport'],
  });
export type TrialsDefinition = z.infer<typeof trialsDefinition>;

/** The outcome of each trial in order: a support level's key, or one of `unsupportedOutcomes`. */
export type TrialsData = { trials: string[] };

/** The schema of what one session of this goal may hold; a level that is not the goal's is refused. */
export function trialsData(definition: TrialsDefinition): z.ZodType<TrialsData> {
  const outcomes = [...definition.levels.map((level) => level.key), ...unsupportedOutcomes];
  return z.object({
    trials: z
      .array(z.enum(outcomes as [string, ...string[]], { error: 'This is not one of the goal’s support levels.' }))
      .min(1, { error: 'Mark at least one chance, or say why there is no score.' })
      .max(definition.mostTrials, {
        error: `At most ${definition.mostTrials} ${definition.chance.many} fit in one entry. Save this one and begin another.`,
      }),
  });
}

export interface TrialsShare {
  key: string;
  label: string;
  words: string;
  isSuccess: boolean;
  n: number;
  /** Share of the opportunities, 0 … 100. */
  share: number;
  /** Share with at most this much support, 0 … 100; null for what is no support level. */
  cumulative: number | null;
}

/** The keys of the levels that count as a success: those up to and with the most support that still counts. */
export function successLevels(definition: TrialsDefinition): Set<string> {
  const last = definition.levels.findIndex((level) => level.key === definition.mostSupport);
  return new Set(definition.levels.slice(0, last + 1).map((level) => level.key));
}

function tally(trials: readonly string[]): Map<string, number> {
  const counts = new Map<string, number>();
  for (const outcome of trials) counts.set(outcome, (counts.get(outcome) ?? 0) + 1);
  return counts;
}

/**
 * Successes per hundred opportunities. No response is an opportunity; a refusal is one unless the goal says otherwise.
 * Handed several sessions, it pools their raw counts: 6 of 10 and 8 of 10 are 14 of 20.
 *
 * @param sessions  the data of one session or of all sessions of a day
 * @returns value 0 … 100; no value when no opportunity is left
 * @see docs/measures.md, “Trials”; common practice for prompt levels
 */
export function scoreTrials(definition: TrialsDefinition, ...sessions: readonly TrialsData[]): Score {
  const succeeding = successLevels(definition);
  let successes = 0;
  let refused = 0;
  let total = 0;
  for (const { trials } of sessions) {
    total += trials.length;
    for (const outcome of trials) {
      if (succeeding.has(outcome)) successes++;
      else if (outcome === 'refused') refused++;
    }
  }
  const opportunities = definition.refusalIsOpportunity ? total : total - refused;
  if (opportunities === 0) return { value: null, reason: total > 0 ? 'declined' : 'noOpportunity' };
  return { value: (100 * successes) / opportunities, successes, opportunities };
}

/**
 * How often each outcome came up, in the goal's order, those with none included.
 * The counts add up to the number of trials; the shares are of the opportunities.
 */
export function breakDownTrials(definition: TrialsDefinition, data: TrialsData): TrialsShare[] {
  const counts = tally(data.trials);
  const refused = definition.refusalIsOpportunity ? 0 : (counts.get('refused') ?? 0);
  const opportunities = data.trials.length - refused;
  const share = (n: number) => (opportunities === 0 ? 0 : (100 * n) / opportunities);
  const successes = successLevels(definition);
  let atMost = 0;
  const levels = definition.levels.map((level): TrialsShare => {
    const n = counts.get(level.key) ?? 0;
    atMost += n;
    return { ...level, isSuccess: successes.has(level.key), n, share: share(n), cumulative: share(atMost) };
  });
  const others = unsupportedOutcomes.map((key): TrialsShare => {
    const n = counts.get(key) ?? 0;
    const counted = key !== 'refused' || definition.refusalIsOpportunity;
    return { key, ...unsupportedWords[key], isSuccess: false, n, share: counted ? share(n) : 0, cumulative: null };
  });
  return [...levels, ...others];
}

/**
 * A percentage as a whole number of chances: ⌈value · n⌉, since 75% of four questions is 3 of 4 (common practice).
 *
 * @param value  0 … 100
 * @param n  chances, at least 1
 * @example neededSuccesses(80, 6) // 5
 * @example neededSuccesses(70, 10) // 7, and not 8 for want of exact binary fractions
 */
export function neededSuccesses(value: number, n: number): number {
  return Math.max(0, Math.ceil((value * n) / 100 - 1e-9));
}

/** “with at most a gesture prompt”, or just “alone”. */
export function supportAllowed(definition: TrialsDefinition): string {
  const at = definition.levels.findIndex((level) => level.key === definition.mostSupport);
  const words = (definition.levels[at] as SupportLevel).words;
  return at === 0 ? words : `with at most ${words}`;
}

/**
 * The session as the report says it.
 *
 * @example “3 of 4 ingredients with at most a gesture prompt: 75%. Two alone, one after a gesture prompt, one not yet.”
 */
export function trialsSentence(definition: TrialsDefinition, data: TrialsData): string {
  const score = scoreTrials(definition, data);
  const parts = breakDownTrials(definition, data)
    .filter((part) => part.n > 0)
    .map((part) => {
      const helped = part.cumulative !== null && part.key !== definition.levels[0]?.key;
      return `${numberWord(part.n)} ${helped ? `after ${part.words}` : part.words}`;
    });
  const detail = `${capitalised(parts.join(', '))}.`;
  if (score.value === null) return detail;
  const { one, many } = definition.chance;
  const noun = score.opportunities === 1 ? one : many;
  return `${score.successes} of ${score.opportunities} ${noun} ${supportAllowed(definition)}: ${percent(score.value)}. ${detail}`;
}
