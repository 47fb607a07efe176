import { z } from 'zod';
import { defined } from '../../defined';
import { counted, figure, lengthOfTime, percent } from '../../words/counting';
import { totalAgreement } from '../agreement/pair';
import { lengthCell, numberCell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import type { MeasureKind } from '../measure-kind';
import { type BreakdownLine, type Score, wholeFor } from '../score';

/** A goal measured by reading aloud for a while. */
export const oralReadingDefinition = z.object({
  kind: z.literal('oralReading'),
  /** How long a reading is meant to take, when the goal says. */
  seconds: z.number().int().min(10).max(1800).nullable().default(null),
  /** What several passages read on one day come to: all their words together, or the passage in the middle. */
  passages: z.enum(['together', 'median']).default('together'),
});
export type OralReadingDefinition = z.infer<typeof oralReadingDefinition>;

/** Words read, of which so many were errors, in so many seconds. */
export type OralReadingData = { words: number; errors: number; seconds: number };

function oralReadingData(_: OralReadingDefinition): z.ZodType<OralReadingData> {
  const whole = (what: string) =>
    z
      .number({ error: `Say how many ${what}.` })
      .int({ error: `The number of ${what} is a whole number.` })
      .min(0, { error: `There cannot be fewer than no ${what}.` });
  return z
    .object({
      words: whole('words were read').max(20_000, { error: 'That is more than 20,000 words.' }),
      errors: whole('errors'),
      seconds: z
        .number({ error: 'Say how long the reading took.' })
        .positive({ error: 'The reading took more than no time.' })
        .max(7200, { error: 'A reading of more than two hours is taken for a slip.' }),
    })
    .refine(({ words, errors }) => errors <= words, {
      error: 'There are more errors than words read.',
      path: ['errors'],
    });
}

/**
 * Words read correctly per minute: (words − errors) · 60 / seconds.
 *
 * @returns value words correct per minute, amount words correct, weight seconds
 * @see Deno (1985), Exceptional Children 52; Shinn (1989), Curriculum-Based Measurement
 * @example 92 words with 4 errors in 60 seconds // 88
 */
export function scoreOralReading(_: OralReadingDefinition, { words, errors, seconds }: OralReadingData): Score {
  if (seconds <= 0) return { value: null, reason: 'noOpportunity' };
  return { value: ((words - errors) * 60) / seconds, amount: words - errors, weight: seconds };
}

/** How hard a text is for this reader. */
export type AccuracyBand = 'independent' | 'instructional' | 'hard';

export const bandWords: Record<AccuracyBand, string> = {
  independent: 'easy enough to read alone',
  instructional: 'a good text for practice with help',
  hard: 'too hard for now',
};

/**
 * Accuracy in percent and its band: from 97 independent, from 90 instructional, below hard. The bands go by whole percents.
 *
 * @returns null when no word was read
 * @see the bands are common practice in informal reading inventories; those of Betts (1946) were stricter, 99 and 95% (from memory)
 * @example accuracyOf({ words: 100, errors: 3 }) // { accuracy: 97, band: 'independent' }
 */
export function accuracyOf({
  words,
  errors,
}: Pick<OralReadingData, 'words' | 'errors'>): { accuracy: number; band: AccuracyBand } | null {
  if (words === 0) return null;
  const accuracy = (100 * (words - errors)) / words;
  const whole = Math.round(accuracy);
  return { accuracy, band: whole >= 97 ? 'independent' : whole >= 90 ? 'instructional' : 'hard' };
}

const said = (value: number) => `${figure(value)} words correct per minute`;

function readingLines(definition: OralReadingDefinition, data: OralReadingData): BreakdownLine[] {
  const { value } = scoreOralReading(definition, data);
  const accuracy = accuracyOf(data);
  return [
    { key: 'rate', label: 'Words correct per minute', value, said: value === null ? 'none' : figure(value) },
    { key: 'words', label: 'Words read', value: data.words, said: String(data.words) },
    { key: 'errors', label: 'Errors', value: data.errors, said: String(data.errors) },
    {
      key: 'accuracy',
      label: 'Accuracy',
      value: accuracy?.accuracy ?? null,
      said: accuracy ? `${percent(accuracy.accuracy)}, ${bandWords[accuracy.band]}` : 'none',
    },
    { key: 'time', label: 'Time', value: data.seconds, said: lengthOfTime(data.seconds) },
  ];
}

/** @example “92 words in 1 min, 4 errors: 88 words correct per minute. 96% of words correct: a good text for practice with help.” */
export function oralReadingSentence(definition: OralReadingDefinition, data: OralReadingData): string {
  const score = scoreOralReading(definition, data);
  const errors = data.errors === 0 ? 'no errors' : counted(data.errors, 'error', 'errors');
  const head = `${counted(data.words, 'word', 'words')} in ${lengthOfTime(data.seconds)}, ${errors}`;
  if (score.value === null) return `${head}.`;
  const accuracy = accuracyOf(data);
  const level = accuracy ? ` ${percent(accuracy.accuracy)} of words correct: ${bandWords[accuracy.band]}.` : '';
  return `${head}: ${said(score.value)}.${level}`;
}

/**
 * Several passages of one day as one: all their words together, or the passage with the median of words correct per minute (of an even
 * number the lower of the two in the middle), which is the usual way with three.
 *
 * @see the median of three passages: Shinn (1989), Curriculum-Based Measurement; Hosp, Hosp & Howell, The ABCs of CBM (from memory)
 */
function poolPassages(definition: OralReadingDefinition, sessions: readonly [OralReadingData, ...OralReadingData[]]) {
  if (definition.passages === 'median') {
    const rate = (data: OralReadingData) => scoreOralReading(definition, data).value ?? 0;
    return defined(sessions.toSorted((a, b) => rate(a) - rate(b))[(sessions.length - 1) >> 1]);
  }
  const sumOf = (key: keyof OralReadingData) => sessions.reduce((sum, session) => sum + session[key], 0);
  return { words: sumOf('words'), errors: sumOf('errors'), seconds: sumOf('seconds') };
}

export const oralReading: MeasureKind<OralReadingDefinition, OralReadingData> = {
  question: 'Reading aloud',
  term: 'oral reading fluency',
  example: '54 words correct per minute',
  beginning: oralReadingDefinition.parse({ kind: 'oralReading', seconds: 60 }),
  holds: (data): data is OralReadingData => 'words' in data,
  data: oralReadingData,
  pool: poolPassages,
  accumulates: false,
  isShare: false,
  score: scoreOralReading,
  breakdown: readingLines,
  sentence: oralReadingSentence,
  said: (_, value) => said(value),
  basis: (_, { amount, weight }) => `${counted(amount, 'word', 'words')} correct in ${lengthOfTime(weight)}`,
  asCount: ({ seconds }, value, comparison) => {
    if (seconds === null || seconds === 60) return null;
    return `${wholeFor((value * seconds) / 60, comparison)} words correct in ${lengthOfTime(seconds)}`;
  },
  weightNoun: () => ({ one: 'second', many: 'seconds' }),
  axis: () => ({ max: null, unit: '', change: 'words correct per minute' }),
  discreet: (definition) => definition,
  defaultCriterion: () => usualCriterion('atLeast', 90),
  meaning: ({ passages }) => [passages === 'median'],
  table: {
    columns: () => [
      { key: 'words', label: 'Words', example: '92' },
      { key: 'errors', label: 'Errors', example: '4' },
      { key: 'seconds', label: 'Time', example: '1:00' },
    ],
    read: ({ seconds }, cells, take) => ({
      words: take('words', numberCell) ?? undefined,
      errors: take('errors', numberCell) ?? undefined,
      seconds: cells.seconds ? take('seconds', lengthCell) : (seconds ?? undefined),
    }),
    columnOf: (_, path) => String(path[0] ?? 'words'),
    one: (_, text, { outOf }) => {
      const both = /^(\d+)\s*(?:[-−/,;])\s*(\d+)$/.exec(text);
      if (!both && outOf === '') return { ok: false, message: 'Words read and errors, such as 92/4.' };
      return { ok: true, value: { words: both?.[1] ?? text, errors: both?.[2] ?? outOf } };
    },
  },
  agreement: (_, a, b) => {
    const correct = ({ words, errors }: OralReadingData) => words - errors;
    return totalAgreement(correct(a), correct(b), 'words correct');
  },
  withClock: (_, data, seconds) => data && { ...data, seconds: Math.max(1, Math.round(seconds)) },
};
