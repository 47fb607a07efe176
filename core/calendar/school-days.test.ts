import { describe, expect, it } from 'vitest';
import { isSchoolDay, schoolDays, schoolDaysBetween } from './school-days';

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
