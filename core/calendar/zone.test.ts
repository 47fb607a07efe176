import { TZDate } from '@date-fns/tz';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { instantAt, minutesBetween, wallTime } from './zone';

const NEW_YORK = 'America/New_York';

describe('the clock on the school’s wall', () => {
  it('shows the school’s own time, over midnight and over both clock changes', () => {
    expect(wallTime(new Date('2026-11-24T04:59:00Z'), NEW_YORK)).toEqual({ on: '2026-11-23', time: '23:59' });
    // The clocks went back on 1 November 2026 at 2 in the morning: half past one came twice (tz database).
    expect(wallTime(new Date('2026-11-01T05:30:00Z'), NEW_YORK).time).toBe('01:30');
    expect(wallTime(new Date('2026-11-01T06:30:00Z'), NEW_YORK).time).toBe('01:30');
    expect(wallTime(new Date('2026-03-08T06:59:00Z'), NEW_YORK).time).toBe('01:59');
    expect(wallTime(new Date('2026-03-08T07:00:00Z'), NEW_YORK).time).toBe('03:00');
  });

  it('tells the instant of a time: the first of two, the one an hour on of none (tz database)', () => {
    const at = (on: string, time: string) => instantAt({ on, time }, NEW_YORK).toISOString();
    expect(at('2026-11-18', '09:30')).toBe('2026-11-18T14:30:00.000Z');
    expect(at('2026-11-01', '01:30')).toBe('2026-11-01T05:30:00.000Z');
    expect(at('2026-03-08', '02:30')).toBe('2026-03-08T07:30:00.000Z');
  });

  it('knows zones that are not whole hours off, and how long a night with a clock change is', () => {
    expect(instantAt({ on: '2026-06-01', time: '12:00' }, 'Asia/Kathmandu').toISOString()).toBe(
      '2026-06-01T06:15:00.000Z',
    );
    const night = (from: string, to: string) =>
      minutesBetween({ on: from, time: '20:00' }, { on: to, time: '08:00' }, NEW_YORK);
    expect([
      night('2026-03-07', '2026-03-08'),
      night('2026-06-01', '2026-06-02'),
      night('2026-10-31', '2026-11-01'),
    ]).toEqual([11 * 60, 12 * 60, 13 * 60]);
  });

  it('comes back to every minute that there is, as Intl shows it', () => {
    const zones = fc.constantFrom(
      NEW_YORK,
      'America/Los_Angeles',
      'Europe/Berlin',
      'Australia/Lord_Howe',
      'Antarctica/Troll',
      'UTC',
    );
    const minutes = fc.integer({ min: 28_400_000, max: 30_500_000 });
    fc.assert(
      fc.property(zones, minutes, (zone, minute) => {
        const instant = new Date(minute * 60_000);
        const wall = wallTime(instant, zone);
        const shown = new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' });
        expect(`${wall.on} ${wall.time}`).toBe(shown.format(instant));
        expect(wallTime(instantAt(wall, zone), zone)).toEqual(wall);
        expect(new TZDate(instantAt(wall, zone), zone).getTime()).toBeLessThanOrEqual(instant.getTime());
      }),
    );
  });
});
