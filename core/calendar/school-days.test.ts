import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from './iso-date';
import { countSchoolDays, isSchoolDay, schoolDays, schoolDaysBetween, schoolDaysSince } from './school-days';
import { schoolYearStart } from './school-year';

const calendar = {
  weekdays: [1, 2, 3, 4, 5],
  closures: [{ first: '2026-11-26', last: '2026-11-27' }],
};

describe('school days', () => {
  it('leaves weekends and closures out', () => {
    expect(schoolDays('2026-11-24', '2026-12-01', calendar)).toEqual([
      '2026-11-24',
      '2026-11-25',
      '2026-11-30',
      '2026-12-01',
    ]);
    expect(isSchoolDay('2026-11-26', calendar)).toBe(false);
    expect(isSchoolDay('2026-11-28', calendar)).toBe(false);
  });

  it('counts neither end when it counts between', () => {
    expect(schoolDaysBetween('2026-11-23', '2026-11-25', calendar)).toBe(1);
    expect(schoolDaysBetween('2026-11-23', '2026-11-24', calendar)).toBe(0);
    expect(schoolDaysBetween('2026-11-25', '2026-11-30', calendar)).toBe(0);
  });

  it('holds none when the end lies before the beginning', () => {
    expect(schoolDays('2026-11-25', '2026-11-24', calendar)).toEqual([]);
  });
});

describe('counting school days', () => {
  const day = fc.integer({ min: 0, max: 1500 }).map((n) => addDays('2024-08-01', n));
  const stretch = fc
    .tuple(day, fc.integer({ min: 0, max: 40 }))
    .map(([first, n]) => ({ first, last: addDays(first, n) }));
  const anyCalendar = fc.record({
    weekdays: fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
    // Overlapping, touching and out of order, as people type them.
    closures: fc.array(stretch, { maxLength: 8 }),
  });

  it('gives as many as the list has, whatever the week and the closures are', () => {
    fc.assert(
      fc.property(anyCalendar, day, day, (any, first, last) => {
        expect(countSchoolDays(first, last, any)).toBe(schoolDays(first, last, any).length);
        expect(schoolDaysSince(first, last, any)).toBe(
          schoolDays(first, last, any).filter((one) => one > first).length,
        );
        const between = schoolDays(addDays(first, 1), addDays(last, -1), any).length;
        expect(schoolDaysBetween(first, last, any)).toBe(between);
      }),
      { numRuns: 300 },
    );
  });

  it('begins a school year in August', () => {
    expect(['2026-07-31', '2026-08-01', '2027-01-01'].map(schoolYearStart)).toEqual([
      '2025-08-01',
      '2026-08-01',
      '2026-08-01',
    ]);
  });
});
