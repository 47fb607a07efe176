import { describe, expect, it } from 'vitest';
import { beginningOf, type Kind, type MeasureData, measureOf } from '../measure';

const agree = (kind: Kind, a: object, b: object) =>
  measureOf(beginningOf(kind)).agreement(a as MeasureData, b as MeasureData)?.share ?? null;

// Each worked out by hand from the definitions in Cooper, Heron & Heward, Applied Behavior Analysis.
describe('two observers of one session', () => {
  it('trials: each against each; what only one of them noted is a disagreement', () => {
    const a = { trials: ['independent', 'gesture', 'incorrect', 'independent'] };
    expect(agree('trials', a, { trials: ['independent', 'spoken', 'incorrect', 'independent'] })).toBe(3 / 4);
    expect(agree('trials', a, { trials: ['independent', 'gesture', 'incorrect', 'independent', 'spoken'] })).toBe(
      4 / 5,
    );
    // Where only counts are known, at best: 5 of 10 against 5 of 5 share five of ten.
    const ten = { counts: { independent: 5, incorrect: 5 }, opportunities: 10 };
    expect(agree('trials', ten, { counts: { independent: 5 }, opportunities: 5 })).toBe(1 / 2);
    expect(agree('trials', a, { counts: { independent: 2, incorrect: 2 }, opportunities: 4 })).toBe(3 / 4);
  });
  it('counts and lengths: smaller over larger', () => {
    expect(agree('frequency', { count: 8, minutes: 30 }, { count: 10, minutes: 30 })).toBe(0.8);
    // Six in an hour and six in twenty minutes: a third of the rate.
    expect(agree('frequency', { count: 6, minutes: 60 }, { count: 6, minutes: 20 })).toBeCloseTo(1 / 3, 12);
    expect(agree('frequency', { count: 0, minutes: 30 }, { count: 0, minutes: 30 })).toBe(1);
    expect(
      agree('duration', { episodes: [30, 60], sessionSeconds: null }, { episodes: [100], sessionSeconds: null }),
    ).toBe(0.9);
    expect(
      agree(
        'cumulativeTotal',
        { amounts: [{ amount: 1.5, category: null }] },
        { amounts: [{ amount: 2, category: null }] },
      ),
    ).toBe(0.75);
    expect(agree('oralReading', { words: 90, errors: 10, seconds: 60 }, { words: 108, errors: 8, seconds: 60 })).toBe(
      0.8,
    );
  });
  it('is none where one of them is of another kind: the goal came to be measured otherwise between the two', () => {
    expect(agree('frequency', { count: 8, minutes: 30 }, { trials: ['independent'] })).toBeNull();
  });
  it('intervals: those that both scored', () => {
    expect(
      agree('intervalRecording', { intervals: [true, true, null, false] }, { intervals: [true, false, true, false] }),
    ).toBeCloseTo(2 / 3, 12);
    expect(agree('intervalRecording', { intervals: [null] }, { intervals: [true] })).toBeNull();
  });
  it('latency: cue by cue; a response that one of them did not see is no agreement', () => {
    expect(agree('latency', { responses: [10, 8, null] }, { responses: [8, 8, null] })).toBeCloseTo(
      (0.8 + 1 + 1) / 3,
      12,
    );
    expect(agree('latency', { responses: [10] }, { responses: [null] })).toBe(0);
    expect(agree('latency', { responses: [10, 9] }, { responses: [10] })).toBeNull();
  });
  it('items, steps and criteria: of those that either noted', () => {
    const steps = (...outcomes: string[]) => ({
      steps: outcomes.map((outcome, i) => ({ step: `step${i + 1}`, outcome })),
    });
    expect(agree('taskAnalysis', steps('independent', 'gesture'), steps('independent', 'spoken', 'independent'))).toBe(
      1 / 3,
    );
    expect(
      agree(
        'itemCheck',
        { items: [{ item: 'item1', outcome: 'right' }] },
        { items: [{ item: 'item2', outcome: 'right' }] },
      ),
    ).toBeNull();
    const rated = (points: number) => ({ ratings: [{ criterion: 'criterion1', points, rater: null }] });
    expect([agree('rubric', rated(3), rated(3)), agree('rubric', rated(3), rated(4))]).toEqual([1, 0]);
  });
});
