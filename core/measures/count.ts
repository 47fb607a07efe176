import { z } from 'zod';
import { counted, figure } from '../words/counting';
import { usualCriterion } from './criterion-definition';
import type { MeasureKind } from './measure-kind';
import { noun } from './named';
import { type BreakdownLine, type Score, wholeFor } from './score';

/** A goal measured by counting: as a rate, or as the bare count where every session is equally long. */
export const countDefinition = z
  .object({
    kind: z.literal('count'),
    per: z.enum(['hour', 'minute', 'session']),
    /** How long a session is, where the goal fixes it. */
    sessionMinutes: z.number().positive().max(600).nullable().default(null),
    /** What is counted. */
    counted: noun.default({ one: 'time', many: 'times' }),
  })
  .refine(({ per, sessionMinutes }) => per !== 'session' || sessionMinutes !== null, {
    error: 'A bare count needs sessions of equal length; say how many minutes.',
    path: ['sessionMinutes'],
  });
export type CountDefinition = z.infer<typeof countDefinition>;

/** How many, in how many minutes of watching. None is a count like any other. */
export type CountData = { count: number; minutes: number };

const MOST_COUNTED = 10_000;

function countData({ per, sessionMinutes, counted: { many } }: CountDefinition): z.ZodType<CountData> {
  const watched = z
    .number({ error: 'Say how many minutes you watched; a rate needs them.' })
    .positive({ error: 'A rate needs a time watched of more than nothing.' })
    .max(1440, { error: 'One entry can hold at most a day of watching.' });
  return z.object({
    count: z
      .number({ error: `Say how many ${many}; none is 0.` })
      .int({ error: 'A count is a whole number.' })
      .min(0, { error: 'A count cannot be below nothing.' })
      .max(MOST_COUNTED, { error: `That is more than ${MOST_COUNTED.toLocaleString('en-US')} in one entry.` }),
    minutes:
      per !== 'session'
        ? watched
        : watched.refine((minutes) => minutes === sessionMinutes, {
            error: `This goal counts sessions of ${sessionMinutes} minutes.`,
          }),
  });
}

/** Minutes that the value is a count of. */
const unitMinutes = ({ per, sessionMinutes }: CountDefinition) =>
  per === 'hour' ? 60 : per === 'minute' ? 1 : (sessionMinutes ?? 1);

/**
 * The rate per hour or per minute; for sessions of fixed length the count per session.
 *
 * @returns value in the goal's own rate, amount the count, weight the minutes watched
 * @see Cooper, Heron & Heward, Applied Behavior Analysis: count and rate
 * @example 7 in 30 minutes // 14 an hour
 */
export function scoreCount(definition: CountDefinition, { count, minutes }: CountData): Score {
  if (minutes <= 0) return { value: null, reason: 'noOpportunity' };
  return { value: (count * unitMinutes(definition)) / minutes, amount: count, weight: minutes };
}

function said({ per, counted: what }: CountDefinition, value: number): string {
  if (per === 'session') return `${figure(value)} ${value === 1 ? what.one : what.many}`;
  return `${figure(value)} ${per === 'hour' ? 'an hour' : 'a minute'}`;
}

const minutesSaid = (minutes: number) => counted(Math.round(minutes * 10) / 10, 'minute', 'minutes');

function rateLine(definition: CountDefinition, value: number | null): BreakdownLine {
  const label = definition.per === 'session' ? 'Per session' : 'Rate';
  return { key: 'rate', label, value, said: value === null ? 'none' : said(definition, value) };
}

/** @example “7 calls in 30 minutes: 14 an hour.” */
export function countSentence(definition: CountDefinition, data: CountData): string {
  const { one, many } = definition.counted;
  const head = `${data.count === 0 ? 'No' : data.count} ${data.count === 1 ? one : many} in ${minutesSaid(data.minutes)}`;
  const score = scoreCount(definition, data);
  if (score.value === null || definition.per === 'session') return `${head}.`;
  return `${head}: ${said(definition, score.value)}.`;
}

export const count: MeasureKind<CountDefinition, CountData> = {
  data: countData,
  pool: (_, sessions) => ({
    count: sessions.reduce((sum, session) => sum + session.count, 0),
    minutes: sessions.reduce((sum, session) => sum + session.minutes, 0),
  }),
  accumulates: false,
  isShare: false,
  score: scoreCount,
  breakdown: (definition, data) => [
    { key: 'count', label: 'Total', value: data.count, said: String(data.count) },
    { key: 'minutes', label: 'Watched', value: data.minutes, said: minutesSaid(data.minutes) },
    rateLine(definition, scoreCount(definition, data).value),
  ],
  sentence: countSentence,
  said,
  basis: (_, { amount, weight }) => `${amount} in ${figure(weight)} min`,
  asCount: (definition, value, comparison) => {
    const { per, sessionMinutes } = definition;
    if (per === 'session' || sessionMinutes === null) return null;
    const n = (value * sessionMinutes) / unitMinutes(definition);
    return `${wholeFor(n, comparison)} in ${figure(sessionMinutes)} minutes`;
  },
  weightNoun: () => ({ one: 'minute watched', many: 'minutes watched' }),
  axis: ({ per, counted: { many } }) => ({
    max: null,
    unit: '',
    change: per === 'session' ? many : `${many} ${per === 'hour' ? 'an hour' : 'a minute'}`,
  }),
  discreet: (definition) => ({ ...definition, counted: { one: 'time', many: 'times' } }),
  defaultCriterion: () => usualCriterion('atMost', 2),
};
