import { describe, expect, it } from 'vitest';
import { accuracyOf, oralReadingDefinition } from '~/core/measures/oral-reading/oral-reading';
import { message, pooled, reading, score, sentence } from '~/tests/examples/measures';

describe('oral reading', () => {
  it('is words correct per minute: (words − errors) · 60 / seconds; two readings pool their words and seconds', () => {
    expect(score(reading, { words: 92, errors: 4, seconds: 60 })).toEqual({ value: 88, amount: 88, weight: 60 });
    expect(score(reading, { words: 50, errors: 5, seconds: 30 })).toMatchObject({ value: 90 });
    expect(pooled(reading, { words: 92, errors: 4, seconds: 60 }, { words: 50, errors: 5, seconds: 30 })).toMatchObject(
      { value: (133 * 60) / 90 },
    );
    expect(sentence(reading, { words: 92, errors: 4, seconds: 60 })).toBe(
      '92 words in 1 min, 4 errors: 88 words correct per minute. 96% of words correct: a good text for practice with help.',
    );
    expect(message(reading, { words: 3, errors: 4, seconds: 60 })).toBe('There are more errors than words read.');
  });

  it('puts the accuracy into bands: 97 and more, 90 to 96, under 90 (common practice)', () => {
    const band = (errors: number) => accuracyOf({ words: 100, errors })?.band;
    expect([3, 4, 10, 11].map(band)).toEqual(['independent', 'instructional', 'instructional', 'hard']);
    expect(accuracyOf({ words: 0, errors: 0 })).toBeNull();
    expect(sentence(reading, { words: 0, errors: 0, seconds: 60 })).toBe(
      '0 words in 1 min, no errors: 0 words correct per minute.',
    );
  });

  it('takes several passages of a day together, or the one in the middle (median of three: Shinn 1989, from memory)', () => {
    const passages = [
      { words: 60, errors: 0, seconds: 60 },
      { words: 90, errors: 2, seconds: 60 },
      { words: 70, errors: 5, seconds: 60 },
    ] as const;
    const median = oralReadingDefinition.parse({ kind: 'oralReading', passages: 'median' });
    // 60, 88 and 65 words correct per minute.
    expect(pooled(median, ...passages)).toMatchObject({ value: 65, amount: 65, weight: 60 });
    expect(pooled(reading, ...passages)).toMatchObject({ value: 71, amount: 213, weight: 180 });
    expect(pooled(median, passages[0], passages[1])).toMatchObject({ value: 60 });
    expect(pooled(median, passages[1])).toMatchObject({ value: 88 });
  });
});
