import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cumulativeTotalDefinition } from '~/core/measures/cumulative-total/cumulative-total';
import { categoryTotals, classTotals, kindOfLog, type LoggedAmount } from '~/core/progress/class-totals';

const log = (total: number, ...labels: string[]) =>
  cumulativeTotalDefinition.parse({
    kind: 'cumulativeTotal',
    unit: { one: 'plant', many: 'plants' },
    total,
    categories: labels.map((label) => ({ key: label.toLowerCase(), label })),
  });
const goals = [
  { id: 'a', student: 'Ione C.', measure: log(140, 'Herbs', 'Vegetables') },
  { id: 'b', student: 'Jory W.', measure: log(60, 'Vegetables', 'Flowers') },
  { id: 'c', student: 'Kestrel A.', measure: log(50) },
];
const took = (goalId: string, category: string | null, week: string, amount: number): LoggedAmount => ({
  ...{ goalId, category, week, amount },
});
const thisWeek = '2026-11-23';
const amounts = [
  took('a', 'herbs', '2026-11-02', 12),
  took('a', 'vegetables', '2026-11-16', 8),
  took('a', null, thisWeek, 3),
  took('b', 'flowers', '2026-11-09', 5),
  took('b', 'vegetables', thisWeek, 0),
  took('elsewhere', 'herbs', '2026-10-05', 900),
];

describe('the totals of a class', () => {
  const totals = classTotals(goals, amounts, thisWeek);

  it('have a column for every category that somebody has; what a log does not have stays blank, what it has may be 0', () => {
    expect(totals.categories).toEqual(['Herbs', 'Vegetables', 'Flowers', 'Other']);
    expect(totals.rows.map(({ student, categories }) => [student, ...categories])).toEqual([
      ['Ione C.', 12, 8, null, 3],
      ['Jory W.', null, 0, 5, null],
      ['Kestrel A.', null, null, null, null],
    ]);
    expect(totals.all.categories).toEqual([12, 8, 5, 3]);
  });

  it('say how far each is and all are together; a week without an entry is blank, one with 0 is not', () => {
    expect(totals.rows.map(({ amount, total, thisWeek: now }) => [amount, total, now])).toEqual([
      [23, 140, 3],
      [5, 60, 0],
      [0, 50, null],
    ]);
    expect(totals.all).toMatchObject({ amount: 28, total: 250, thisWeek: 3 });
    expect(classTotals(goals, amounts.slice(0, 2), thisWeek).all.thisWeek).toBeNull();
  });

  it('grow week by week from the first amount of these logs to this week, weeks without any among them', () => {
    expect(totals.weeks).toEqual(['2026-11-02', '2026-11-09', '2026-11-16', thisWeek]);
    expect(totals.rows[0]?.weeks).toEqual([12, 12, 20, 23]);
    expect(totals.all.weeks).toEqual([12, 17, 25, 28]);
    expect(classTotals(goals, [], thisWeek)).toMatchObject({ weeks: [thisWeek], all: { amount: 0, total: 250 } });
  });

  it('always add up: categories to the log where it has some, logs to the class, the last week to the sum', () => {
    const amount = fc.record({
      goalId: fc.constantFrom('a', 'b', 'c'),
      category: fc.constantFrom('herbs', 'vegetables', 'flowers', 'gone', null),
      week: fc.constantFrom('2026-10-05', '2026-11-02', thisWeek),
      amount: fc.integer({ min: -20, max: 50 }),
    });
    fc.assert(
      fc.property(fc.array(amount, { maxLength: 30 }), (some) => {
        const { rows, all } = classTotals(goals, some, thisWeek);
        const sum = (list: readonly (number | null)[]) => list.reduce((total: number, one) => total + (one ?? 0), 0);
        for (const row of rows) {
          expect(row.weeks.at(-1)).toBe(row.amount);
          if (row.goalId !== 'c') expect(sum(row.categories)).toBe(row.amount);
        }
        expect(sum(rows.map((row) => row.amount))).toBe(all.amount);
        expect(all.weeks.at(-1)).toBe(all.amount);
      }),
    );
  });
});

describe('a log by category', () => {
  it('keeps the goal’s order, gathers what is in none, and says nothing where nothing is told apart', () => {
    const measure = log(60, 'Vegetables', 'Flowers');
    const of = (category: string | null, amount: number) => ({ category, amount });
    expect(categoryTotals([of('flowers', 2), of(null, 1), of('herbs', 4)], measure)).toEqual([
      { label: 'Vegetables', amount: 0 },
      { label: 'Flowers', amount: 2 },
      { label: 'Other', amount: 5 },
    ]);
    expect(categoryTotals([of(null, 1)], log(10))).toEqual([]);
  });

  it('is of a kind by what is counted, however it is written', () => {
    expect(kindOfLog({ ...log(1), unit: { one: 'Plant', many: 'Plants' } })).toBe(kindOfLog(log(1)));
  });
});
