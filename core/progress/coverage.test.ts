import { describe, expect, it } from 'vitest';
import { countsByPerson, countsByWeek, lastWeeks, schoolDaysInWeek, silenceOf } from './coverage';
import { isDue } from './due';

// In 2026 the fourth Thursday of November is the 26th.
const calendar = { weekdays: [1, 2, 3, 4, 5], closures: [{ first: '2026-11-25', last: '2026-11-27' }] };
const today = '2026-11-24';
const goal = { lastOn: '2026-11-20', startsOn: '2026-11-16', plannedGap: null };

describe('coverage', () => {
  it('looks at weeks from Monday, over the turn of a year too', () => {
    expect(lastWeeks(today, 3)).toEqual(['2026-11-09', '2026-11-16', '2026-11-23']);
    expect(lastWeeks('2027-01-03', 2)).toEqual(['2026-12-21', '2026-12-28']);
    expect(schoolDaysInWeek('2026-11-23', calendar)).toBe(2);
  });

  it('counts the school days in which nothing was written down', () => {
    expect(silenceOf(goal, { calendar, today })).toEqual({ lastOn: '2026-11-20', schoolDays: 2, isLong: false });
    expect(silenceOf({ ...goal, plannedGap: 2 }, { calendar, today }).isLong).toBe(true);
    expect(silenceOf({ ...goal, lastOn: null }, { calendar, today })).toMatchObject({ schoolDays: 7, isLong: true });
    // One that began today is not late; a new one is when its first due day has passed.
    const began = (startsOn: string, plannedGap: number | null = null) =>
      silenceOf({ lastOn: null, startsOn, plannedGap }, { calendar, today }).isLong;
    expect([began(today), began(today, 1), began('2026-11-18'), began('2026-11-17')]).toEqual([
      false,
      false,
      false,
      true,
    ]);
    const due = (startsOn: string, plannedGap: number | null) =>
      isDue({ lastOn: null, startsOn, plannedGap }, { calendar, today });
    expect([due(today, 1), due(today, null), due('2026-11-18', null), due('2026-11-19', null)]).toEqual([
      true,
      false,
      true,
      false,
    ]);
    expect(silenceOf({ ...goal, lastOn: '2026-11-24' }, { calendar, today: '2026-11-27' }).schoolDays).toBe(0);
  });

  it('is 0 for a week without an entry', () => {
    const counts = [
      { week: '2026-11-16', n: 2 },
      { week: '2026-11-16', n: 1 },
      { week: '2026-09-07', n: 9 },
    ];
    expect(countsByWeek(counts, lastWeeks(today, 3))).toEqual([0, 3, 0]);
  });

  it('names who did most first', () => {
    const made = (observerName: string, n: number) => ({ observerId: observerName, observerName, n });
    const people = countsByPerson([made('Ada', 2), made('Ben', 4), made('Ada', 3)]);
    expect(people.map(({ name, own }) => [name, own.length])).toEqual([
      ['Ada', 2],
      ['Ben', 1],
    ]);
  });
});
