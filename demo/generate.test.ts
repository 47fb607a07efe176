import { describe, expect, it } from 'vitest';
import { addDays } from '~/core/calendar/iso-date';
import { readData } from '~/core/measures/measure';
import { progressOf } from '~/core/progress/progress';
import { type Goal, goalsOf } from '~/server/goals/goals';
import { progressOfGoals } from '~/server/goals/progress';
import { theSchool } from '~/server/school/school';
import { freshDatabase } from '~/tests/database/fresh';
import { generateDemo, schoolYearOf } from './generate';
import { loadDemo } from './load';

const fresh = freshDatabase();
const rowsOf = (on: string, table: string) => generateDemo(on, 'hash').find(([name]) => name === table)?.[1] ?? [];

describe('the demo', () => {
  it('is the same for the same day', () => {
    const on = (day: string) => JSON.stringify(generateDemo(day, 'hash'));
    const [once, again, dayAfter] = [on('2026-11-24'), on('2026-11-24'), on('2026-11-25')];
    expect(once === again).toBe(true);
    expect(once === dayAfter).toBe(false);
  });

  it('is a small school of 14 students, 54 goals of all ten kinds, 8 staff and about 2,700 observations', () => {
    const sizes = Object.fromEntries(generateDemo('2026-11-24', 'hash').map(([table, rows]) => [table, rows.length]));
    expect(sizes).toMatchObject({ students: 14, goals: 54, people: 8, class_groups: 3 });
    expect(sizes.observations).toBeGreaterThan(2200);
    expect(sizes.observations).toBeLessThan(3000);
    const kinds = rowsOf('2026-11-24', 'goals').map((row) => JSON.parse(row.measure as string).kind);
    expect(new Set(kinds).size).toBe(10);
    const atYearsEnd = rowsOf('2027-06-10', 'observations').length;
    expect(atYearsEnd).toBeGreaterThan(2200);
    expect(atYearsEnd).toBeLessThan(4000);
  });

  it('runs from early September of the school year up to the day, and never beyond', () => {
    expect([schoolYearOf('2026-09-01'), schoolYearOf('2027-08-31')]).toEqual([2026, 2026]);
    const dates = rowsOf('2026-11-24', 'observations')
      .map((row) => row.observed_on as string)
      .sort();
    expect(dates[0]).toBe('2026-09-08');
    expect(dates.at(-1)).toBe('2026-11-24');
    expect(rowsOf('2026-09-02', 'observations')).toEqual([]);
    expect(rowsOf('2026-09-02', 'students')).toHaveLength(14);
  });

  it('loads into the real tables and shows every verdict', async () => {
    await loadDemo(fresh.db, new Date('2026-11-24T20:30:00Z'));
    const school = await theSchool(fresh.db);
    const students = await fresh.db('students').pluck('id');
    const goals = await goalsOf(fresh.db, students);
    for (const { goal_id, data } of await fresh.db('observations').whereNotNull('data')) {
      const { measure } = goals.find(({ id }) => id === goal_id) as Goal;
      expect(readData(measure, data)).toMatchObject({ ok: true });
    }
    const progress = [...(await progressOfGoals(fresh.db, goals, { school, today: '2026-11-24' })).values()];
    const verdicts = new Map<string, number>();
    for (const { verdict } of progress) verdicts.set(verdict.is, (verdicts.get(verdict.is) ?? 0) + 1);
    expect([...verdicts.keys()].sort()).toEqual([
      'aboveCourse',
      'belowCourse',
      'met',
      'noRecentData',
      'onCourse',
      'tooEarly',
    ]);
    expect(Math.max(...verdicts.values())).toBeLessThan(30);
    expect(await fresh.db('observation_history').count().first()).toEqual({ count: '2' });
    // A week of silence later the same entries say so.
    const goal = goals[0] as Goal;
    expect(progressOf(goal, [], { calendar: school.calendar, today: addDays('2026-11-24', 30) }).verdict.is).toBe(
      'noRecentData',
    );
  });
});
