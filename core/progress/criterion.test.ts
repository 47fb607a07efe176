import { describe, expect, it } from 'vitest';
import { goalOf, point } from '~/tests/examples/series';
import { addDays } from '../calendar/iso-date';
import { criterionDefinition } from '../measures/criterion-definition';
import { criterionSentence, criterionState } from './criterion';

const days = (...values: number[]) => values.map((value, i) => point(addDays('2026-09-01', i), value));
const criterion = (changes: object = {}) =>
  criterionDefinition.parse({ comparison: 'atLeast', value: 80, rule: { kind: 'ofLast', k: 3, n: 4 }, ...changes });

describe('criterion', () => {
  it('is met on the first day on which k of the last n hold', () => {
    expect(criterionState(days(80, 50, 90, 80, 10), criterion())).toMatchObject({ metOn: '2026-09-04' });
    expect(criterionState(days(80, 50, 90, 50, 80), criterion())).toMatchObject({ metOn: null, passing: 2, needed: 3 });
  });

  it('does not wait for the fourth when three of three hold', () => {
    expect(criterionState(days(80, 85, 90), criterion()).metOn).toBe('2026-09-03');
  });

  it('asks for an unbroken run where it says in a row', () => {
    const inARow = criterion({ rule: { kind: 'inARow', n: 3 } });
    expect(criterionState(days(80, 80, 50, 90, 90), inARow)).toMatchObject({ metOn: null, passing: 2, needed: 3 });
    expect(criterionState(days(80, 80, 50, 90, 90, 80), inARow).metOn).toBe('2026-09-06');
  });

  it('stays met, and lists what fell short later', () => {
    const state = criterionState(days(80, 80, 80, 60, 90, 70), criterion());
    expect(state.metOn).toBe('2026-09-03');
    expect(state.lapses).toEqual(['2026-09-04', '2026-09-06']);
  });

  it('takes nothing for a lapse that lies before the day it was met', () => {
    const twoOfThree = criterion({ rule: { kind: 'ofLast', k: 2, n: 3 } });
    const state = criterionState(days(90, 50, 90, 40), twoOfThree);
    expect(state).toMatchObject({ metOn: '2026-09-03', lapses: ['2026-09-04'] });
  });

  it('respects the direction', () => {
    const atMost = criterion({ comparison: 'atMost', value: 2, rule: { kind: 'inARow', n: 2 } });
    expect(criterionState(days(5, 2, 1), atMost).metOn).toBe('2026-09-03');
  });

  it('takes 7 of 10 for 70% whatever the binary fractions say', () => {
    const seventy = criterion({ value: 70, rule: { kind: 'inARow', n: 1 } });
    expect(criterionState(days((100 * 7) / 10), seventy).metOn).toBe('2026-09-01');
  });

  it('passes over days with too few opportunities', () => {
    const points = [point('2026-09-01', 90), point('2026-09-02', 0, { weight: 2 }), point('2026-09-03', 90)];
    const twoInARow = criterion({ rule: { kind: 'inARow', n: 2 }, minimumOpportunities: 5 });
    expect(criterionState(points, twoInARow).metOn).toBe('2026-09-03');
  });

  it('waits for enough settings and observers among the points that pass', () => {
    const locations = criterion({ rule: { kind: 'inARow', n: 2 }, distinctLocations: 2 });
    expect(criterionState(days(90, 90), locations).metOn).toBeNull();
    const elsewhere = [...days(90, 90), point('2026-09-03', 90, { settings: ['garden'] })];
    expect(criterionState(elsewhere, locations).metOn).toBe('2026-09-03');
    expect(
      criterionState(elsewhere, criterion({ rule: { kind: 'inARow', n: 2 }, distinctObservers: 2 })).metOn,
    ).toBeNull();
  });

  it('is a sentence that also says the count', () => {
    expect(criterionSentence(goalOf())).toBe('At least 80%, that is 8 of 10, in 3 of the last 4 days.');
    const strict = {
      value: 90,
      comparison: 'atLeast',
      rule: { kind: 'inARow', n: 2 },
      minimumOpportunities: 5,
      distinctLocations: 2,
    };
    expect(criterionSentence(goalOf({ criterion: strict, pointPer: 'session' }))).toBe(
      'At least 90%, that is 9 of 10, in 2 sessions in a row, at least 5 tries each, in 2 locations.',
    );
  });

  it('cannot ask for more points than it looks at', () => {
    expect(() => criterion({ rule: { kind: 'ofLast', k: 5, n: 4 } })).toThrow('more points than it looks at');
  });
});
