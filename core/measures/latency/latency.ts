import { z } from 'zod';
import { median } from '../../statistics/median';
import { largest, mean, smallest, tenths } from '../../statistics/spread';
import { counted, figure, lengthOfTime } from '../../words/counting';
import { totalCountAgreement } from '../agreement/agreement';
import type { PairAgreement } from '../agreement/pair';
import { type Cell, lengthCell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import type { MeasureKind } from '../measure-kind';
import { several } from '../measure-table';
import { noun } from '../named';
import type { BreakdownLine, Score } from '../score';

/** A goal measured by how soon: the time from a cue to the response. */
export const latencyDefinition = z.object({
  kind: z.literal('latency'),
  cue: noun.default({ one: 'cue', many: 'cues' }),
  /** A cue without a response took longer than this. */
  limitSeconds: z
    .number({ error: 'Say how many seconds to wait for a response.' })
    .min(1, { error: 'Wait at least a second.' })
    .max(86_400, { error: 'Nothing takes longer than a day.' })
    .default(30),
});
export type LatencyDefinition = z.infer<typeof latencyDefinition>;

/** Seconds from each cue to its response, in order; null where no response came. */
export type LatencyData = { responses: (number | null)[] };

function latencyData({ cue }: LatencyDefinition): z.ZodType<LatencyData> {
  return z.object({
    responses: z
      .array(
        z
          .number({ error: `Say how long each response took, or that none came.` })
          .min(0, { error: 'A response cannot come before its cue.' })
          .max(86_400, { error: 'No response takes longer than a day.' })
          .nullable(),
      )
      .min(1, { error: `Time at least one ${cue.one}, or say why there is no score.` })
      .max(500, { error: `At most 500 ${cue.many} fit in one entry.` }),
  });
}

const timesOf = ({ responses }: LatencyData) => responses.filter((time) => time !== null);

/** Every cue’s time in order, those without a response last: they took longer than the limit. */
const inOrder = ({ responses }: LatencyData) =>
  responses.map((time) => time ?? Number.POSITIVE_INFINITY).sort((a, b) => a - b);

/**
 * The median time from cue to response over all cues: one without a response is longer than the limit, not absent. Where the median is
 * such a one it lies somewhere beyond the limit, which stands for it.
 *
 * @returns value in seconds, amount the responses, weight the cues
 * @see Cooper, Heron & Heward, Applied Behavior Analysis: response latency; right-censored times as in any text on survival (the median
 * needs no more than their order)
 * @example scoreLatency({ limitSeconds: 30, … }, { responses: [3, null, null] }) // value 30, isBeyond
 */
export function scoreLatency({ limitSeconds }: LatencyDefinition, data: LatencyData): Score {
  const weight = data.responses.length;
  if (weight === 0) return { value: null, reason: 'noOpportunity' };
  const middle = median(inOrder(data));
  const amount = timesOf(data).length;
  return Number.isFinite(middle)
    ? { value: middle, amount, weight }
    : { value: limitSeconds, amount, weight, isBeyond: true };
}

function latencyLines(definition: LatencyDefinition, data: LatencyData): BreakdownLine[] {
  const times = timesOf(data);
  const score = scoreLatency(definition, data);
  const line = (key: string, label: string, of: (times: readonly number[]) => number): BreakdownLine => {
    const value = times.length === 0 ? null : of(times);
    return { key, label, value, said: value === null ? 'none' : lengthOfTime(value) };
  };
  const misses = data.responses.length - times.length;
  const middle: BreakdownLine =
    score.value === null
      ? { key: 'median', label: 'Median', value: null, said: 'none' }
      : {
          ...{ key: 'median', label: 'Median', value: score.value },
          said: `${score.isBeyond ? '> ' : ''}${lengthOfTime(score.value)}`,
        };
  return [
    middle,
    line('shortest', 'Shortest', smallest),
    line('longest', 'Longest', largest),
    { key: 'misses', label: 'Without a response', value: misses, said: String(misses) },
  ];
}

/** @example “Usually began after 8 seconds (5 cues; range 4 to 12). No response to 1 cue.” */
export function latencySentence({ cue, limitSeconds }: LatencyDefinition, data: LatencyData): string {
  const times = timesOf(data);
  const all = data.responses.length;
  if (all === 0) return `No ${cue.one} was given.`;
  const cues = counted(all, cue.one, cue.many);
  const misses = all - times.length;
  const missed = misses === 0 ? '' : ` No response to ${counted(misses, cue.one, cue.many)}.`;
  const long = times.some((time) => time >= 60);
  const after = (time: number) => (long ? lengthOfTime(time) : counted(tenths(time), 'second', 'seconds'));
  const short = (time: number) => (long ? lengthOfTime(time) : figure(time));
  const [low, high] = times.length === 0 ? [0, 0] : [smallest(times), largest(times)];
  const middle = median(inOrder(data));
  if (!Number.isFinite(middle)) {
    const within = `within ${limitSeconds < 60 ? counted(limitSeconds, 'second', 'seconds') : lengthOfTime(limitSeconds)}`;
    if (times.length === 0) return `No response ${within} (${cues}).`;
    const others =
      times.length === 1 ? `One began after ${after(low)}` : `Others began after ${short(low)} to ${after(high)}`;
    return `No response ${within} to ${misses} of ${cues}. ${others}.`;
  }
  if (all === 1) return `Began after ${after(middle)} (${cues}).`;
  const range = times.length === 1 ? '' : `; range ${short(low)} to ${short(high)}`;
  return `Usually began after ${after(middle)} (${cues}${range}).${missed}`;
}

/** Shorter over longer for each cue, averaged; a response that only one of them saw is no agreement. */
function cueByCue(a: readonly (number | null)[], b: readonly (number | null)[]): PairAgreement | null {
  if (a.length !== b.length || a.length === 0) return null;
  const shares = a.map((time, i) => {
    const other = b[i] ?? null;
    if (time === null || other === null) return time === other ? 1 : 0;
    return totalCountAgreement(time, other);
  });
  return { share: mean(shares), basis: `cue by cue, ${counted(a.length, 'cue', 'cues')}` };
}

export const latency: MeasureKind<LatencyDefinition, LatencyData> = {
  question: 'How soon',
  term: 'latency',
  example: '12 seconds from the bell to the first step',
  beginning: latencyDefinition.parse({ kind: 'latency' }),
  holds: (data): data is LatencyData => 'responses' in data,
  data: latencyData,
  pool: (_, sessions) => ({ responses: sessions.flatMap((session) => session.responses) }),
  accumulates: false,
  isShare: false,
  score: scoreLatency,
  breakdown: latencyLines,
  sentence: latencySentence,
  said: (_, value) => lengthOfTime(value),
  basis: (_, { amount, weight }) => (amount === weight ? `${weight} timed` : `${amount} of ${weight} answered`),
  asCount: () => null,
  weightNoun: ({ cue }) => cue,
  axis: () => ({ max: null, unit: ' s', change: 'seconds' }),
  discreet: (definition) => ({ ...definition, cue: { one: 'cue', many: 'cues' } }),
  defaultCriterion: () => usualCriterion('atMost', 10),
  meaning: () => [],
  table: {
    columns: ({ cue }) => [{ key: 'responses', label: `After each ${cue.one}, seconds`, example: '12; 8; none' }],
    read: (_, __, take) => ({
      responses:
        take(
          'responses',
          several(
            (part): Cell<number | null> =>
              /^(none|no|–|-)$/i.test(part) ? { ok: true, value: null } : lengthCell(part),
          ),
        ) ?? [],
    }),
  },
  agreement: (_, a, b) => cueByCue(a.responses, b.responses),
};
