import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { beginningOf } from '~/core/measures/measure';
import { graphThroughYears } from '~/core/progress/graph/through-years';
import { aYearLater, nextPlanInput, proposedPlan } from '~/core/progress/next-plan';
import { freshDatabase } from '~/tests/database/fresh';
import {
  accessTo,
  actorOf,
  addGoal,
  now,
  type SmallSchool,
  schoolId,
  sessionOf,
  smallSchool,
  today,
  wall,
} from '~/tests/database/small-school';
import { recordSession } from '../entries/record';
import { goalsOf, goalsWorkedOn } from '../goals/goals';
import { Invalid, NotFound } from '../platform/failures';
import { schoolOf } from '../school/school';
import { planOf, savePlan } from '../students/plan';
import { requireStudent } from '../students/students';
import { earlierPlansOf } from './earlier-plans';
import { beginNextPlan, goalsForNextPlan } from './next-plan';
import { progressFrom } from './progress';

const fresh = freshDatabase();
let school: SmallSchool;
let second: string;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
  second = await addGoal(fresh.db, school.student, '2');
  const periods = [
    { label: 'Fall', endsOn: '2026-11-20' },
    { label: 'Spring', endsOn: '2027-06-11' },
  ];
  const plan = { startsOn: '2026-09-08', endsOn: '2027-06-11', periods };
  await savePlan(fresh.db, actorOf(school.manager), school.student, plan, { newId: randomUUID(), now });
});

const wanted = (changes: Record<string, unknown> = {}) =>
  nextPlanInput.parse({
    ...{ id: randomUUID(), startsOn: '2026-11-23', endsOn: '2027-11-22' },
    periods: [{ label: 'Winter', endsOn: '2027-03-01' }],
    goals: [
      {
        ...{ id: school.goal, nextId: randomUUID(), becomes: 'goesOn', wording: 'Plants a whole row.', target: 90 },
        ...{ baselineValue: 70, baselineOn: '2026-11-20' },
      },
      { id: second, nextId: randomUUID(), becomes: 'met', wording: 'x', target: 80 },
    ],
    ...changes,
  });
const begin = (input: ReturnType<typeof wanted>, by = school.manager) =>
  beginNextPlan(fresh.db, actorOf(by), school.student, input, now);

describe('what is proposed', () => {
  it('is a plan as long, with the same periods a year later', () => {
    const present = {
      startsOn: '2025-09-01',
      endsOn: '2026-08-31',
      periods: [{ label: 'Fall', endsOn: '2025-12-19' }],
    };
    expect(proposedPlan(present, '2026-09-03')).toEqual({
      ...{ startsOn: '2026-09-01', endsOn: '2027-08-31', periods: [{ label: 'Fall', endsOn: '2026-12-19' }] },
    });
    // Still ahead: it can begin today at the earliest.
    expect(proposedPlan(present, '2025-11-20')).toEqual({
      ...{ startsOn: '2025-11-20', endsOn: '2026-11-19', periods: [{ label: 'Fall', endsOn: '2025-12-19' }] },
    });
    expect(aYearLater('2028-02-29')).toBe('2029-02-28');
  });
  it('is a baseline from the last three points', async () => {
    const trials = (right: number) => [...Array(right).fill('independent'), ...Array(5 - right).fill('incorrect')];
    for (const [on, right] of [
      ['2026-10-05', 1],
      ['2026-10-06', 4],
      ['2026-10-07', 5],
      ['2026-10-08', 3],
    ] as const) {
      const session = sessionOf(school, trials(right), { on });
      await recordSession(fresh.db, actorOf(school.manager), school.student, session as never, { wall, now });
    }
    const student = await requireStudent(fresh.db, actorOf(school.manager), school.student, 'editGoals');
    const goals = await goalsForNextPlan(fresh.db, student, { school: await schoolOf(fresh.db, schoolId), today });
    expect(goals.map((one) => one.now)).toEqual([{ value: 80, on: '2026-10-08' }, null]);
  });
});

