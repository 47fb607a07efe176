import { z } from 'zod';
import { tenths } from '../../statistics/spread';
import { counted, figure } from '../../words/counting';
import { totalAgreement } from '../agreement/pair';
import { numberCell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import type { MeasureKind } from '../measure-kind';
import { noun } from '../named';
import { type BreakdownLine, type Score, wholeFor } from '../score';

/** A goal measured by counting: as a rate, or as the bare count where every session is equally long. */
export const frequencyDefinition = z
  .object({
    kind: z.literal('frequency'),
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
export type FrequencyDefinition = z.infer<typeof frequencyDefinition>;

/** How many, in how many minutes of watching. None is a count like any other. */
export type FrequencyData = { count: number; minutes: number };

const MOST_COUNTED = 10_000;

function frequencyData({ per, sessionMinutes, counted: { many } }: FrequencyDefinition): z.ZodType<FrequencyData> {
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
const unitMinutes = ({ per, sessionMinutes }: FrequencyDefinition) =>
  per === 'hour' ? 60 : per === 'minute' ? 1 : (sessionMinutes ?? 1);

/**
 * The rate per hour or per minute; for sessions of fixed length the count per session.
 *
 * @returns value in the goal's own rate, amount the count, weight the minutes watched
 * @see Cooper, Heron & Heward, Applied Behavior Analysis: count and rate
 * @example 7 in 30 minutes // 14 an hour
 */
export function scoreFrequency(definition: FrequencyDefinition, { count, minutes }: FrequencyData): Score {
  if (minutes <= 0) return { value: null, reason: 'noOpportunity' };
  return { value: (count * unitMinutes(definition)) / minutes, amount: count, weight: minutes };
}

function said({ per, counted: what }: FrequencyDefinition, value: number): string {
  if (per === 'session') return `${figure(value)} ${value === 1 ? what.one : what.many}`;
  return `${figure(value)} ${per === 'hour' ? 'an hour' : 'a minute'}`;
}

const minutesSaid = (minutes: number) => counted(tenths(minutes), 'minute', 'minutes');

function rateLine(definition: FrequencyDefinition, value: number | null): BreakdownLine {
  const label = definition.per === 'session' ? 'Per session' : 'Rate';
  return { key: 'rate', label, value, said: value === null ? 'none' : said(definition, value) };
}

/** @example “7 calls in 30 minutes (a rate of 14 per hour).” */
export function frequencySentence(definition: FrequencyDefinition, data: FrequencyData): string {
  const { per, counted: noun } = definition;
  const { one, many } = noun;
  const head = `${data.count === 0 ? 'No' : data.count} ${data.count === 1 ? one : many} in ${minutesSaid(data.minutes)}`;
  const score = scoreFrequency(definition, data);
  if (score.value === null || per === 'session' || data.count === 0) return `${head}.`;
  return `${head} (a rate of ${figure(score.value)} per ${per}).`;
}

export const frequency: MeasureKind<FrequencyDefinition, FrequencyData> = {
  question: 'How often',
  term: 'frequency',
  example: '7 calls in half an hour',
  beginning: frequencyDefinition.parse({ kind: 'frequency', per: 'hour' }),
  holds: (data): data is FrequencyData => 'count' in data,
  data: frequencyData,
  pool: (_, sessions) => ({
    count: sessions.reduce((sum, session) => sum + session.count, 0),
    minutes: sessions.reduce((sum, session) => sum + session.minutes, 0),
  }),
  accumulates: false,
  isShare: false,
  score: scoreFrequency,
  breakdown: (definition, data) => [
    { key: 'count', label: 'Total', value: data.count, said: String(data.count) },
    { key: 'minutes', label: 'Watched', value: data.minutes, said: minutesSaid(data.minutes) },
    rateLine(definition, scoreFrequency(definition, data).value),
  ],
  sentence: frequencySentence,
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
  meaning: () => [],
  table: {
    columns: ({ counted: { many }, sessionMinutes }) => [
      { key: 'count', label: many, example: '7' },
      { key: 'minutes', label: 'Minutes watched', example: sessionMinutes === null ? '30' : String(sessionMinutes) },
    ],
    read: ({ sessionMinutes }, _, take) => ({
      count: take('count', numberCell) ?? undefined,
      minutes: take('minutes', numberCell) ?? sessionMinutes ?? undefined,
    }),
    columnOf: (_, path) => (path[0] === 'count' ? 'count' : 'minutes'),
    one: (_, text, { outOf }) => {
      const both = /^(\d+)\s*(?:\/|in)\s*(\d+(?:[.,]\d+)?)(?:\s*min)?$/i.exec(text);
      return { ok: true, value: { count: both?.[1] ?? text, minutes: both?.[2] ?? outOf } };
    },
  },
  // Six in an hour and six in twenty minutes are not the same: what is compared are rates.
  agreement: (_, a, b) =>
    a.minutes === b.minutes
      ? totalAgreement(a.count, b.count, 'the counts')
      : totalAgreement(a.count / a.minutes, b.count / b.minutes, 'the rates'),
  withClock: (_, data, seconds) => data && { ...data, minutes: Math.max(0.1, tenths(seconds / 60)) },
};
