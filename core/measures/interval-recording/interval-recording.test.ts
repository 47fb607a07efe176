import { describe, expect, it } from 'vitest';
import { methodWords } from '~/core/measures/interval-recording/interval-recording';
import { asCount, intervals, message, score, sentence } from '~/tests/examples/measures';

describe('interval recording', () => {
  it('is the share of the intervals that could be scored: a missed one is not a no', () => {
    const data = { intervals: [true, true, false, null, false, null] };
    expect(score(intervals, data)).toEqual({ value: 50, amount: 2, weight: 4 });
    expect(sentence(intervals, data)).toBe('Seen during 2 of 4 intervals of 10 s (50%). 2 intervals were skipped.');
    expect(asCount(intervals, 80)).toBe('24 of 30');
    expect(message(intervals, { intervals: [null, null] })).toContain('Every interval was missed');
    expect(score(intervals, { intervals: [null] })).toEqual({ value: null, reason: 'nothingScored' });
  });

  it('says what each method does to the estimate (Cooper, Heron & Heward)', () => {
    expect(methodWords.partial.caution).toContain('overestimate');
    expect(methodWords.whole.caution).toContain('underestimate');
  });
});
