import { describe, expect, it } from 'vitest';
import { schoolDays } from '../calendar/school-days';
import { exposureUnder } from './exposure';

const days = schoolDays('2026-09-07', '2026-09-18', { weekdays: [1, 2, 3, 4, 5], closures: [] });
const block = (weekday: number, location: string) => ({
  weekday,
  part: location,
  from: '09:00',
  to: '10:00',
  location,
});
const exposure = { days, timetable: [block(1, 'Shop'), block(2, 'Shop'), block(3, 'Kitchen')], watched: [] };

describe('exposure under a filter', () => {
  it('is all of it without one', () => {
    expect(exposureUnder({}, exposure)).toBe(exposure);
  });

  it('at one place is its hours, on the days that have any', () => {
    const { days: left, timetable } = exposureUnder({ location: 'Shop' }, exposure);
    expect(timetable.map(({ weekday }) => weekday)).toEqual([1, 2]);
    expect(left).toEqual(['2026-09-07', '2026-09-08', '2026-09-14', '2026-09-15']);
  });

  it('is not known by person, nor at a place that the timetable does not have', () => {
    expect(exposureUnder({ observer: 'x' }, exposure).days).toEqual([]);
    expect(exposureUnder({ location: 'Garden' }, exposure).days).toEqual([]);
  });
});
