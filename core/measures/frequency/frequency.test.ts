import { describe, expect, it } from 'vitest';
import { frequencyDefinition } from '~/core/measures/frequency/frequency';
import { asCount, calls, message, pooled, score, sentence } from '~/tests/examples/measures';

describe('frequency', () => {
  it('is a rate: 7 in 30 minutes are 14 an hour; two sessions pool their counts and their minutes', () => {
    expect(score(calls, { count: 7, minutes: 30 })).toEqual({ value: 14, amount: 7, weight: 30 });
    // 10 in 10 and 2 in 50 minutes are 12 an hour, where the mean of 60 and 2.4 would be 31.
    expect(pooled(calls, { count: 10, minutes: 10 }, { count: 2, minutes: 50 })).toMatchObject({ value: 12 });
    expect(sentence(calls, { count: 7, minutes: 30 })).toBe('7 calls in 30 minutes (a rate of 14 per hour).');
    expect(sentence(calls, { count: 1, minutes: 1 })).toBe('1 call in 1 minute (a rate of 60 per hour).');
  });

  it('has none as a count like any other, and refuses a rate without a time', () => {
    expect(score(calls, { count: 0, minutes: 20 })).toMatchObject({ value: 0 });
    expect(sentence(calls, { count: 0, minutes: 20 })).toBe('No calls in 20 minutes.');
    expect(message(calls, { count: 3 })).toBe('Say how many minutes you watched; a rate needs them.');
    expect(message(calls, { count: 3, minutes: 0 })).toContain('more than nothing');
    expect(message(calls, { count: 2.5, minutes: 10 })).toBe('A count is a whole number.');
  });

  it('is the bare count where sessions are equally long: a day is the count of one of them', () => {
    const perSession = frequencyDefinition.parse({ kind: 'frequency', per: 'session', sessionMinutes: 10 });
    expect(pooled(perSession, { count: 3, minutes: 10 }, { count: 5, minutes: 10 })).toMatchObject({ value: 4 });
    expect(message(perSession, { count: 3, minutes: 12 })).toBe('This goal counts sessions of 10 minutes.');
    expect(() => frequencyDefinition.parse({ kind: 'frequency', per: 'session' })).toThrow('equal length');
  });

  it('restates a rate for the goal’s own session: at most 5 an hour are 2 in 30 minutes, at least 5 are 3', () => {
    const halfHour = frequencyDefinition.parse({ kind: 'frequency', per: 'hour', sessionMinutes: 30 });
    expect(asCount(halfHour, 5, 'atMost')).toBe('2 in 30 minutes');
    expect(asCount(halfHour, 5, 'atLeast')).toBe('3 in 30 minutes');
    expect(asCount(calls, 5)).toBeNull();
  });
});
