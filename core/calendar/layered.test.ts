import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { layered } from './layered';
import { hoursByLocation, timetableDefinition } from './timetable';
import { isSkipped, secondsUntil } from './zone';

const block = (part: string, from: string, to: string, weekday = 1) => ({ weekday, part, from, to, location: null });
const said = (blocks: ReturnType<typeof layered>) => blocks.map(({ part, from, to }) => `${part} ${from}–${to}`);

describe('a timetable of several', () => {
  it('keeps what stands first, and of the others what is left', () => {
    const own = [block('Speech', '09:30', '10:00')];
    const group = [block('Workshop', '09:00', '11:00')];
    const school = [block('Lessons', '08:00', '12:00'), block('Lessons', '09:00', '10:00', 2)];
    expect(said(layered([own, group, school]))).toEqual([
      'Lessons 08:00–09:00',
      'Workshop 09:00–09:30',
      'Speech 09:30–10:00',
      'Workshop 10:00–11:00',
      'Lessons 11:00–12:00',
      'Lessons 09:00–10:00',
    ]);
    expect(layered([own, [block('Covered', '09:40', '09:50')]])).toHaveLength(1);
  });

  it('has no two parts over each other, whatever there was, and no time that nobody had', () => {
    const time = (quarter: number) =>
      `${String(8 + Math.floor(quarter / 4)).padStart(2, '0')}:${String(15 * (quarter % 4)).padStart(2, '0')}`;
    const any = fc
      .tuple(
        fc.constantFrom('A', 'B', 'C'),
        fc.integer({ min: 0, max: 20 }),
        fc.integer({ min: 1, max: 8 }),
        fc.constantFrom(1, 2),
      )
      .map(([part, from, length, weekday]) => block(part, time(from), time(from + length), weekday));
    fc.assert(
      fc.property(fc.array(any, { maxLength: 6 }), fc.array(any, { maxLength: 6 }), (first, second) => {
        const week = layered([first, second]);
        expect(timetableDefinition.safeParse(week).success).toBe(true);
        for (let quarter = 0; quarter < 28; quarter++) {
          const at = time(quarter);
          const holds = (list: typeof week) =>
            list.some(({ weekday, from, to }) => weekday === 1 && from <= at && at < to);
          expect(holds(week)).toBe(holds([...first, ...second]));
        }
      }),
    );
  });

  it('gives each place its hours', () => {
    const week = timetableDefinition.parse([
      { weekday: 1, part: 'Workshop', from: '09:00', to: '10:30', location: 'Shop' },
      { weekday: 2, part: 'Lessons', from: '09:00', to: '10:00', location: null },
    ]);
    expect(hoursByLocation(week, ['2026-09-07', '2026-09-08', '2026-09-14'])).toEqual([{ location: 'Shop', hours: 3 }]);
  });
});

describe('the hour of the clock change (tz database, New York 2026)', () => {
  const zone = 'America/New_York';

  it('knows the times that there never were', () => {
    expect(isSkipped({ on: '2026-03-08', time: '02:30' }, zone)).toBe(true);
    expect(['01:59', '03:00'].map((time) => isSkipped({ on: '2026-03-08', time }, zone))).toEqual([false, false]);
    expect(isSkipped({ on: '2026-11-01', time: '01:30' }, zone)).toBe(false);
  });

  it('counts the seconds that passed, over either change, and refuses an end before the start', () => {
    const until = (on: string, time: string, end: string) => secondsUntil({ on, time }, end, zone);
    expect(until('2026-11-24', '09:30', '09:34')).toBe(240);
    expect(until('2026-11-24', '09:30', '09:30')).toBe(0);
    expect(until('2026-11-24', '09:30', '09:29')).toBeNull();
    expect(until('2026-03-08', '01:50', '03:10')).toBe(20 * 60);
    // 1:50 and then 1:10: the clocks went back in between.
    expect(until('2026-11-01', '01:50', '01:10')).toBe(20 * 60);
    expect(until('2026-11-01', '00:50', '00:10')).toBeNull();
    // On Lord Howe Island they go back by half an hour, at 2:00 on 5 April 2026; at Troll in Antarctica by two, at 3:00 on 25 October.
    const elsewhere = (on: string, time: string, end: string, there: string) => secondsUntil({ on, time }, end, there);
    expect(elsewhere('2026-04-05', '01:50', '01:40', 'Australia/Lord_Howe')).toBe(20 * 60);
    expect(elsewhere('2026-04-05', '01:50', '01:10', 'Australia/Lord_Howe')).toBeNull();
    expect(elsewhere('2026-10-25', '02:50', '01:10', 'Antarctica/Troll')).toBe(20 * 60);
    expect(elsewhere('2026-11-01', '01:50', '01:40', zone)).toBe(50 * 60);
  });
});
