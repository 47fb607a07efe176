import { z } from 'zod';
import { isoDateField } from '../../calendar/date-fields';
import { defined } from '../../defined';
import { criterionName, type RubricData, type RubricDefinition } from '../../measures/rubric/rubric';
import { largest, mean, smallest } from '../../statistics/spread';
import { figure } from '../../words/counting';

/** Who rates the same work sample. */
export type RaterKind = 'staff' | 'peer' | 'student';

/** What one rater says: points for each criterion rated, and words of their own. */
export interface Rating {
  id: string;
  kind: RaterKind;
  /** Null for those to whom it is not shown; then the kind is said with a number. */
  name: string | null;
  points: Readonly<Record<string, number>>;
  words: string;
}

export interface RatedCriterion {
  key: string;
  label: string;
  /** In the order of the ratings; null where a rater left it out. */
  cells: ({ points: number; words: string } | null)[];
  /** Of the staff who rated it, whose ratings make the score; null while none has. */
  mean: number | null;
  /** From the lowest to the highest. */
  low: number | null;
  high: number | null;
}

/** What raters are called side by side: by name where that is shown, else by their kind, numbered where there are several. */
export function raterNames(ratings: readonly Pick<Rating, 'kind' | 'name'>[]): string[] {
  const seen: Record<RaterKind, number> = { staff: 0, peer: 0, student: 0 };
  const many = (kind: RaterKind) => ratings.filter((rating) => rating.kind === kind && rating.name === null).length > 1;
  const words = { staff: 'Staff', peer: 'Peer', student: 'Student' };
  return ratings.map(({ kind, name }) => {
    if (name !== null) return name;
    seen[kind]++;
    return many(kind) ? `${words[kind]} ${seen[kind]}` : words[kind];
  });
}

/**
 * Ratings of one work sample side by side: for each criterion what every rater said, with the words of the level, the staff’s mean and
 * how far all lie apart. With a handful of raters the range says more than a standard deviation: common practice.
 */
export function sideBySide({ criteria }: RubricDefinition, ratings: readonly Rating[]): RatedCriterion[] {
  return criteria.map((criterion) => {
    const { key, levels } = criterion;
    const label = criterionName(criterion);
    const cells = ratings.map(({ points }) => {
      const given = points[key];
      if (given === undefined) return null;
      return { points: given, words: levels.find((level) => level.points === given)?.words ?? '' };
    });
    const given = cells.flatMap((cell) => (cell ? [cell.points] : []));
    const staff = cells.flatMap((cell, i) => (cell && ratings[i]?.kind === 'staff' ? [cell.points] : []));
    const none = given.length === 0;
    return {
      ...{ key, label, cells },
      mean: staff.length === 0 ? null : mean(staff),
      low: none ? null : smallest(given),
      high: none ? null : largest(given),
    };
  });
}

/** “staff 3.3; all from 2 to 4”, that all agree, or that only one has rated. */
export function spreadWords({ mean: middle, low, high, cells }: RatedCriterion): string {
  if (low === null || high === null) return 'not rated';
  if (cells.filter(Boolean).length === 1) return `${figure(low)}, by one`;
  if (low === high) return `${figure(low)}, all the same`;
  const staff = middle === null ? 'no staff yet' : `staff ${figure(middle)}`;
  return `${staff}; all from ${figure(low)} to ${figure(high)}`;
}

/**
 * The ratings as the data of one entry, with what each rater said in words. Only the staff’s make its figure; the others stand beside. Raters are named by their kind only: an entry is read by
 * many.
 */
export function asEntry(ratings: readonly Rating[]): RubricData {
  const names = raterNames(ratings.map((rating) => ({ ...rating, name: null })));
  const remarks = ratings.flatMap(({ words: text }, i) => (text ? [{ rater: defined(names[i]), text }] : []));
  return {
    ratings: ratings.flatMap(({ points, kind }, i) =>
      Object.entries(points).map(([criterion, given]) => ({
        ...{ criterion, points: given, rater: defined(names[i]) },
        ...(kind === 'staff' ? {} : { isBeside: true }),
      })),
    ),
    ...(remarks.length > 0 && { remarks }),
  };
}

export const workSampleInput = z.object({
  id: z.uuid(),
  title: z
    .string({ error: 'Say what is rated.' })
    .trim()
    .min(1, { error: 'Say what is rated.' })
    .max(120, { error: 'Keep it to 120 characters.' }),
  madeOn: isoDateField,
});
export type WorkSampleInput = z.infer<typeof workSampleInput>;

export const ratingLinkInput = z.object({
  id: z.uuid(),
  kind: z.enum(['peer', 'student']),
  label: z
    .string({ error: 'Say who rates.' })
    .trim()
    .min(1, { error: 'Say who rates.' })
    .max(60, { error: 'Keep it to 60 characters.' }),
});
export type RatingLinkInput = z.infer<typeof ratingLinkInput>;

/** So long a peer’s link can be used, in hours. */
export const RATING_LINK_HOURS = 24;

/**
 * What a rater sends, held against the goal’s rubric.
 *
 * @returns a schema that refuses a criterion or a level that the rubric does not have, and a rating of nothing
 */
export function ratingInput({ criteria }: RubricDefinition) {
  return z.object({
    id: z.uuid(),
    points: z.record(z.string(), z.coerce.number()).superRefine((points, context) => {
      const refuse = (message: string) => context.addIssue({ code: 'custom', message, input: points });
      for (const [key, given] of Object.entries(points)) {
        const criterion = criteria.find((one) => one.key === key);
        if (!criterion?.levels.some((level) => level.points === given)) refuse('Choose a level from the rubric.');
      }
      const rated = criteria.filter(({ key }) => key in points);
      if (rated.every(({ isOverall }) => isOverall)) refuse('Rate at least one criterion.');
    }),
    words: z.string().trim().max(1000, { error: 'Keep it to 1,000 characters.' }).default(''),
  });
}
export type RatingInput = z.infer<ReturnType<typeof ratingInput>>;
