import { describe, expect, it } from 'vitest';
import { goalOf, point } from '~/tests/examples/series';
import { addDays } from '../calendar/iso-date';
import { criterionDefinition } from '../measures/criterion-definition';
import { criterionSentence, masteryOf } from './mastery';

const days = (...values: number[]) => values.map((value, i) => point(addDays('2026-09-01', i), value));
const criterion = (changes: object = {}) =>
  criterionDefinition.parse({ comparison: 'atLeast', value: 80, rule: { kind: 'ofLast', k: 3, n: 4 }, ...changes });

describe('criterion', () => {
  it('is met on the first day on which k of the last n hold', () => {
    expect(masteryOf(days(80, 50, 90, 80, 10), criterion(), true)).toMatchObject({ metOn: '2026-09-04' });
    expect(masteryOf(days(80, 50, 90, 50, 80), criterion(), true)).toMatchObject({
      metOn: null,
      passing: 2,
      needed: 3,
    });
  });

  it('does not wait for the fourth when three of three hold', () => {
    expect(masteryOf(days(80, 85, 90), criterion(), true).metOn).toBe('2026-09-03');
  });

  it('asks for an unbroken run where it says in a row', () => {
    const inARow = criterion({ rule: { kind: 'inARow', n: 3 } });
    expect(masteryOf(days(80, 80, 50, 90, 90), inARow, true)).toMatchObject({ metOn: null, passing: 2, needed: 3 });
    expect(masteryOf(days(80, 80, 50, 90, 90, 80), inARow, true).metOn).toBe('2026-09-06');
  });

  it('stays met over single days that fall short, until the last n pooled lie short beyond chance', () => {
    expect(masteryOf(days(80, 80, 80, 60, 90, 70), criterion(), true)).toMatchObject({
      ...{ metOn: '2026-09-03', holding: true, passing: 2, looked: 4 },
    });
    // 26 of 40 (.495 to .779, Wilson): short of 80. With 32 of 40 it holds again.
    const fell = masteryOf(days(80, 80, 80, 50, 50, 50, 50), criterion(), true);
    expect(fell).toMatchObject({ metOn: '2026-09-03', holding: false });
    expect(masteryOf(days(80, 80, 80, 50, 50, 50, 50, 90, 90, 90), criterion(), true).holding).toBe(true);
  });

  it('of figures that are no shares stays met until fewer than k of n pass, twice n days on end', () => {
    const met = [80, 80, 80];
    const short = (n: number) => masteryOf(days(...met, ...Array(n).fill(10)), criterion(), false);
    // From the second short day on the last four hold fewer than three: the eighth such day is the ninth.
    expect(short(8).holding).toBe(true);
    expect(short(9)).toMatchObject({ holding: false });
  });

  it('never looks across a phase line', () => {
    const moved = days(80, 80, 80).map((one, i) => ({ ...one, phase: i === 0 ? 0 : 1 }));
    expect(masteryOf(moved, criterion(), true)).toMatchObject({ metOn: null, passing: 2, looked: 2 });
  });

  it('takes no time beyond the limit for a success', () => {
    const atMost = criterion({ comparison: 'atMost', value: 60, rule: { kind: 'inARow', n: 1 } });
    expect(masteryOf([point('2026-09-01', 30, { isBeyond: true })], atMost, false).metOn).toBeNull();
    expect(masteryOf([point('2026-09-01', 30)], atMost, false).metOn).toBe('2026-09-01');
  });

  it('respects the direction', () => {
    const atMost = criterion({ comparison: 'atMost', value: 2, rule: { kind: 'inARow', n: 2 } });
    expect(masteryOf(days(5, 2, 1), atMost, true).metOn).toBe('2026-09-03');
  });

  it('takes 7 of 10 for 70% whatever the binary fractions say', () => {
    const seventy = criterion({ value: 70, rule: { kind: 'inARow', n: 1 } });
    expect(masteryOf(days((100 * 7) / 10), seventy, true).metOn).toBe('2026-09-01');
  });

  it('passes over days with too few opportunities', () => {
    const points = [point('2026-09-01', 90), point('2026-09-02', 0, { weight: 2 }), point('2026-09-03', 90)];
    const twoInARow = criterion({ rule: { kind: 'inARow', n: 2 }, minimumOpportunities: 5 });
    expect(masteryOf(points, twoInARow, true).metOn).toBe('2026-09-03');
  });

  it('waits until each place and each observer that is asked for passes on its own', () => {
    const twoInARow = { rule: { kind: 'inARow', n: 2 } };
    const all = days(90, 90, 90, 90);
    const [kitchen, garden] = [all.slice(0, 2), all.slice(2)];
    const places = criterion({ ...twoInARow, distinctLocations: 2 });
    expect(masteryOf(all, places, true, { locations: [kitchen, garden], observers: [] }).metOn).toBe('2026-09-04');
    expect(masteryOf(all, places, true, { locations: [kitchen, garden.slice(1)], observers: [] }).metOn).toBeNull();
    const observers = criterion({ ...twoInARow, distinctObservers: 2 });
    expect(masteryOf(all, observers, true, { locations: [], observers: [all] }).metOn).toBeNull();
  });

  it('is a sentence that also says the count', () => {
    expect(criterionSentence(goalOf())).toBe('Goal: 8 of 10 (80%) on 3 of 4 days.');
    const strict = {
      value: 90,
      comparison: 'atLeast',
      rule: { kind: 'inARow', n: 2 },
      minimumOpportunities: 5,
      distinctLocations: 2,
    };
    expect(criterionSentence(goalOf({ criterion: strict, pointPer: 'session' }))).toBe(
      'Goal: 9 of 10 (90%) in 2 sessions in a row, with at least 5 tries a session, in each of 2 locations.',
    );
  });

  it('cannot ask for more points than it looks at', () => {
    expect(() => criterion({ rule: { kind: 'ofLast', k: 5, n: 4 } })).toThrow('more points than it looks at');
  });
});
