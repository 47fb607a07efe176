import { describe, expect, it } from 'vitest';
import type { RubricDefinition } from '../../measures/rubric/rubric';
import { agreementWords, type StackRater, type StackSample, spreadRaters, stackAgreement, type Turn } from './stack';

const samples = (n: number): StackSample[] =>
  Array.from({ length: n }, (_, i) => ({ id: `s${i}`, studentId: `p${i}` }));
const staff = (n: number): StackRater[] => Array.from({ length: n }, (_, i) => ({ id: `t${i}`, studentId: null }));
const pupils = (n: number): StackRater[] => Array.from({ length: n }, (_, i) => ({ id: `r${i}`, studentId: `p${i}` }));

const loads = (turns: readonly Turn[], raters: readonly StackRater[]) =>
  raters.map(({ id }) => turns.filter(({ raterId }) => raterId === id).length);
const perSample = (turns: readonly Turn[], of: readonly StackSample[]) =>
  of.map(({ id }) => turns.filter(({ sampleId }) => sampleId === id).length);

describe('raters over a stack', () => {
  it.each([
    [30, 0, 30, 3],
    [30, 4, 30, 3],
    [7, 2, 5, 2],
    [12, 5, 0, 2],
    [2, 0, 2, 1],
    [25, 1, 25, 4],
  ])('of %i samples, with %i staff and %i classmates, %i each: even, never their own, never twice', (n, s, p, each) => {
    const [of, by] = [samples(n), [...staff(s), ...pupils(p)]];
    const turns = spreadRaters(of, by, each);
    expect(perSample(turns, of)).toEqual(of.map(() => each));
    expect(new Set(turns.map(({ sampleId, raterId }) => `${sampleId} ${raterId}`)).size).toBe(turns.length);
    for (const { sampleId, raterId } of turns)
      expect(sampleId.slice(1) === raterId.slice(1) && raterId[0] === 'r').toBe(false);
    const load = loads(turns, by);
    expect(Math.max(...load) - Math.min(...load)).toBeLessThanOrEqual(1);
  });

  it('gives a sample fewer where there are not enough, and none of their own', () => {
    expect(spreadRaters(samples(1), pupils(1), 2)).toEqual([]);
    expect(perSample(spreadRaters(samples(3), staff(2), 3), samples(3))).toEqual([2, 2, 2]);
  });

  it('leaves what was rated already where it is, when others are added', () => {
    const of = samples(4);
    const kept: Turn[] = [
      { sampleId: 's0', raterId: 't0' },
      { sampleId: 's1', raterId: 't0' },
    ];
    const turns = spreadRaters(of, staff(2), 1, kept);
    expect(turns).toEqual(expect.arrayContaining(kept));
    expect(loads(turns, staff(2))).toEqual([2, 2]);
  });
});

const rubric = {
  kind: 'rubric',
  criteria: [
    { key: 'line', name: 'Line', levels: [0, 2, 4].map((points) => ({ points, words: `${points}` })) },
    { key: 'edge', name: 'Edge', levels: [1, 2].map((points) => ({ points, words: `${points}` })) },
  ],
} as unknown as RubricDefinition;
const rated = (line?: number, edge?: number) => ({
  points: { ...(line !== undefined && { line }), ...(edge !== undefined && { edge }) },
});

describe('how far raters of a stack agree', () => {
  it('counts pairs of raters of the same sample, by levels and not by points', () => {
    // Worked by hand: pairs 4-4, 4-2, 4-2 of the first, 0-4 of the second: one the same, three within one level.
    const [line, edge] = stackAgreement(rubric, [[rated(4), rated(4), rated(2)], [rated(0), rated(4)], [rated(2, 1)]]);
    expect(line).toMatchObject({ pairs: 4, same: 1 / 4, near: 3 / 4 });
    expect(agreementWords(line!)).toBe('1 of 4 pairs the same (25%), 3 within one level (75%)');
    expect(edge).toMatchObject({ pairs: 0, same: null, near: null, alpha: null });
    // Of four pairs a coefficient would say more than it knows.
    expect(line!.alpha).toBeNull();
    const many = Array.from({ length: 12 }, (_, i) => [rated(i % 2 === 0 ? 0 : 4), rated(i % 2 === 0 ? 0 : 4)]);
    expect(stackAgreement(rubric, many)[0]).toMatchObject({ pairs: 12, same: 1, alpha: 1 });
    expect(agreementWords(edge!)).toBe('no two have rated the same one yet');
  });
});
