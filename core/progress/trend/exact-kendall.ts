import { defined } from '../../defined';

/** How many orders have an S, by S. */
type Ways = Map<number, number>;

/**
 * Of all orders of the values, the share with an S at least so far from 0: counted out, ties in days and in values included. Day by day,
 * each choice of which of the values that are left lie on it adds what they make with all that come later.
 *
 * @param days  how many points lie on each day, in order of date
 * @param values  how often each value comes up, from the lowest
 * @see Kendall (1970), Rank Correlation Methods, ch. 5, for what a tie counts; the counting is ours, checked against every order
 * @example chanceOfS(5, [1, 1, 1, 1], [1, 2, 1]) // 1, 2, 2, 3: 2 of 12 orders
 */
export function chanceOfS(s: number, days: readonly number[], values: readonly number[]): number {
  const known = new Map<string, Ways>();
  const from = (day: number, left: readonly number[]): Ways => {
    const size = days[day];
    if (size === undefined) return new Map([[0, 1]]);
    const key = `${day} ${left.join()}`;
    const before = known.get(key);
    if (before) return before;
    const ways: Ways = new Map();
    for (const { rest, chosen, count } of choices(left, size)) {
      const own = madeWithLater(chosen, rest);
      for (const [later, n] of from(day + 1, rest)) ways.set(own + later, (ways.get(own + later) ?? 0) + count * n);
    }
    known.set(key, ways);
    return ways;
  };
  let all = 0;
  let asFar = 0;
  for (const [one, n] of from(0, values)) {
    all += n;
    if (Math.abs(one) >= Math.abs(s)) asFar += n;
  }
  return asFar / all;
}

interface Choice {
  chosen: readonly number[];
  rest: readonly number[];
  /** In how many ways, the points of one value being different points. */
  count: number;
}

/** All ways to take so many of what is left. */
function choices(left: readonly number[], size: number): Choice[] {
  const [first, ...more] = left;
  if (first === undefined) return size === 0 ? [{ chosen: [], rest: [], count: 1 }] : [];
  const found: Choice[] = [];
  let ways = 1;
  for (let taken = 0; taken <= Math.min(first, size); taken++) {
    for (const { chosen, rest, count } of choices(more, size - taken)) {
      found.push({ chosen: [taken, ...chosen], rest: [first - taken, ...rest], count: ways * count });
    }
    ways = (ways * (first - taken)) / (taken + 1);
  }
  return found;
}

/** Pairs of a chosen value and a later one: those that go up less those that go down. */
function madeWithLater(chosen: readonly number[], rest: readonly number[]): number {
  let s = 0;
  chosen.forEach((n, value) => {
    rest.forEach((later, other) => {
      if (n > 0 && other !== value) s += other > value ? n * later : -n * later;
    });
  });
  return s;
}

/** How often each value comes up, in order. */
export function countsInOrder(values: ArrayLike<number>): number[] {
  const counts = new Map<number, number>();
  for (const value of Array.from(values).sort((a, b) => a - b)) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts.keys()].map((value) => defined(counts.get(value)));
}