describe('a next plan', () => {
  it('is for whoever edits goals, begins on its first day or later, after the one that was', async () => {
    await expect(begin(wanted(), school.aide)).rejects.toThrow(NotFound);
    await expect(begin(wanted({ startsOn: '2026-11-25' }))).rejects.toThrow(Invalid);
    await expect(begin(wanted({ startsOn: '2026-09-08' }))).rejects.toThrow(Invalid);
    // Met is what was scored.
    await expect(begin(wanted())).rejects.toMatchObject({ fields: { 'goals[1].becomes': expect.any(String) } });
    const scored = sessionOf({ ...school, goal: second }, ['independent']);
    await recordSession(fresh.db, actorOf(school.manager), school.student, scored, { wall, now });
    const [first, ...rest] = wanted().goals;
    await expect(begin(wanted({ goals: [{ ...first, target: 130 }, ...rest] }))).rejects.toMatchObject({
      fields: { 'goals[0].target': expect.stringContaining('0 to 100') },
    });
    expect(await fresh.db('plans').where({ student_id: school.student })).toHaveLength(1);
  });

  it('ends the one that was, and carries on what goes on', async () => {
    const round = randomUUID();
    await fresh.db('rounds').insert({ id: round, name: 'Monday', made_by: school.manager, school_id: schoolId });
    await fresh
      .db('round_goals')
      .insert({ round_id: round, goal_id: school.goal, student_id: school.student, position: 0 });
    const input = wanted();
    await begin(input);
    await begin(input);
    const plans = await fresh.db('plans').where({ student_id: school.student }).orderBy('starts_on');
    expect(plans.map(({ starts_on, ends_on }) => [starts_on, ends_on])).toEqual([
      ['2026-09-08', '2026-11-22'],
      ['2026-11-23', '2027-11-22'],
    ]);
    // The period that went beyond it ends with it; reports hang on it still.
    const periods = await fresh
      .db('reporting_periods')
      .where({ plan_id: plans[0]?.id, removed_at: null })
      .orderBy('ends_on');
    expect(periods.map(({ label, ends_on }) => [label, ends_on])).toEqual([
      ['Fall', '2026-11-20'],
      ['Spring', '2026-11-22'],
    ]);
    const access = accessTo(school.student);
    expect(await planOf(fresh.db, access, today)).toMatchObject({
      startsOn: '2026-11-23',
      periods: [{ label: 'Winter' }],
    });
    const all = await goalsOf(fresh.db, [access]);
    expect(goalsWorkedOn(all)).toMatchObject([
      {
        ...{ number: '1', wording: 'Plants a whole row.', startsOn: '2026-11-23', targetOn: '2027-11-22', target: 90 },
        ...{ baseline: { value: 70, on: '2026-11-20' }, measure: { kind: 'trials', planned: 5 } },
      },
    ]);
    const ended = all
      .filter(({ retired }) => retired)
      .map(({ number, retired }) => [number, retired?.how, retired?.on]);
    expect(ended).toEqual([
      ['1', 'replaced', '2026-11-22'],
      ['2', 'met', '2026-11-22'],
    ]);
    const next = await fresh.db('goals').where({ continues: school.goal }).first('id', 'plan_id');
    expect(next?.plan_id).toBe(input.id);
    expect(await fresh.db('round_goals').where({ round_id: round }).pluck('goal_id')).toEqual([next?.id]);
    const student = await requireStudent(fresh.db, actorOf(school.manager), school.student, 'see');
    const chain = await earlierPlansOf(fresh.db, student.id, next?.id ?? '');
    expect(chain.map(({ goal, sessions }) => [goal.id, sessions.length])).toEqual([[school.goal, 4]]);
    expect(await earlierPlansOf(fresh.db, student.id, school.goal)).toEqual([]);
    const [goal] = goalsWorkedOn(all);
    const here = { school: await schoolOf(fresh.db, schoolId), today };
    const computed = chain.map((one) => ({
      goal: one.goal,
      points: progressFrom(one.goal, one.sessions, here).points,
    }));
    const own = progressFrom(goal!, [], here);
    const { graph, leftOut } = graphThroughYears(goal!, own, computed, { entries: [], today });
    expect(graph.runs.flat().map(({ on, value }) => [on, value])).toEqual([
      ['2026-10-05', 20],
      ['2026-10-06', 80],
      ['2026-10-07', 100],
      ['2026-10-08', 60],
    ]);
    expect(graph.phases).toEqual([
      { on: '2026-09-08', label: 'Plan from Sep 8' },
      { on: '2026-11-23', label: 'Plan from Nov 23' },
    ]);
    // The aim line is the present plan’s, and what was measured otherwise is left out.
    expect([graph.aimLine?.[0], leftOut]).toEqual([{ on: '2026-11-20', value: 70 }, 0]);
    const otherwise = [{ ...computed[0]!, goal: { ...computed[0]!.goal, measure: beginningOf('latency') } }];
    expect(graphThroughYears(goal!, own, otherwise, { entries: [], today })).toMatchObject({
      leftOut: 1,
      graph: { runs: [], phases: [] },
    });
    // What was recorded stays with the goal that it was recorded of.
    expect(await fresh.db('entries').where({ goal_id: school.goal })).toHaveLength(4);
  });
});
