import { describe, expect, it } from 'vitest';
import { comparableWith } from '~/core/goals/same-meaning';
import { measureOf } from '~/core/measures/measure';
import { ratersSideBySide, rubricDefinition } from '~/core/measures/rubric/rubric';
import { asCount, message, rubric, score, sentence } from '~/tests/examples/measures';

describe('rubric', () => {
  const rate = (ideas: number, order: number | null, rater: string | null = null) => ({
    ratings: [
      { criterion: 'ideas', points: ideas, rater },
      ...(order === null ? [] : [{ criterion: 'order', points: order, rater }]),
    ],
  });
  const sum = rubricDefinition.parse({ ...rubric, of: 'sum' });

  it('is the mean, the sum, or the share of the possible; each rating with its words', () => {
    expect(score(rubric, rate(3, 2))).toEqual({ value: 2.5, amount: 5, weight: 2 });
    expect(score(sum, rate(3, 2))).toMatchObject({ value: 5 });
    expect(score(rubricDefinition.parse({ ...rubric, of: 'percent' }), rate(3, 2))).toMatchObject({ value: 62.5 });
    expect(sentence(rubric, rate(3, 2))).toBe(
      'Average 2.5 out of 4 points (63%). Ideas: 3, “Ideas at 3”. Order: 2, “Order at 2”.',
    );
    expect(asCount(rubric, 2.75)).toBe('6 of 8 points');
  });

  it('says the sum of several, or the points of a single one', () => {
    expect(sentence(sum, rate(3, 2))).toMatch(/^5 out of 8 points \(63%\)\./);
    expect(sentence(rubric, rate(3, null))).toBe('3 out of 4 points (75%). Ideas: 3, “Ideas at 3”.');
  });

  it('weighs each criterion the same, however often it was rated', () => {
    // Ideas 4, 4, 1 is 3; with Order 2 the mean is 2.5, where that of all four ratings would be 2.75.
    const several = {
      ratings: [...rate(4, 2, 'A').ratings, ...rate(4, null, 'B').ratings, ...rate(1, null, 'C').ratings],
    };
    expect(score(rubric, several)).toMatchObject({ value: 2.5 });
    const { raters, spread } = ratersSideBySide(rubric, several);
    expect(raters.map(({ rater, value, points }) => [rater, value, points])).toEqual([
      ['A', 3, [4, 2]],
      ['B', 4, [4, null]],
      ['C', 1, [1, null]],
    ]);
    expect(spread.map(({ low, high }) => [low, high])).toEqual([
      [1, 4],
      [2, 2],
    ]);
  });

  it('leaves a criterion that was not rated out of a mean, and refuses it in a sum', () => {
    expect(score(rubric, rate(3, null))).toMatchObject({ value: 3, weight: 1 });
    expect(message(rubric, rate(3, null))).toBeUndefined();
    expect(message(sum, rate(3, null))).toBe('A sum needs every criterion; “Order” is not rated.');
    expect(message(sum, rate(3, 2))).toBeUndefined();
    expect(message(rubric, rate(5, 2))).toBe('“Ideas” has no level of 5.');
    expect(message(rubric, { ratings: [...rate(3, 2).ratings, ...rate(2, null).ratings] })).toBe(
      '“Ideas” is rated twice by the same person.',
    );
  });

  it('has marks for the whole beside its criteria, on scales of their own, in no figure', () => {
    const pride = { key: 'pride', label: 'Pride in it', isOverall: true };
    const levels = [1, 5, 10].map((points) => ({ points, words: `Pride at ${points}` }));
    const marked = rubricDefinition.parse({ ...rubric, criteria: [...rubric.criteria, { ...pride, levels }] });
    const rated = { ratings: [...rate(3, 2).ratings, { criterion: 'pride', points: 10, rater: null }] };
    expect(score(marked, rated)).toEqual(score(rubric, rate(3, 2)));
    expect(asCount(marked, 2.75)).toBe('6 of 8 points');
    expect(measureOf(marked).axis).toEqual(measureOf(rubric).axis);
    expect(measureOf(marked).basis({ amount: 5, weight: 2, value: 2.5 })).toBe('5 of 8 points');
    expect(sentence(marked, rated)).toBe(
      'Average 2.5 out of 4 points (63%). Ideas: 3, “Ideas at 3”. Order: 2, “Order at 2”. Pride in it (overall): 10, “Pride at 10”.',
    );
    // It may be left out of a sum, but is no rating by itself, and a rubric is not made of marks alone.
    const summed = { ...marked, of: 'sum' as const };
    expect(message(summed, rate(3, 2))).toBeUndefined();
    expect(score(summed, rated)).toMatchObject({ value: 5 });
    expect(message(marked, { ratings: rated.ratings.slice(2) })).toMatch(/at least one criterion that counts/);
    expect(rubricDefinition.safeParse({ ...rubric, criteria: [{ ...pride, levels }] }).success).toBe(false);
  });

  it('may be given a mark for the whole later: what was rated before stays comparable', () => {
    const levels = [1, 2].map((points) => ({ points, words: `${points}` }));
    const pride = { key: 'pride', label: 'Pride', isOverall: true, levels };
    expect(comparableWith(rubric)(rubricDefinition.parse({ ...rubric, criteria: [...rubric.criteria, pride] }))).toBe(
      true,
    );
    const counting = { ...pride, isOverall: false };
    expect(
      comparableWith(rubric)(rubricDefinition.parse({ ...rubric, criteria: [...rubric.criteria, counting] })),
    ).toBe(false);
  });
});
