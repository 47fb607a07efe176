import { type RatingInput, ratingInput } from '~/core/entries/ratings/ratings';
import type { RubricDefinition } from '~/core/measures/rubric/rubric';
import { readRatingWords } from './words';

/**
 * A rating as its form sends it.
 *
 * @returns the rating, or the first message that its rater should read
 */
export function readRating(form: FormData, rubric: RubricDefinition): { rating: RatingInput } | { message: string } {
  const points = Object.fromEntries(
    [...form].flatMap(([name, value]) => (name.startsWith('points.') ? [[name.slice('points.'.length), value]] : [])),
  );
  const parsed = ratingInput(rubric).safeParse({ id: form.get('id'), points, words: form.get('words') ?? '' });
  if (parsed.success) return { rating: parsed.data };
  return { message: parsed.error.issues[0]?.message ?? readRatingWords.rateAtLeastOneCriterion };
}
