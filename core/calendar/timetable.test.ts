import { describe, expect, it } from 'vitest';
import { periodAt, reportingPeriods } from './reporting-periods';
import { schoolDays } from './school-days';
import { blockAt, hoursByCell, hoursOf, timetableDefinition } from './timetable';

const block = (weekday: number, part: string, from: string, to: string) => ({ weekday, part, from, to });
const week = timetableDefinition.parse([
  block(1, 'Workshop', '09:00', '10:30'),
  block(1, 'Snack', '10:30', '10:45'),
  block(1, 'Workshop', '13:00', '14:00'),
  block(3, 'Garden', '09:00', '11:00'),
]);
const messages = (blocks: object[]) =>
  timetableDefinition.safeParse(blocks).error?.issues.map(({ message }) => message);

describe('timetable', () => {
  it('knows the part of the day: with its first minute, without its last', () => {
    const at = (on: string, time: string) => blockAt(week, { on, time })?.part ?? null;
    // 2 March 2026 was a Monday.
    expect(['08:59', '09:00', '10:29', '10:30', '10:45', '13:59'].map((time) => at('2026-03-02', time))).toEqual([
      null,
      'Workshop',
      'Workshop',
      'Snack',
      null,
      'Workshop',
    ]);
    expect(at('2026-03-04', '09:30')).toBe('Garden');
    expect(at('2026-03-03', '09:30')).toBeNull();
  });

  it('gives each part its hours on each weekday, closures left out', () => {
    const calendar = { weekdays: [1, 2, 3, 4, 5], closures: [{ first: '2026-03-09', last: '2026-03-09' }] };
    const days = schoolDays('2026-03-01', '2026-03-18', calendar); // Mondays 2 and 16, Wednesdays 4, 11 and 18
    expect(hoursByCell(week, days)).toEqual([
      { weekday: 1, part: 'Workshop', hours: 5 },
      { weekday: 1, part: 'Snack', hours: 0.5 },
      { weekday: 3, part: 'Garden', hours: 6 },
    ]);
    expect(hoursOf({ from: '09:00', to: '09:50' })).toBeCloseTo(5 / 6, 12);
  });

  it('refuses parts that lie over each other or end before they begin, and lets them touch', () => {
    expect(messages([block(1, 'A', '09:00', '10:00'), block(1, 'B', '10:00', '11:00')])).toBeUndefined();
    expect(messages([block(1, 'B', '09:59', '11:00'), block(1, 'A', '09:00', '10:00')])).toEqual([
      '“B” begins at 09:59, before “A” ends at 10:00.',
    ]);
    expect(messages([block(1, 'A', '09:00', '10:00'), block(2, 'B', '09:30', '11:00')])).toBeUndefined();
    expect(messages([block(1, 'A', '10:00', '10:00')])).toEqual(['A part of the day ends after it begins.']);
  });
});

describe('reporting periods', () => {
  const plan = { startsOn: '2026-09-08', endsOn: '2027-06-11' };
  const ends = [
    { label: 'Second quarter', endsOn: '2027-01-22' },
    { label: 'First quarter', endsOn: '2026-11-06' },
    { label: 'Fourth quarter', endsOn: '2027-06-30' },
    { label: 'Before it all', endsOn: '2026-09-01' },
  ];

  it('follow each other without a gap and stay within the plan', () => {
    expect(reportingPeriods(plan, ends)).toEqual([
      { label: 'First quarter', first: '2026-09-08', last: '2026-11-06' },
      { label: 'Second quarter', first: '2026-11-07', last: '2027-01-22' },
      { label: 'Fourth quarter', first: '2027-01-23', last: '2027-06-11' },
    ]);
  });

  it('hold each day of the plan once', () => {
    const periods = reportingPeriods(plan, ends);
    const labels = ['2026-09-07', '2026-09-08', '2026-11-06', '2026-11-07', '2027-06-11', '2027-06-12'].map(
      (on) => periodAt(periods, on)?.label ?? null,
    );
    expect(labels).toEqual([null, 'First quarter', 'First quarter', 'Second quarter', 'Fourth quarter', null]);
  });
});
