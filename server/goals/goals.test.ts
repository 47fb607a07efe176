import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { goalDefinition } from '~/core/goals/goal';
import { freshDatabase } from '~/tests/database/fresh';
import {
  actorOf,
  addGoal,
  addStudent,
  now,
  type SmallSchool,
  schoolId,
  sessionOf,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { correctObservation, withdrawObservation } from '../entries/change';
import { markPair, unmarkPair } from '../entries/pairs';
import { recordSession } from '../entries/record';
import { newestEntries } from '../individual-report/entries-said';
import { NotFound } from '../platform/failures';
import { progressOfGoals, standingOfGoals } from '../progress/progress';
import { locationsOf, schoolOf } from '../school/school';
import { studentTabs } from '../students/students';
import { goalOf, goalsOf } from './goals';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
});
const record = (trials: string[], changes: Record<string, unknown> = {}) =>
  recordSession(fresh.db, actorOf(school.manager), school.student, sessionOf(school, trials, changes), { wall, now });

describe('goals', () => {
  it('come back as the core defines them, with their phases in order of date', async () => {
    await fresh.db('goal_phases').insert([
      { goal_id: school.goal, label: 'New support', starts_on: '2026-10-01', is_baseline: false },
      { goal_id: school.goal, label: 'Baseline', starts_on: '2026-09-08', is_baseline: true },
    ]);
    const [goal] = await goalsOf(fresh.db, [school.student]);
    expect(goalDefinition.safeParse(goal).error).toBeUndefined();
    expect(goal?.phases.map(({ label }) => label)).toEqual(['Baseline', 'New support']);
    expect(goal).toMatchObject({ baseline: null, target: 80, plannedGap: null, shortName: 'Plants a row' });
  });

  it('are those of the students asked for, and of nobody else', async () => {
    const ben = await addStudent(fresh.db, 'Ben', [[school.manager, 'caseManager']]);
    const bens = await addGoal(fresh.db, ben);
    expect((await goalsOf(fresh.db, [ben])).map(({ id }) => id)).toEqual([bens]);
    await expect(goalOf(fresh.db, ben, school.goal)).rejects.toThrow(NotFound);
    await expect(goalOf(fresh.db, ben, randomUUID())).rejects.toThrow(NotFound);
    expect(await goalsOf(fresh.db, [])).toEqual([]);
  });

  it('are unique by number for a student, and end after they begin', async () => {
    await expect(addGoal(fresh.db, school.student, '1')).rejects.toThrow(/goals_number/);
    await expect(fresh.db('goals').where({ id: school.goal }).update({ target_on: '2026-09-01' })).rejects.toThrow(
      /check/,
    );
    await expect(fresh.db('goals').where({ id: school.goal }).update({ baseline_value: 3 })).rejects.toThrow(/check/);
  });
});

describe('figures', () => {
  it('are right at once after an entry, pooled by day and in order, however they came in', async () => {
    await record(['independent', 'spoken'], { on: '2026-11-20' });
    await record(['independent'], { on: '2026-11-18' });
    await record(['gesture', 'gesture'], { on: '2026-11-20', time: '08:00' });
    const goals = await goalsOf(fresh.db, [school.student]);
    const about = { school: await schoolOf(fresh.db, schoolId), today };
    const progress = (await progressOfGoals(fresh.db, goals, about)).get(school.goal);
    expect(progress?.points.map(({ on, amount, weight }) => [on, amount, weight])).toEqual([
      ['2026-11-18', 1, 1],
      ['2026-11-20', 3, 4],
    ]);
    expect((await progressOfGoals(fresh.db, [], about)).size).toBe(0);
  });

  it('tell the tabs when each goal was last seen', async () => {
    const tab = (await studentTabs(fresh.db, actorOf(school.aide))).find(({ id }) => id === school.student);
    expect(tab).toMatchObject({ role: 'paraprofessional', goals: [{ lastOn: '2026-11-20', startsOn: '2026-09-08' }] });
  });
});

describe('entries, newest first', () => {
  it('of several students together end at the limit, each list in its order', async () => {
    const cleo = await addStudent(fresh.db, 'Cleo', [[school.manager, 'caseManager']]);
    const cleos = await addGoal(fresh.db, cleo);
    const input = sessionOf({ ...school, goal: cleos }, ['gesture'], { on: '2026-11-19' });
    await recordSession(fresh.db, actorOf(school.manager), cleo, input, { wall, now });
    const students = [school.student, cleo];
    const goals = await goalsOf(fresh.db, students);
    const newest = (options: object = {}) =>
      newestEntries(fresh.db, students, goals, { limit: 3, discreet: false, ...options });
    expect((await newest()).map(({ on, time }) => `${on} ${time}`)).toEqual([
      '2026-11-20 09:30',
      '2026-11-20 08:00',
      '2026-11-19 09:30',
    ]);
    expect(await newest({ limit: 1, on: '2026-11-19' })).toMatchObject([
      { studentId: cleo, location: 'Kitchen', observer: 'manager', isCorrected: false },
    ]);
    expect(await newest({ on: '2026-11-24' })).toEqual([]);
    expect(await newestEntries(fresh.db, [], [], { limit: 3, discreet: false })).toEqual([]);
  });
});

