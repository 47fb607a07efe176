import { z } from 'zod';
import { counted, lengthOfTime, percent } from '../../words/counting';
import {
  intervalByIntervalAgreement,
  scoredIntervalAgreement,
  unscoredIntervalAgreement,
} from '../agreement/agreement';
import { cohensKappa } from '../agreement/kappa';
import type { Cell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import { type MeasureKind, shareOfChances } from '../measure-kind';
import { asCount, type Score } from '../score';

/** A goal measured by intervals: was it there the whole interval, at any moment of it, or at its last moment? */
export const intervalRecordingDefinition = z.object({
  kind: z.literal('intervalRecording'),
  method: z.enum(['whole', 'partial', 'momentary']),
  /** The length of one interval. */
  seconds: z.number().positive().max(3600),
  /** How many intervals a session is meant to hold, when the goal says. */
  planned: z.number().int().min(1).max(600).nullable().default(null),
});
export type IntervalRecordingDefinition = z.infer<typeof intervalRecordingDefinition>;

/** Each interval in order: yes, no, or null where the observer missed it. */
export type IntervalRecordingData = { intervals: (boolean | null)[] };

/** What each method does to the estimate of how much of the time it was there. */
export const methodWords: Record<IntervalRecordingDefinition['method'], { label: string; caution: string }> = {
  whole: { label: 'whole interval', caution: 'Whole intervals underestimate how long it lasted.' },
  partial: { label: 'partial interval', caution: 'Partial intervals overestimate how long it lasted.' },
  momentary: { label: 'momentary', caution: 'Momentary samples neither over- nor underestimate on the whole.' },
};

function intervalRecordingData(_: IntervalRecordingDefinition): z.ZodType<IntervalRecordingData> {
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
export function scoreIntervalRecording(_: IntervalRecordingDefinition, { intervals }: IntervalRecordingData): Score {
  const scored = intervals.filter((interval) => interval !== null);
  if (scored.length === 0) return { value: null, reason: intervals.length > 0 ? 'nothingScored' : 'noOpportunity' };
  const yes = scored.filter(Boolean).length;
  return { value: (100 * yes) / scored.length, amount: yes, weight: scored.length };
}

/** @example “Seen at 18 of 30 checks, 10 s apart (60%). 2 checks were skipped.” */
export function intervalRecordingSentence(
  definition: IntervalRecordingDefinition,
  data: IntervalRecordingData,
): string {
  const score = scoreIntervalRecording(definition, data);
  const isMomentary = definition.method === 'momentary';
  const [one, many] = isMomentary ? ['check', 'checks'] : ['interval', 'intervals'];
  if (score.value === null) return `No ${one} could be scored.`;
  const length = lengthOfTime(definition.seconds);
  const counts = `${score.amount} of ${counted(score.weight, one, many)}`;
  const seen = {
    momentary: `Seen at ${counts}, ${length} apart`,
    partial: `Seen during ${counts} of ${length}`,
    whole: `Seen all through ${counts} of ${length}`,
  }[definition.method];
  const missed = data.intervals.length - score.weight;
  const skipped = missed === 0 ? '' : ` ${counted(missed, `${one} was`, `${many} were`)} skipped.`;
  return `${seen} (${percent(score.value)}).${skipped}`;
}

/** How many intervals have ended after so many seconds; no more than were planned. */
export function endedIntervals(
  { seconds: length, planned }: Pick<IntervalRecordingDefinition, 'seconds' | 'planned'>,
  seconds: number,
): number {
  return Math.min(planned ?? Number.POSITIVE_INFINITY, Math.floor(seconds / length + 1e-9));
}

/** The intervals up to the last that ended; those nobody answered are missed, which is not a no. */
export function withMissed({ intervals }: IntervalRecordingData, ended: number): (boolean | null)[] {
  return Array.from({ length: Math.max(intervals.length, ended) }, (_, i) => intervals[i] ?? null);
}

export const intervalRecording: MeasureKind<IntervalRecordingDefinition, IntervalRecordingData> = {
  question: 'How much of the time',
  term: 'interval recording',
  example: 'at work in 14 of 20 intervals',
  beginning: intervalRecordingDefinition.parse({
    kind: 'intervalRecording',
    method: 'momentary',
    seconds: 60,
    planned: 20,
  }),
  holds: (data): data is IntervalRecordingData => 'intervals' in data,
  ...shareOfChances,
  data: intervalRecordingData,
  pool: (_, sessions) => ({ intervals: sessions.flatMap((session) => session.intervals) }),
  score: scoreIntervalRecording,
  breakdown: (_, { intervals: all }) => {
    const line = (key: string, label: string, is: boolean | null) => {
      const n = all.filter((interval) => interval === is).length;
      return { key, label, value: n, said: String(n) };
    };
    return [line('yes', 'Yes', true), line('no', 'No', false), line('missed', 'Missed', null)];
  },
  sentence: intervalRecordingSentence,
  asCount: ({ planned }, value, comparison) =>
    planned === null ? null : `${asCount(value, planned, comparison)} of ${planned}`,
  opportunities: ({ planned }) => ({ planned, areIndependent: false }),
  weightNoun: () => ({ one: 'interval', many: 'intervals' }),
  discreet: (definition) => definition,
  defaultCriterion: () => usualCriterion('atLeast', 80),
  meaning: ({ method, seconds }) => [method, seconds],
  table: {
    columns: () => [{ key: 'intervals', label: 'Intervals: + yes, − no, . missed', example: '++−+.+' }],
    read: (_, __, take) => ({
      intervals:
        take('intervals', (text): Cell<(boolean | null)[]> => {
          const signs = [...text.replace(/\s/g, '')];
          if (signs.some((sign) => !'+-−.'.includes(sign))) return { ok: false, message: 'Only +, − and a point.' };
          return { ok: true, value: signs.map((sign) => (sign === '.' ? null : sign === '+')) };
        }) ?? [],
    }),
  },
  agreement: (_, a, b) => {
    const both = a.intervals.flatMap((one, i): [boolean, boolean][] => {
      const other = b.intervals[i] ?? null;
      return one === null || other === null ? [] : [[one, other]];
    });
    if (both.length === 0) return null;
    const [first, second] = [both.map(([one]) => one), both.map(([, other]) => other)];
    const beside: [string, number | null][] = [
      ['scored', scoredIntervalAgreement(first, second)],
      ['unscored', unscoredIntervalAgreement(first, second)],
    ];
    const { kappa } = cohensKappa(first.map(String), second.map(String));
    const said = beside.flatMap(([name, part]) => (part === null ? [] : [`${name} ${percent(100 * part)}`]));
    const rest = [...said, ...(kappa === null ? [] : [`κ ${kappa.toFixed(2)}`])].map((one) => `, ${one}`).join('');
    return {
      share: intervalByIntervalAgreement(first, second),
      basis: `interval by interval, ${both.length} scored by both${rest}`,
    };
  },
  withClock: (definition, data, seconds) =>
    data && { intervals: withMissed(data, endedIntervals(definition, seconds)) },
};
