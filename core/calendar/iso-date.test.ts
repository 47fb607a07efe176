import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clockTimeField, isoDateField } from './date-fields';
import { addDays, dayNumber, entryDay, isoDate, longDate, mondayOf, shortDate, weekday } from './iso-date';

describe('calendar dates', () => {
  it('counts days from 1 January 1970', () => {
    expect(dayNumber('1970-01-02')).toBe(1);
    expect(isoDate(1)).toBe('1970-01-02');
    // Computed with GNU date: date -ud 2026-11-24 +%s is 1795478400.
    expect(dayNumber('2026-11-24')).toBe(1795478400 / 86400);
  });

  it('knows leap days and month ends', () => {
    expect(addDays('2024-02-28', 2)).toBe('2024-03-01');
    expect(addDays('2026-02-28', 1)).toBe('2026-03-01');
    expect(addDays('2027-01-01', -1)).toBe('2026-12-31');
  });

  it('takes every date that there is and no other, as Date has them', () => {
    const two = (n: number) => String(n).padStart(2, '0');
    const years = fc.constantFrom(1900, 1999, 2000, 2023, 2024, 2026, 2100);
    fc.assert(
      fc.property(years, fc.integer({ min: 0, max: 13 }), fc.integer({ min: 0, max: 32 }), (year, month, day) => {
        const text = `${year}-${two(month)}-${two(day)}`;
        const time = new Date(Date.UTC(year, month - 1, day));
        if (time.getUTCMonth() !== month - 1 || time.getUTCDate() !== day) {
          expect(() => dayNumber(text)).toThrow(RangeError);
        } else {
          expect(dayNumber(text) * 86_400_000).toBe(time.getTime());
          expect(isoDate(dayNumber(text))).toBe(text);
        }
      }),
      { numRuns: 600 },
    );
    for (const text of ['2026-1-01', '2026/01/01', '20260101', '2026-01-0x', '2026-01-01 ', '', '0026-01-01']) {
      expect(() => dayNumber(text)).toThrow(RangeError);
    }
  });

  it('knows weekdays: 1 January 1970 was a Thursday, 24 November 2026 is a Tuesday', () => {
    expect(weekday('1970-01-01')).toBe(4);
    expect(weekday('2026-11-24')).toBe(2);
    expect(mondayOf('1970-01-01')).toBe('1969-12-29');
    expect(mondayOf('2026-11-23')).toBe('2026-11-23');
  });

  it('goes there and back for any day', () => {
    fc.assert(
      fc.property(fc.integer({ min: -30_000, max: 60_000 }), (day) => {
        expect(dayNumber(isoDate(day))).toBe(day);
        expect(weekday(mondayOf(isoDate(day)))).toBe(1);
      }),
    );
  });

  it('refuses what is no date', () => {
    expect(() => dayNumber('24.11.2026')).toThrow(RangeError);
    expect(isoDateField.safeParse('2026-02-30').success).toBe(false);
    expect(isoDateField.safeParse('2026-02-28').success).toBe(true);
    expect(clockTimeField.safeParse('24:00').success).toBe(false);
    expect(clockTimeField.safeParse('09:05').success).toBe(true);
  });

  it('says dates the way sentences do', () => {
    expect(shortDate('2026-11-18')).toBe('Nov 18');
    expect(longDate('2026-11-18')).toBe('Wed, Nov 18, 2026');
    expect(entryDay('2026-11-18', '2026-11-24')).toBe('Wed, Nov 18');
    expect(entryDay('2025-11-18', '2026-11-24')).toBe('Tue, Nov 18, 2025');
  });

  // Against ICU's formats of American English (Unicode CLDR), as the platform has them.
  it('says any day as the platform does', () => {
    const format = (options: Intl.DateTimeFormatOptions) =>
      new Intl.DateTimeFormat('en-US', { month: 'short', day: 'numeric', timeZone: 'UTC', ...options });
    const [inShort, inFull] = [format({}), format({ weekday: 'short', year: 'numeric' })];
    const shortDay = format({ weekday: 'short' });
    fc.assert(
      fc.property(fc.integer({ min: -30_000, max: 60_000 }), (day) => {
        const date = isoDate(day);
        expect(shortDate(date)).toBe(inShort.format(day * 86_400_000));
        expect(longDate(date)).toBe(inFull.format(day * 86_400_000));
        expect(entryDay(date)).toBe(shortDay.format(day * 86_400_000));
      }),
    );
  });
});