describe('what was computed before', () => {
  it('is used again only while nothing of the goal, its entries, the calendar or the day has changed', async () => {
    const ella = await addStudent(fresh.db, 'Ella', [
      [school.manager, 'caseManager'],
      [school.aide, 'paraprofessional'],
    ]);
    const goalId = await addGoal(fresh.db, ella);
    const of = { ...school, goal: goalId };
    const seen = async (day = today) => {
      const about = { school: await schoolOf(fresh.db, schoolId), today: day };
      const goals = await goalsOf(fresh.db, [ella]);
      const progress = (await progressOfGoals(fresh.db, goals, about)).get(goalId);
      const standing = (await standingOfGoals(fresh.db, goals, about)).get(goalId);
      expect(standing?.lastOn ?? null).toBe(progress?.points.at(-1)?.on ?? null);
      return { progress, values: progress?.points.map(({ value }) => value) };
    };
    const observe = async (trials: string[], on: string, observerId = school.manager) => {
      const session = sessionOf(of, trials, { on, observerId });
      return (await recordSession(fresh.db, actorOf(school.manager), ella, session, { wall, now })).ids[0] as string;
    };
    expect((await seen()).values).toEqual([]);
    const first = await observe(['independent', 'spoken'], '2026-11-18');
    expect((await seen()).values).toEqual([50]);
    const again = (await seen()).progress;
    expect((await seen()).progress).toBe(again);
    // A correction, a second observer, a pair taken apart, a withdrawal: each is seen at once.
    const outcome = { data: { trials: ['independent'] }, reason: null };
    const session = { on: '2026-11-18', time: '09:30', observerId: school.manager, locationId: null };
    const ids = { studentId: ella, entryId: first };
    const correction = { ...session, outcome, note: '', version: 1, why: 'Counted anew.' };
    await correctObservation(fresh.db, actorOf(school.manager), ids, correction, { wall, now });
    expect((await seen()).values).toEqual([100]);
    const second = await observe(['incorrect'], '2026-11-18', school.aide);
    expect((await seen()).values).toEqual([50]);
    await markPair(fresh.db, actorOf(school.manager), { studentId: ella, entryId: first, otherId: second }, now);
    expect((await seen()).values).toEqual([100]);
    await unmarkPair(fresh.db, actorOf(school.manager), ids, now);
    expect((await seen()).values).toEqual([50]);
    const gone = { studentId: ella, entryId: second };
    await withdrawObservation(fresh.db, actorOf(school.manager), gone, { version: 1, why: 'Another’s.' }, now);
    expect((await seen()).values).toEqual([100]);
    // The goal itself, the day, and the school’s calendar.
    await fresh.db('goals').where({ id: goalId }).update({ target: 90 });
    expect((await seen()).progress).not.toBe(again);
    const before = (await seen()).progress;
    expect((await seen('2027-01-20')).progress?.decision.is).toBe('noRecentData');
    expect((await seen()).progress).toBe(before);
    await fresh
      .db('closures')
      .insert({ school_id: schoolId, first_day: '2026-12-21', last_day: '2027-01-01', label: 'Winter' });
    expect((await seen()).progress).not.toBe(before);
    await fresh.db('closures').delete();
  });
});

describe('the school', () => {
  it('has a calendar and locations of its own', async () => {
    await fresh
      .db('closures')
      .insert({ school_id: schoolId, first_day: '2026-11-26', last_day: '2026-11-27', label: 'Thanksgiving' });
    expect(await schoolOf(fresh.db, schoolId)).toEqual({
      id: schoolId,
      name: 'Test School',
      timeZone: 'America/New_York',
      isDemo: false,
      paper: 'letter',
      calendar: {
        weekdays: [1, 2, 3, 4, 5],
        closures: [{ first: '2026-11-26', last: '2026-11-27', label: 'Thanksgiving' }],
      },
    });
    expect((await locationsOf(fresh.db, schoolId)).map(({ name }) => name)).toEqual(['Kitchen']);
    const another = { id: randomUUID(), name: 'Another', time_zone: 'UTC', weekdays: [1] };
    await fresh.db('schools').insert(another);
    expect(await locationsOf(fresh.db, another.id)).toEqual([]);
  });
});

describe('how goals stand', () => {
  it('in short is what is said of each in full, however many are asked for', async () => {
    for (let n = 0; n < 20; n++) await addGoal(fresh.db, school.student, `s${n}`);
    await record(['independent', 'incorrect']);
    const goals = await goalsOf(fresh.db, [school.student]);
    expect(goals.length).toBeGreaterThan(20);
    const when = { school: await schoolOf(fresh.db, schoolId), today };
    const [short, full] = [await standingOfGoals(fresh.db, goals, when), await progressOfGoals(fresh.db, goals, when)];
    expect(short.size).toBe(goals.length);
    for (const { id } of goals) {
      expect(short.get(id)).toEqual({
        decision: full.get(id)?.decision,
        lastOn: full.get(id)?.points.at(-1)?.on ?? null,
      });
    }
    expect(short.get(school.goal)?.lastOn).not.toBeNull();
  });
});
