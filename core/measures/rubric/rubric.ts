import { z } from 'zod';
import { defined } from '../../defined';
import { largest, mean, smallest } from '../../statistics/spread';
import { figure, percent } from '../../words/counting';
import { commonAgreement } from '../agreement/pair';
import { numberCell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import type { MeasureKind } from '../measure-kind';
import { filled } from '../measure-table';
import { hasDistinctKeys, named, oneOf, unnamed } from '../named';
import { type BreakdownLine, type Score, wholeFor } from '../score';

const rubricLevel = z.object({
  points: z.number().min(0).max(100),
  /** The words that go with the points: a rating is never shown without them. */
  words: z.string().trim().min(1).max(400),
});

/** A goal measured by a rubric: criteria, each with its own levels in words, from the lowest to the highest. */
export const rubricDefinition = z.object({
  kind: z.literal('rubric'),
  criteria: z
    .array(
      named.extend({
        levels: z
          .array(rubricLevel)
          .min(2)
          .max(10)
          .refine((levels) => levels.every(({ points }, i) => i === 0 || points > (levels[i - 1]?.points ?? 0)), {
            error: 'Each level needs more points than the one before.',
          }),
        /** A mark for the whole, on a scale of its own: it stands beside the criteria and is in no figure. */
        isOverall: z.boolean().optional(),
      }),
    )
    .min(1)
    .max(20)
    .refine(hasDistinctKeys, { error: 'Two criteria have the same key.' })
    .refine((criteria) => criteria.some(({ isOverall }) => !isOverall), {
      error: 'At least one criterion has to count: overall marks stand beside.',
    }),
  /** What the value is: the mean of the criteria, their sum, or the percentage of the possible points. */
  of: z.enum(['mean', 'sum', 'percent']).default('mean'),
});
export type RubricDefinition = z.infer<typeof rubricDefinition>;

/**
 * A level in points for each criterion rated; `rater` where several people rated the same work sample. What students and peers gave stands
 * beside it: only the staff’s ratings make the figure.
 */
export type RubricData = {
  ratings: { criterion: string; points: number; rater: string | null; isBeside?: boolean | undefined }[];
  /** What raters said besides, each in their own words. */
  remarks?: { rater: string; text: string }[] | undefined;
};

function rubricData({ criteria, of }: RubricDefinition): z.ZodType<RubricData> {
  return z
    .object({
      ratings: z
        .array(
          z.object({
            criterion: oneOf(criteria, 'This is not one of the rubric’s criteria.'),
            points: z.number({ error: 'Choose a level.' }),
            rater: z.string().trim().min(1).max(120).nullable(),
            isBeside: z.boolean().optional(),
          }),
        )
        .min(1, { error: 'Rate at least one criterion, or say why there is no score.' })
        .max(400),
      remarks: z
        .array(z.object({ rater: z.string().trim().min(1).max(120), text: z.string().trim().min(1).max(1000) }))
        .max(60)
        .optional(),
    })
    .superRefine(({ ratings }, context) => {
      const refuse = (message: string) =>
        context.addIssue({ code: 'custom', message, path: ['ratings'], input: ratings });
      const seen = new Set<string>();
      for (const { criterion, points, rater } of ratings) {
        const { label, levels } = defined(criteria.find(({ key }) => key === criterion));
        if (!levels.some((level) => level.points === points)) refuse(`“${label}” has no level of ${points}.`);
        const who = JSON.stringify([criterion, rater]);
        if (seen.has(who)) refuse(`“${label}” is rated twice by the same person.`);
        seen.add(who);
      }
      const isOverall = new Map(criteria.map((one) => [one.key, one.isOverall]));
      if (ratings.every(({ criterion }) => isOverall.get(criterion)))
        refuse('Rate at least one criterion that counts: an overall mark stands beside.');
      if (of === 'mean') return;
      const missing = criteria.filter(
        ({ key, isOverall }) =>
          !isOverall && !ratings.some(({ criterion, isBeside }) => criterion === key && !isBeside),
      );
      if (missing.length > 0) refuse(`A sum needs every criterion; “${missing[0]?.label}” is not rated.`);
    });
}

/** A criterion’s name; of a mark for the whole, said to be one. */
export const criterionName = ({
  label,
  isOverall,
}: Pick<RubricDefinition['criteria'][number], 'label' | 'isOverall'>): string =>
  isOverall ? `${label} (overall)` : label;

const mostPoints = ({ levels }: RubricDefinition['criteria'][number]) => levels.at(-1)?.points ?? 0;
/** The criteria that make the figure: overall marks do not. */
const counting = ({ criteria }: RubricDefinition) => criteria.filter(({ isOverall }) => !isOverall);
const possible = (definition: RubricDefinition) => counting(definition).reduce((sum, one) => sum + mostPoints(one), 0);

/** The mean points of each criterion that counts and that staff rated. */
function byCriterion(definition: RubricDefinition, ratings: RubricData['ratings']) {
  return counting(definition).flatMap((criterion) => {
    const points = ratings
      .filter((rating) => rating.criterion === criterion.key && !rating.isBeside)
      .map((rating) => rating.points);
    return points.length === 0 ? [] : [{ criterion, points: mean(points), most: mostPoints(criterion) }];
  });
}

/**
 * The mean over the criteria, their sum, or the percentage of the possible points. Several ratings of one criterion (by
 * several people, or on one day) are averaged first, so that each criterion weighs the same. Only the staff’s count, and no overall mark.
 *
 * @returns amount the points, weight the criteria rated
 */
export function scoreRubric(definition: RubricDefinition, { ratings }: RubricData): Score {
  const rated = byCriterion(definition, ratings);
  if (rated.length === 0) return { value: null, reason: 'noOpportunity' };
  const amount = rated.reduce((sum, { points }) => sum + points, 0);
  const most = rated.reduce((sum, one) => sum + one.most, 0);
  const value =
    definition.of === 'mean' ? amount / rated.length : definition.of === 'sum' ? amount : (100 * amount) / most;
  return { value, amount, weight: rated.length };
}

const wordsOf = ({ levels }: RubricDefinition['criteria'][number], points: number) =>
  levels.find((level) => level.points === points)?.words;

function rubricLines(definition: RubricDefinition, { ratings }: RubricData): BreakdownLine[] {
  return definition.criteria.map((criterion) => {
    const { key } = criterion;
    const of = ratings.filter((rating) => rating.criterion === key);
    const own = of.filter(({ isBeside }) => !isBeside);
    const said = of.map(({ points, rater }) => {
      const words = wordsOf(criterion, points);
      return `${figure(points)}${words ? `, “${words}”` : ''}${rater ? ` (${rater})` : ''}`;
    });
    return {
      key,
      label: criterionName(criterion),
      value: own.length === 0 ? null : mean(own.map(({ points }) => points)),
      said: said.join('; ') || 'not rated',
    };
  });
}

/** @example “Average 2.5 out of 4 points (63%). Ideas: 3, “clear and complete”. Order: 2, “mostly in order”.” */
export function rubricSentence(definition: RubricDefinition, data: RubricData): string {
  const rated = byCriterion(definition, data.ratings);
  if (rated.length === 0) return 'Nothing was rated.';
  const points = rated.reduce((sum, one) => sum + one.points, 0);
  const most = rated.reduce((sum, one) => sum + one.most, 0);
  const share = percent((100 * points) / most);
  const head =
    definition.of === 'mean' && rated.length > 1
      ? `Average ${figure(points / rated.length)} out of ${figure(most / rated.length)} points (${share}).`
      : `${figure(points)} out of ${figure(most)} points (${share}).`;
  const lines = rubricLines(definition, data).filter(({ value }) => value !== null);
  // A level’s own words may end with a period: one is enough.
  return [head, ...lines.map(({ label, said }) => `${label}: ${said}${said.endsWith('.”') ? '' : '.'}`)].join(' ');
}

export interface RaterSummary {
  rater: string | null;
  /** Points by criterion, in the rubric's order; null where this person did not rate it. */
  points: (number | null)[];
  value: number;
}

/**
 * The same piece of work as each rater saw it, with how far they lie apart.
 *
 * @returns the raters in the order of their first rating; for each criterion the lowest and highest points given
 */
export function ratersSideBySide(definition: RubricDefinition, { ratings }: RubricData) {
  const raters = [...new Set(ratings.map(({ rater }) => rater))];
  const summaries = raters.flatMap((rater): RaterSummary[] => {
    const own = ratings.filter((rating) => rating.rater === rater);
    const { value } = scoreRubric(definition, { ratings: own.map((rating) => ({ ...rating, isBeside: false })) });
    const points = definition.criteria.map(({ key }) => own.find(({ criterion }) => criterion === key)?.points ?? null);
    return value === null ? [] : [{ rater, points, value }];
  });
  const spread = definition.criteria.map(({ key, label }) => {
    const points = ratings.filter(({ criterion }) => criterion === key).map((rating) => rating.points);
    const low = points.length === 0 ? null : smallest(points);
    const high = points.length === 0 ? null : largest(points);
    return { key, label, low, high };
  });
  return { raters: summaries, spread };
}

export const rubric: MeasureKind<RubricDefinition, RubricData> = {
  question: 'How well',
  term: 'rubric',
  example: '3 of 4 points: “measures twice before cutting”',
  beginning: rubricDefinition.parse({
    kind: 'rubric',
    criteria: [
      {
        key: 'criterion1',
        label: 'The work',
        levels: [
          { points: 1, words: 'Begun' },
          { points: 2, words: 'With help' },
          { points: 3, words: 'Nearly alone' },
          { points: 4, words: 'Alone and with care' },
        ],
      },
    ],
  }),
  holds: (data): data is RubricData => 'ratings' in data,
  data: rubricData,
  pool: (_, sessions) => ({ ratings: sessions.flatMap((session) => session.ratings) }),
  accumulates: false,
  isShare: false,
  score: scoreRubric,
  breakdown: rubricLines,
  sentence: rubricSentence,
  said: ({ of }, value) => (of === 'percent' ? percent(value) : figure(value)),
  basis: (definition, { amount, weight }) =>
    weight === counting(definition).length
      ? `${figure(amount)} of ${figure(possible(definition))} points`
      : `${figure(amount)} points on ${weight} of ${counting(definition).length}`,
  asCount: (definition, value, comparison) => {
    const { of } = definition;
    const { length } = counting(definition);
    if (of === 'sum' || (of === 'mean' && length === 1)) return null;
    const points = of === 'mean' ? value * length : (value * possible(definition)) / 100;
    return `${wholeFor(points, comparison)} of ${figure(possible(definition))} points`;
  },
  weightNoun: () => ({ one: 'criterion', many: 'criteria' }),
  axis: (definition) => {
    if (definition.of === 'percent') return { max: 100, unit: '%', change: 'points' };
    const most = counting(definition).map(mostPoints);
    const max = definition.of === 'sum' ? possible(definition) : largest(most);
    return { max, unit: '', change: 'points' };
  },
  discreet: (definition) => ({
    ...definition,
    criteria: unnamed(definition.criteria, 'Criterion').map((criterion) => ({
      ...criterion,
      levels: criterion.levels.map(({ points }, i) => ({ points, words: `level ${i + 1}` })),
    })),
  }),
  defaultCriterion: (definition) => {
    if (definition.of === 'percent') return usualCriterion('atLeast', 80);
    const share = definition.of === 'sum' ? possible(definition) : possible(definition) / counting(definition).length;
    return usualCriterion('atLeast', Math.round(0.75 * share));
  },
  meaning: (definition) => [
    counting(definition).map(({ key, levels }) => [key, levels.map(({ points }) => points)]),
    definition.of,
  ],
  table: {
    columns: ({ criteria }) =>
      criteria.map(({ key, label, levels }) => ({
        key,
        label,
        example: `${levels[0]?.points} to ${levels.at(-1)?.points}`,
      })),
    read: ({ criteria }, cells, take) => ({
      ratings: filled(criteria, cells, ({ key, levels }) => {
        const points = take(key, (text) => {
          const read = numberCell(text);
          if (!read.ok || levels.some((level) => level.points === read.value)) return read;
          return { ok: false, message: `One of: ${levels.map((level) => level.points).join(', ')}.` };
        });
        return points === undefined || points === null ? undefined : { criterion: key, points, rater: null };
      }),
    }),
    one: ({ criteria }, text) => {
      const [only, ...others] = criteria;
      if (!only || others.length > 0)
        return { ok: false, message: 'A column for each criterion: one number does not say which.' };
      return { ok: true, value: { [only.key]: text.replace(/\s*\/\s*\d+$/, '') } };
    },
  },
  agreement: (_, a, b) => {
    const points = ({ ratings }: RubricData) => ratings.map((rating) => [rating.criterion, rating.points] as const);
    return commonAgreement(points(a), points(b), { one: 'criterion', many: 'criteria' });
  },
};
