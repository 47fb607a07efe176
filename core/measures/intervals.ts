import { z } from 'zod';
import { counted, figure, percent } from '../words/counting';
import { usualCriterion } from './criterion-definition';
import { type MeasureKind, shareOfChances } from './measure-kind';
import { asCount, type Score } from './score';

/** A goal measured by intervals: was it there the whole interval, at any moment of it, or at its last moment? */
export const intervalsDefinition = z.object({
  kind: z.literal('intervals'),
  method: z.enum(['whole', 'partial', 'momentary']),
  /** The length of one interval. */
  seconds: z.number().positive().max(3600),
  /** How many intervals a session is meant to hold, when the goal says. */
  planned: z.number().int().min(1).max(600).nullable().default(null),
});
export type IntervalsDefinition = z.infer<typeof intervalsDefinition>;

/** Each interval in order: yes, no, or null where the observer missed it. */
export type IntervalsData = { intervals: (boolean | null)[] };

/** What each method does to the estimate of how much of the time it was there. */
export const methodWords: Record<IntervalsDefinition['method'], { label: string; caution: string }> = {
  whole: { label: 'whole interval', caution: 'Whole intervals underestimate how long it lasted.' },
  partial: { label: 'partial interval', caution: 'Partial intervals overestimate how long it lasted.' },
  momentary: { label: 'momentary', caution: 'Momentary samples neither over- nor underestimate on the whole.' },
};

function intervalsData(_: IntervalsDefinition): z.ZodType<IntervalsData> {
  return z
    .object({
      intervals: z
        .array(z.boolean({ error: 'An interval is yes, no or missed.' }).nullable())
        .min(1, { error: 'Score at least one interval, or say why there is no score.' })
        .max(600, { error: 'At most 600 intervals fit in one entry.' }),
    })
    .refine(({ intervals }) => intervals.some((interval) => interval !== null), {
      error: 'Every interval was missed: nothing can be scored.',
      path: ['intervals'],
    });
}

/**
 * The share of the scored intervals with a yes. A missed interval is not a no: it is left out.
 *
 * @returns value 0 … 100, amount intervals with a yes, weight intervals scored
 * @see Cooper, Heron & Heward, Applied Behavior Analysis: whole-interval, partial-interval and momentary time sampling
 */
export function scoreIntervals(_: IntervalsDefinition, { intervals }: IntervalsData): Score {
  const scored = intervals.filter((interval) => interval !== null);
  if (scored.length === 0) return { value: null, reason: intervals.length > 0 ? 'nothingScored' : 'noOpportunity' };
  const yes = scored.filter(Boolean).length;
  return { value: (100 * yes) / scored.length, amount: yes, weight: scored.length };
}

/** @example “18 of 30 intervals of 10 s: 60% (partial interval). 2 intervals were missed.” */
export function intervalsSentence(definition: IntervalsDefinition, data: IntervalsData): string {
  const score = scoreIntervals(definition, data);
  if (score.value === null) return 'No interval could be scored.';
  const { method, seconds } = definition;
  const missed = data.intervals.length - score.weight;
  const head = `${score.amount} of ${counted(score.weight, 'interval', 'intervals')} of ${figure(seconds)} s: ${percent(score.value)} (${methodWords[method].label}).`;
  return missed === 0 ? head : `${head} ${counted(missed, 'interval was', 'intervals were')} missed.`;
}

export const intervals: MeasureKind<IntervalsDefinition, IntervalsData> = {
  ...shareOfChances,
  data: intervalsData,
  pool: (_, sessions) => ({ intervals: sessions.flatMap((session) => session.intervals) }),
  score: scoreIntervals,
  breakdown: (_, { intervals: all }) => {
    const line = (key: string, label: string, is: boolean | null) => {
      const n = all.filter((interval) => interval === is).length;
      return { key, label, value: n, said: String(n) };
    };
    return [line('yes', 'Yes', true), line('no', 'No', false), line('missed', 'Missed', null)];
  },
  sentence: intervalsSentence,
  asCount: ({ planned }, value, comparison) =>
    planned === null ? null : `${asCount(value, planned, comparison)} of ${planned}`,
  weightNoun: () => ({ one: 'interval', many: 'intervals' }),
  discreet: (definition) => definition,
  defaultCriterion: () => usualCriterion('atLeast', 80),
};
