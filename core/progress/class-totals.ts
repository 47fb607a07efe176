import { addDays, type IsoDate } from '../calendar/iso-date';
import { defined } from '../defined';
import type { CumulativeTotalDefinition } from '../measures/cumulative-total/cumulative-total';
import { sum } from '../statistics/spread';

/** What one goal's log took in during one week, under one category. */
export interface LoggedAmount {
  goalId: string;
  /** The key of the goal's category; null for what has none. */
  category: string | null;
  /** The Monday of the week. */
  week: IsoDate;
  amount: number;
}

/** A goal about how much altogether, as the class's totals need it. */
export interface LoggedGoal {
  id: string;
  student: string;
  measure: CumulativeTotalDefinition;
}

/** Amounts under one category: its name, and what it came to. */
export interface CategoryTotal {
  label: string;
  amount: number;
}

/** What amounts without a category are called where others have one. */
const OTHER = 'Other';

/**
 * Amounts of one goal by category, in the goal's order; what has none comes last.
 *
 * @returns empty where the goal tells nothing apart
 * @example categoryTotals([{ category: 'herbs', amount: 12 }], [{ key: 'herbs', label: 'Herbs' }]) // [{ label: 'Herbs', amount: 12 }]
 */
export function categoryTotals(
  amounts: readonly Pick<LoggedAmount, 'category' | 'amount'>[],
  { categories }: Pick<CumulativeTotalDefinition, 'categories'>,
): CategoryTotal[] {
  if (categories.length === 0) return [];
  const of = (key: string | null) => amounts.filter(({ category }) => category === key);
  const named = categories.map(({ key, label }) => ({ label, amount: totalOf(of(key)) }));
  const known = new Set(categories.map(({ key }) => key));
  const other = amounts.filter(({ category }) => category === null || !known.has(category));
  return other.length === 0 ? named : [...named, { label: OTHER, amount: totalOf(other) }];
}

const totalOf = (amounts: readonly { amount: number }[]) => sum(amounts.map(({ amount }) => amount));

const amountOrBlank = (amounts: readonly { amount: number }[]) => (amounts.length === 0 ? null : totalOf(amounts));

/** What is counted alike: one kind of log, by its unit. */
export const kindOfLog = ({ unit }: CumulativeTotalDefinition) => unit.one.toLowerCase();

export interface ClassTotalsRow {
  goalId: string;
  student: string;
  /** In the unit. */
  amount: number;
  total: number;
  /** Null where nothing was recorded this week: blank is not zero. */
  thisWeek: number | null;
  /** In the order of the class's categories; null where the goal does not have that one. */
  categories: (number | null)[];
  /** What there was altogether at the end of each week. */
  weeks: number[];
}

export interface ClassTotals {
  categories: string[];
  /** Mondays, from the first with an amount to this week's. */
  weeks: IsoDate[];
  /** In the order of the goals. */
  rows: ClassTotalsRow[];
  all: Omit<ClassTotalsRow, 'goalId' | 'student' | 'categories'> & { categories: number[] };
}

/**
 * The same kind of log of several students side by side, with the sums of all.
 *
 * @param goals  of one kind of log (`kindOfLog`)
 * @param amounts  of any goals; those of others are passed over
 * @param thisWeek  the Monday of the present week
 */
export function classTotals(
  goals: readonly LoggedGoal[],
  amounts: readonly LoggedAmount[],
  thisWeek: IsoDate,
): ClassTotals {
  const own = new Map(goals.map(({ id }) => [id, amounts.filter(({ goalId }) => goalId === id)]));
  const totals = new Map(goals.map(({ id, measure }) => [id, categoryTotals(defined(own.get(id)), measure)]));
  const categories = [...new Set([...totals.values()].flatMap((list) => list.map(({ label }) => label)))];
  // “Other” stands last, whoever has it first.
  if (categories.includes(OTHER)) categories.push(...categories.splice(categories.indexOf(OTHER), 1));
  const weeks = weeksFrom([...own.values()].flat(), thisWeek);
  const rows = goals.map(({ id, student, measure }): ClassTotalsRow => {
    const all = defined(own.get(id));
    return {
      ...{ goalId: id, student, amount: totalOf(all), total: measure.total },
      thisWeek: amountOrBlank(all.filter(({ week }) => week === thisWeek)),
      categories: categories.map((name) => defined(totals.get(id)).find(({ label }) => label === name)?.amount ?? null),
      weeks: weeks.map((monday) => totalOf(all.filter(({ week }) => week <= monday))),
    };
  });
  const sumOf = (figure: (row: ClassTotalsRow) => number) => sum(rows.map(figure));
  return {
    ...{ categories, weeks, rows },
    all: {
      amount: sumOf(({ amount }) => amount),
      total: sumOf(({ total }) => total),
      thisWeek: rows.every((row) => row.thisWeek === null) ? null : sumOf((row) => row.thisWeek ?? 0),
      categories: categories.map((_, i) => sumOf((row) => row.categories[i] ?? 0)),
      weeks: weeks.map((_, i) => sumOf((row) => row.weeks[i] ?? 0)),
    },
  };
}

function weeksFrom(amounts: readonly LoggedAmount[], thisWeek: IsoDate): IsoDate[] {
  const first = [...amounts.map(({ week }) => week), thisWeek].sort()[0] ?? thisWeek;
  const weeks: IsoDate[] = [];
  for (let monday = first; monday <= thisWeek; monday = addDays(monday, 7)) weeks.push(monday);
  return weeks;
}
