import { describe, expect, it } from 'vitest';
import { latency, message, pooled, score, sentence } from '~/tests/examples/measures';

describe('latency', () => {
  it('is the median over all cues: one without a response took longer than the limit', () => {
    const data = { responses: [4, null, 12, 8, 6, 30] };
    // 4, 6, 8, 12, 30, longer: between 8 and 12.
    expect(score(latency, data)).toEqual({ value: 10, amount: 5, weight: 6 });
    expect(sentence(latency, data)).toBe(
      'Usually began after 10 seconds (6 cues; range 4 to 30). No response to 1 cue.',
    );
    expect(pooled(latency, { responses: [2] }, { responses: [4, 100] })).toMatchObject({ value: 4 });
    expect(sentence(latency, { responses: [9] })).toBe('Began after 9 seconds (1 cue).');
  });

  it('lies beyond the limit where most cues went unanswered, which is not the same as no cue', () => {
    const beyond = { value: 30, amount: 1, weight: 3, isBeyond: true };
    expect(score(latency, { responses: [null, 3, null] })).toEqual(beyond);
    expect(sentence(latency, { responses: [null, 3, null] })).toBe(
      'No response within 30 seconds to 2 of 3 cues. One began after 3 seconds.',
    );
    expect(sentence(latency, { responses: [null] })).toBe('No response within 30 seconds (1 cue).');
    expect(score(latency, { responses: [] })).toEqual({ value: null, reason: 'noOpportunity' });
    expect(message(latency, { responses: [-1] })).toBe('A response cannot come before its cue.');
  });
});
