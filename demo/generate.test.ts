import { describe, expect, it } from 'vitest';
import { addDays } from '~/core/calendar/iso-date';
import { readData } from '~/core/measures/measure';
import { progressOf } from '~/core/progress/progress';
import { type Goal, goalsOf } from '~/server/goals/goals';
import { progressOfGoals } from '~/server/progress/progress';
import { type School, schoolIfAny } from '~/server/school/school';
import { freshDatabase } from '~/tests/database/fresh';
import { accessTo } from '~/tests/database/small-school';
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

  it('is a small school of 14 students, 61 goals of all eleven kinds, 8 staff and about 2,900 entries', () => {
    const sizes = Object.fromEntries(generateDemo('2026-11-24', 'hash').map(([table, rows]) => [table, rows.length]));
    expect(sizes).toMatchObject({ students: 14, goals: 61, people: 8, class_groups: 3 });
    expect(sizes.entries).toBeGreaterThan(2500);
    expect(sizes.entries).toBeLessThan(3500);
    const kinds = rowsOf('2026-11-24', 'goal_measures').map((row) => JSON.parse(row.measure as string).kind);
    expect(new Set(kinds).size).toBe(11);
    const atYearsEnd = rowsOf('2027-06-10', 'entries').length;
    expect(atYearsEnd).toBeGreaterThan(2200);
    expect(atYearsEnd).toBeLessThan(6000);
  });

  it('runs from early September of the school year up to the day, and never beyond', () => {
    expect([schoolYearOf('2026-09-01'), schoolYearOf('2027-08-31')]).toEqual([2026, 2026]);
    const dates = rowsOf('2026-11-24', 'entries')
      .map((row) => row.observed_on as string)
      .sort();
    expect(dates[0]).toBe('2026-09-08');
    expect(dates.at(-1)).toBe('2026-11-24');
    expect(rowsOf('2026-09-02', 'entries')).toEqual([]);
    expect(rowsOf('2026-09-02', 'students')).toHaveLength(14);
  });

  it('loads into the real tables and shows every decision', async () => {
    await loadDemo(fresh.db, new Date('2026-11-24T20:30:00Z'));
    const school = (await schoolIfAny(fresh.db)) as School;
    const students = await fresh.db('students').pluck('id');
    const goals = await goalsOf(fresh.db, students.map(accessTo));
    for (const { goal_id, data } of await fresh.db('entries').whereNotNull('data')) {
      const { measure } = goals.find(({ id }) => id === goal_id) as Goal;
      expect(readData(measure, data)).toMatchObject({ ok: true });
    }
    const progress = [...(await progressOfGoals(fresh.db, goals, { school, today: '2026-11-24' })).values()];
    const decisions = new Map<string, number>();
    for (const { decision } of progress) decisions.set(decision.is, (decisions.get(decision.is) ?? 0) + 1);
    expect([...decisions.keys()].sort()).toEqual([
      ...['above', 'below', 'metHolding', 'metNotChecked', 'metNotHolding', 'noChange', 'noRecentData', 'tooEarly'],
    ]);
    expect(Math.max(...decisions.values())).toBeLessThan(30);
    expect(await fresh.db('entry_revisions').count().first()).toEqual({ count: '2' });
    // A week of silence later the same entries say so.
    const goal = goals[0] as Goal;
    expect(progressOf(goal, [], { calendar: school.calendar, today: addDays('2026-11-24', 30) }).decision.is).toBe(
      'noRecentData',
    );
  });
});

describe('the behavior that the demo follows', () => {
  const tables = Object.fromEntries(generateDemo('2026-11-24', 'hash')) as Record<string, Record<string, unknown>[]>;
  const of = (kind: string) => (tables.entries ?? []).filter((entry) => entry.kind === kind);
  const notes = of('incident');
  const named = tables.incident_choices ?? [];
  const choices = new Map([
    ...(tables.behavior_targets ?? []).map((one): [unknown, Record<string, unknown>] => [
      one.id,
      { ...one, facet: 'behavior', label: one.name },
    ]),
    ...(tables.behavior_options ?? []).map((one): [unknown, Record<string, unknown>] => [one.id, one]),
  ]);

  it('is that of four students, up to yesterday, on school days and within their parts of the day', () => {
    expect(new Set(notes.map(({ student_id }) => student_id)).size).toBe(4);
    const days = notes.map(({ observed_on }) => observed_on as string).sort();
    expect([(days[0] as string) >= '2026-09-08', days.at(-1)]).toEqual([true, '2026-11-23']);
    for (const closed of ['2026-10-12', '2026-11-11']) expect(days).not.toContain(closed);
    const times = notes.map(({ observed_time }) => observed_time as string);
    expect(times.every((time) => ('08:15' <= time && time < '10:45') || ('11:00' <= time && time < '14:45'))).toBe(
      true,
    );
    expect(notes.length).toBeGreaterThan(150);
    expect(notes.length).toBeLessThan(300);
  });

  it('names choices of the same student and kind, and people of the team', () => {
    for (const { facet, target_id, option_id, student_id } of named) {
      expect(choices.get(target_id ?? option_id)).toMatchObject({ facet, student_id });
    }
    const team = new Set((tables.team_members ?? []).map(({ student_id, person_id }) => `${student_id} ${person_id}`));
    for (const note of notes) {
      expect(team.has(`${note.student_id} ${note.observer_id}`)).toBe(true);
    }
  });

  it('leaves functions and lengths out where its team does not use them', () => {
    const left = (tables.behavior_fields ?? []).find(({ left_out }) => (left_out as string[]).length > 0);
    expect(left?.left_out).toEqual(['function', 'duration']);
    const own = notes.filter(({ student_id }) => student_id === left?.student_id);
    const ids = new Set(own.map(({ id }) => id));
    expect(own.every(({ seconds }) => seconds === null)).toBe(true);
    expect(named.some(({ entry_id, facet }) => ids.has(entry_id) && facet === 'function')).toBe(false);
  });

  it('was watched for without an occurrence too, for as long as the part of the day lasts', () => {
    const counts = of('count');
    expect(counts.some(({ count }) => count === 0)).toBe(true);
    expect(counts.some(({ count }) => (count as number) > 0)).toBe(true);
    expect(new Set(counts.map(({ part, minutes }) => `${part} ${minutes}`))).toEqual(
      new Set(['Lunch 45', 'Lessons 60']),
    );
  });

  it('begins with the school’s lists, which are nobody’s', () => {
    const school = [...choices.values()].filter(({ student_id }) => student_id === null);
    expect(new Set(school.map(({ facet }) => facet))).toEqual(
      new Set(['antecedent', 'consequence', 'intensity', 'function', 'location']),
    );
    const names = school.map(({ facet, label }) => `${facet} ${label}`);
    expect(new Set(names).size).toBe(names.length);
  });
});
