import { randomUUID } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { addGoal, addStudent, now, type SmallSchool, smallSchool } from '~/tests/database/small-school';
import { loggedAmounts } from './class-totals';

const fresh = freshDatabase();
let school: SmallSchool;
beforeAll(async () => {
  school = await smallSchool(fresh.db);
});

const log = (unit: string) => ({
  ...{ kind: 'cumulativeTotal', unit: { one: unit, many: `${unit}s` }, total: 100, amounts: 'balance' },
  categories: [{ key: 'herbs', label: 'Herbs' }],
});

async function took(
  goal: { id: string; studentId: string },
  on: string,
  amounts: [number, string | null][],
  more = {},
) {
  const id = randomUUID();
  await fresh.db('entries').insert({
    ...{ id, kind: 'goal', goal_id: goal.id, measure_version: 1, student_id: goal.studentId },
    ...{ observed_on: on, observed_time: '09:00', observer_id: school.manager, note: '' },
    data: JSON.stringify({ amounts: amounts.map(([amount, category]) => ({ amount, category })) }),
    ...{ recorded_by: school.manager, recorded_at: now },
    ...more,
  });
  return id;
}

describe('what logs took in', () => {
  it('is added up by goal, category and week, which begins on Monday', async () => {
    const goal = {
      id: await addGoal(fresh.db, school.student, '2', { measure: log('plant') }),
      studentId: school.student,
    };
    await took(goal, '2026-11-15', [[4, 'herbs']]);
    await took(goal, '2026-11-16', [
      [1.5, 'herbs'],
      [2, null],
    ]);
    await took(goal, '2026-11-22', [[-0.5, 'herbs']]);
    const other = await addStudent(fresh.db, 'Ben', [[school.manager, 'caseManager']]);
    const elsewhere = { id: await addGoal(fresh.db, other, '1', { measure: log('plant') }), studentId: other };
    await took(elsewhere, '2026-11-16', [[40, 'herbs']]);
    const found = await loggedAmounts(fresh.db, [{ ...goal, selfCounts: true }]);
    expect(found.sort((a, b) => `${a.week}${a.category}`.localeCompare(`${b.week}${b.category}`))).toEqual([
      { goalId: goal.id, category: 'herbs', week: '2026-11-09', amount: 4 },
      { goalId: goal.id, category: 'herbs', week: '2026-11-16', amount: 1 },
      { goalId: goal.id, category: null, week: '2026-11-16', amount: 2 },
    ]);
    expect(await loggedAmounts(fresh.db, [])).toEqual([]);
  });

  it('leaves out what was withdrawn, has no score, was watched a second time, or was counted in another unit', async () => {
    const goal = {
      id: await addGoal(fresh.db, school.student, '3', { measure: log('plant') }),
      studentId: school.student,
    };
    const first = await took(goal, '2026-11-16', [[7, null]]);
    const reason = { changed_by: school.manager, changed_at: now, change_reason: 'A slip.', version: 2 };
    await took(goal, '2026-11-16', [[100, null]], { withdrawn: true, ...reason });
    await took(goal, '2026-11-16', [], { data: null, reason: 'absent' });
    const paired = { pairs_with: first, paired_by: school.manager, paired_at: now, observer_id: school.aide };
    await took(goal, '2026-11-16', [[200, null]], paired);
    const sums = async () =>
      (await loggedAmounts(fresh.db, [{ ...goal, selfCounts: true }])).map(({ amount }) => amount);
    expect(await sums()).toEqual([7]);
    // From now on it is hours; the plants of before are no hours.
    await fresh.db.transaction(async (trx) => {
      const version = { goal_id: goal.id, version: 2, measure: JSON.stringify(log('hour')), from_date: '2026-11-20' };
      await trx('goal_measures').insert(version);
      await trx('goals').where({ id: goal.id }).update({ measure_version: 2 });
    });
    await took(goal, '2026-11-20', [[1, null]], { measure_version: 2 });
    expect(await sums()).toEqual([1]);
  });
});
