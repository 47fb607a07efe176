import { describe, expect, it } from 'vitest';
import { asCount } from '../score';
import { breakDownTrials, scoreTrials, trials, trialsDefinition, trialsSentence } from './trials';

const levels = [
  { key: 'independent', label: 'Independent', words: 'alone' },
  { key: 'gesture', label: 'Gesture', words: 'a gesture' },
  { key: 'spoken', label: 'Spoken', words: 'a spoken prompt' },
];
const definition = (changes: object = {}) =>
  trialsDefinition.parse({
    kind: 'trials',
    levels,
    mostSupport: 'gesture',
    planned: 6,
    opportunity: { one: 'ingredient', many: 'ingredients' },
    ...changes,
  });
const counts = (tally: Record<string, number>) => ({
  trials: Object.entries(tally).flatMap(([key, n]) => Array<string>(n).fill(key)),
});

describe('trials', () => {
  it('counts a success at or below the most support that still counts (common practice)', () => {
    const data = counts({ independent: 2, gesture: 1, spoken: 1 });
    expect(scoreTrials(definition(), data)).toEqual({ value: 75, amount: 3, weight: 4 });
    expect(scoreTrials(definition({ mostSupport: 'independent' }), data)).toMatchObject({ value: 50, amount: 2 });
  });

  it('counts no response as an opportunity, a refusal unless the goal says otherwise (common practice)', () => {
    const data = counts({ independent: 2, incorrect: 1, noResponse: 1, refused: 1 });
    expect(scoreTrials(definition(), data)).toMatchObject({ amount: 2, weight: 5, value: 40 });
    expect(scoreTrials(definition({ refusalIsOpportunity: false }), data)).toMatchObject({
      weight: 4,
      value: 50,
    });
  });

  it('pools a day from raw counts: 6 of 10 and 8 of 10 are 14 of 20; 1 of 2 and 8 of 8 are 9 of 10, not 75%', () => {
    const session = ([right, n]: [number, number]) => counts({ independent: right, incorrect: n - right });
    const day = (a: [number, number], b: [number, number]) =>
      scoreTrials(definition(), trials.pool(definition(), [session(a), session(b)]));
    expect(day([6, 10], [8, 10])).toEqual({ value: 70, amount: 14, weight: 20 });
    expect(day([1, 2], [8, 8])).toEqual({ value: 90, amount: 9, weight: 10 });
  });

  it('has no score, and says why, where no opportunity is left: never a zero', () => {
    expect(scoreTrials(definition(), { trials: [] })).toEqual({ value: null, reason: 'noOpportunity' });
    const allRefused = counts({ refused: 3 });
    expect(scoreTrials(definition({ refusalIsOpportunity: false }), allRefused)).toEqual({
      value: null,
      reason: 'refused',
    });
    expect(scoreTrials(definition(), allRefused)).toMatchObject({ value: 0, weight: 3 });
  });

  it('breaks a session down so that its parts add up: 5 alone + 3 verbal + 1 visual + 1 missed = 10 (common practice)', () => {
    const parts = breakDownTrials(definition(), counts({ independent: 5, gesture: 3, spoken: 1, incorrect: 1 }));
    expect(parts.reduce((sum, part) => sum + part.n, 0)).toBe(10);
    expect(parts.reduce((sum, part) => sum + part.share, 0)).toBeCloseTo(100, 9);
    expect(parts.map((part) => part.cumulative)).toEqual([50, 80, 90, null, null, null]);
    expect(parts.filter((part) => part.isSuccess).map((part) => part.key)).toEqual(['independent', 'gesture']);
  });

  it('gives a percentage as a whole number of chances: 75% of four is 3 (common practice)', () => {
    expect(asCount(75, 4, 'atLeast')).toBe(3);
    expect(asCount(80, 6, 'atLeast')).toBe(5);
    expect(asCount(70, 10, 'atLeast')).toBe(7);
    expect(asCount(0, 7, 'atLeast')).toBe(0);
    expect(asCount(20, 6, 'atMost')).toBe(1);
    for (let n = 1; n <= 100; n++) {
      for (let k = 0; k <= n; k++) {
        expect(asCount((100 * k) / n, n, 'atLeast')).toBe(k);
        expect(asCount((100 * k) / n, n, 'atMost')).toBe(k);
      }
    }
  });

  it('says a session in words with its numbers, singular and plural', () => {
    expect(trialsSentence(definition(), counts({ independent: 2, gesture: 1, spoken: 1 }))).toBe(
      '3 of 4 ingredients with a gesture or less help (75%). Alone: 2. With a gesture: 1. With a spoken prompt: 1.',
    );
    expect(trialsSentence(definition({ mostSupport: 'independent' }), counts({ refused: 1 }))).toBe(
      '0 of 1 ingredient alone (0%). Refused: 1.',
    );
  });

  it('never rounds 199 of 200 up to 100%', () => {
    const many = definition({ mostTrials: 100 });
    expect(trialsSentence(many, counts({ independent: 199, incorrect: 1 }))).toContain('99%');
  });

  it('refuses a level that is not the goal’s, too many chances, and none, in words', () => {
    const schema = trials.data(definition({ mostTrials: 5 }));
    const message = (data: object) => schema.safeParse(data).error?.issues[0]?.message;
    expect(message({ trials: ['shouted'] })).toBe('This is not one of the goal’s support levels.');
    expect(message(counts({ independent: 6 }))).toContain('At most 5 ingredients');
    expect(message({ trials: [] })).toContain('Mark at least one ingredient, or say why there is no score.');
    expect(schema.safeParse(counts({ independent: 5 })).success).toBe(true);
    expect(message({ counts: { independent: 2, gesture: 1 }, opportunities: 4 })).toBe(
      'The counts add up to 3, and there were 4 ingredients.',
    );
  });

  it('refuses a definition that contradicts itself', () => {
    expect(() => definition({ mostSupport: 'hands' })).toThrow('must be one of the levels');
    expect(() => definition({ levels: [levels[0], levels[0]] })).toThrow('same key');
    expect(() =>
      definition({ levels: Array.from({ length: 9 }, (_, i) => ({ ...levels[0], key: `l${i}` })) }),
    ).toThrow();
  });
});
