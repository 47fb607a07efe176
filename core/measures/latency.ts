import { z } from 'zod';
import { median } from '../statistics/median';
import { largest, smallest } from '../statistics/spread';
import { counted, lengthOfTime } from '../words/counting';
import { usualCriterion } from './criterion-definition';
import type { MeasureKind } from './measure-kind';
import { noun } from './named';
import type { BreakdownLine, Score } from './score';

/** A goal measured by how soon: the time from a cue to the response. */
export const latencyDefinition = z.object({
  kind: z.literal('latency'),
  cue: noun.default({ one: 'cue', many: 'cues' }),
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

/**
 * The median time from cue to response. Cues without a response are counted beside it and do not go into the median.
 *
 * @returns value in seconds, amount the responses, weight the cues
 * @see Cooper, Heron & Heward, Applied Behavior Analysis: response latency
 */
export function scoreLatency(_: LatencyDefinition, data: LatencyData): Score {
  const times = timesOf(data);
  if (data.responses.length === 0) return { value: null, reason: 'noOpportunity' };
  if (times.length === 0) return { value: null, reason: 'noResponse' };
  return { value: median(times), amount: times.length, weight: data.responses.length };
}

function latencyLines(_: LatencyDefinition, data: LatencyData): BreakdownLine[] {
  const times = timesOf(data);
  const line = (key: string, label: string, of: (times: readonly number[]) => number): BreakdownLine => {
    const value = times.length === 0 ? null : of(times);
    return { key, label, value, said: value === null ? 'none' : lengthOfTime(value) };
  };
  const misses = data.responses.length - times.length;
  return [
    line('median', 'Median', median),
    line('shortest', 'Shortest', smallest),
    line('longest', 'Longest', largest),
    { key: 'misses', label: 'Without a response', value: misses, said: String(misses) },
  ];
}

/** @example “Median 8 s over 5 cues, from 4 s to 12 s. 1 cue went without a response.” */
export function latencySentence({ cue }: LatencyDefinition, data: LatencyData): string {
  const times = timesOf(data);
  const misses = data.responses.length - times.length;
  const missed = misses === 0 ? '' : ` ${counted(misses, cue.one, cue.many)} went without a response.`;
  if (times.length === 0) return missed.trim() || `No ${cue.one} was given.`;
  const head = `${times.length === 1 ? '' : 'Median '}${lengthOfTime(median(times))} ${times.length === 1 ? 'after' : 'over'} ${counted(times.length, cue.one, cue.many)}`;
  const range = times.length === 1 ? '' : `, from ${lengthOfTime(smallest(times))} to ${lengthOfTime(largest(times))}`;
  return `${head}${range}.${missed}`;
}

export const latency: MeasureKind<LatencyDefinition, LatencyData> = {
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
};
