import { describe, expect, it } from 'vitest';
import { durationDefinition } from '~/core/measures/duration/duration';
import { duration, message, pooled, score, sentence } from '~/tests/examples/measures';

describe('duration', () => {
  const data = { episodes: [60, 120, 90], sessionSeconds: 1800 };
  const of = (kind: string) => durationDefinition.parse({ kind: 'duration', of: kind });

  it('is the total, the mean of an episode, or the share of the session', () => {
    expect(score(duration, data)).toMatchObject({ value: 4.5, amount: 270 });
    expect(score(of('episode'), data)).toMatchObject({ value: 1.5, weight: 3 });
    expect(score(of('share'), data)).toMatchObject({ value: 15, weight: 1800 });
    expect(pooled(of('episode'), data, { episodes: [30], sessionSeconds: null })).toMatchObject({
      value: 300 / 4 / 60,
    });
    expect(pooled(of('share'), data, { episodes: [], sessionSeconds: 1800 })).toMatchObject({ value: 7.5 });
  });

  it('has a total of 0 without an episode, and no mean', () => {
    const none = { episodes: [], sessionSeconds: 600 };
    expect(score(duration, none)).toMatchObject({ value: 0 });
    expect(score(of('episode'), none)).toEqual({ value: null, reason: 'noOpportunity' });
    expect(score(of('share'), { episodes: [5], sessionSeconds: null })).toMatchObject({ value: null });
    expect(sentence(duration, none)).toBe('No episodes in 10 min.');
  });

  it('says its episodes, singular and plural', () => {
    expect(sentence(duration, { ...data, sessionSeconds: null })).toBe(
      '3 episodes, 4 min 30 s in all. Average 1 min 30 s; longest 2 min.',
    );
    expect(sentence(of('share'), data)).toBe(
      '3 episodes, 4 min 30 s of 30 min in all (15%). Average 1 min 30 s; longest 2 min.',
    );
    expect(sentence(duration, { episodes: [45], sessionSeconds: null })).toBe('1 episode, 45 s.');
  });

  it('refuses episodes longer than their session, and a share without one', () => {
    expect(message(duration, { episodes: [700], sessionSeconds: 600 })).toBe(
      'The episodes add up to 11 min 40 s, longer than the session of 10 min.',
    );
    expect(message(of('share'), { episodes: [7], sessionSeconds: null })).toContain('a share needs it');
  });
});
