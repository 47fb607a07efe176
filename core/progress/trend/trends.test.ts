import fc from 'fast-check';
import { linearRegression, rSquared } from 'simple-statistics';
import { describe, expect, it } from 'vitest';
import { addDays, dayNumber } from '../../calendar/iso-date';
import { tiesAmong } from '../../statistics/ties';
import { arrivalOf } from './arrival';
import { leastSquares } from './least-squares';
import { kendallS, mannKendall, varianceOfS } from './mann-kendall';
import { splitMiddle } from './split-middle';
import { type TheilSenLine, theilSen } from './theil-sen';

const weekly = (values: number[]) => values.map((value, i) => ({ day: 7 * i, value }));
const daily = (values: number[]) => values.map((value, day) => ({ day, value }));
const pairs = (x: number[], y: number[]) => x.map((day, i) => ({ day, value: y[i] as number }));
const series = fc.uniqueArray(
  fc.record({ day: fc.integer({ min: 0, max: 300 }), value: fc.integer({ min: -50, max: 100 }) }),
  { minLength: 3, maxLength: 40, selector: (point) => point.day },
);

describe('least squares', () => {
  it('meets the certified values of the NIST set “Norris” (NIST Statistical Reference Datasets)', () => {
    const x =
      '.2 337.4 118.2 884.6 10.1 226.5 666.3 996.3 448.6 777 558.2 .4 .6 775.5 666.9 338 447.5 11.6 556 228.1 995.8 887.6 120.2 .3 .3 556.8 339.1 887.2 999 779 11.1 118.3 229.2 669.1 448.9 .5';
    const y =
      '.1 338.8 118.1 888 9.2 228.1 668.5 998.5 449.1 778.9 559.2 .3 .1 778.1 668.8 339.3 448.9 10.8 557.7 228.3 998 888.8 119.6 .3 .6 557.6 339.3 888 998.5 778.9 10.2 117.6 228.9 668.4 449.2 .2';
    const numbers = (text: string) => text.split(' ').map(Number);
    const line = leastSquares(pairs(numbers(x), numbers(y)));
    expect(line?.slopePerWeek).toBeCloseTo(7 * 1.00211681802045, 11);
    expect(line?.at(0)).toBeCloseTo(-0.262323073774029, 11);
    expect(line?.r2).toBeCloseTo(0.999993745883712, 13);
    expect(line?.residualSd).toBeCloseTo(0.884796396144373, 11);
    // The certified standard error of the slope times the t of 34 degrees of freedom, 2.0322445 (any table).
    expect(((line?.high ?? 0) - (line?.low ?? 0)) / 14).toBeCloseTo(0.000429796848199937 * 2.0322445, 9);
  });

  // Anscombe (1973), The American Statistician 27: four sets with one line, y = 3 + x/2, and R² of .67.
  const x = [10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5];
  it.each([
    [x, [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68]],
    [x, [9.14, 8.14, 8.74, 8.77, 9.26, 8.1, 6.13, 3.1, 9.13, 7.26, 4.74]],
    [x, [7.46, 6.77, 12.74, 7.11, 7.81, 8.84, 6.08, 5.39, 8.15, 6.42, 5.73]],
    [
      [8, 8, 8, 8, 8, 8, 8, 19, 8, 8, 8],
      [6.58, 5.76, 7.71, 8.84, 8.47, 7.04, 5.25, 12.5, 5.56, 7.91, 6.89],
    ],
  ])('sees one line in each of Anscombe’s sets', (days, values) => {
    const line = leastSquares(pairs(days, values));
    expect(line?.slopePerWeek).toBeCloseTo(7 * 0.5, 2);
    expect(line?.at(0)).toBeCloseTo(3, 1);
    expect(line?.r2).toBeCloseTo(0.67, 2);
  });

  it('agrees with simple-statistics', () => {
    fc.assert(
      fc.property(series, (points) => {
        const line = leastSquares(points);
        const xy = points.map(({ day, value }) => [day, value]);
        const { m, b } = linearRegression(xy);
        expect(line?.slopePerWeek).toBeCloseTo(7 * m, 6);
        expect(line?.at(0)).toBeCloseTo(b, 6);
        if (line?.r2 != null)
          expect(line.r2).toBeCloseTo(
            rSquared(xy, (day) => b + m * day),
            6,
          );
      }),
    );
  });

  it('has no R² where nothing varies, and no interval about a perfect line', () => {
    expect(leastSquares(weekly([4, 4, 4, 4]))).toMatchObject({ slopePerWeek: 0, low: 0, high: 0, r2: null });
    expect(leastSquares(weekly([1, 2]))).toBeNull();
    expect(leastSquares([1, 2, 3].map((value) => ({ day: 4, value })))).toBeNull();
  });
});

describe('split-middle', () => {
  it('joins the middles of the halves, and moves until as many points lie above as below: by hand', () => {
    // Halves 1, 3, 2 and 6, 5, 9: medians 2 in week 1 and 6 in week 4, a slope of 4/3. What is left over each point is
    // 1, 5/3, −2/3, 2, −1/3, 7/3; the middle of those is 4/3.
    const line = splitMiddle(weekly([1, 3, 2, 6, 5, 9]));
    expect(line?.slopePerWeek).toBeCloseTo(4 / 3, 12);
    expect(line?.at(0)).toBeCloseTo(4 / 3, 12);
  });

  it('leaves the middle point of an odd number out of both halves', () => {
    expect(splitMiddle(weekly([1, 3, 99, 5, 7]))?.slopePerWeek).toBeCloseTo((6 - 2) / 3, 12);
  });

  it('has as many points above as below', () => {
    fc.assert(
      fc.property(series, (points) => {
        const line = splitMiddle(points);
        if (!line) return;
        const over = points.map(({ day, value }) => value - line.at(day));
        const above = over.filter((rest) => rest > 1e-9).length;
        const below = over.filter((rest) => rest < -1e-9).length;
        expect(above).toBeLessThanOrEqual(points.length / 2);
        expect(below).toBeLessThanOrEqual(points.length / 2);
      }),
    );
  });
});

/** Every order of n values, for counting out. */
function* ordersOf(values: number[]): Generator<number[]> {
  if (values.length === 0) yield [];
  for (const [i, first] of values.entries()) {
    for (const rest of ordersOf(values.toSpliced(i, 1))) yield [first, ...rest];
  }
}

describe('Mann–Kendall', () => {
  // One-sided chances: Kendall (1970), Rank Correlation Methods, appendix table 1 (from memory; those of 4 to 6 counted out
  // below).
  it.each([
    [4, 6, 0.042],
    [5, 8, 0.042],
    [6, 9, 0.068],
    [8, 16, 0.031],
    [10, 21, 0.036],
  ])('has the tabled chance for %i points and S = %i', (n, s, oneSided) => {
    const values = orderWithS(n, s);
    const result = mannKendall(daily(values));
    expect(result?.s).toBe(s);
    expect((result?.p ?? 0) / 2).toBeCloseTo(oneSided, 3);
    expect(result?.isExact).toBe(true);
  });

  it('counts the same as looking at every order', () => {
    for (const n of [4, 5, 6]) {
      const all = [...ordersOf(Array.from({ length: n }, (_, i) => i))].map((order) => kendallS(daily(order)));
      for (const s of new Set(all)) {
        const asFar = all.filter((other) => Math.abs(other) >= Math.abs(s)).length / all.length;
        expect(mannKendall(daily(orderWithS(n, s)))?.p).toBeCloseTo(asFar, 12);
      }
    }
  });

  it('finds a common textbook example: two people rank twelve candidates, 61 pairs agree, 5 do not, τ = .85', () => {
    const result = mannKendall(pairs([...Array(12).keys()], [1, 2, 4, 3, 6, 5, 8, 7, 10, 9, 12, 11]));
    expect(result?.s).toBe(61 - 5);
    expect(result?.tau).toBeCloseTo(0.85, 2);
  });

  it('counts ties out too, and goes over to the normal approximation with an eleventh point, by hand', () => {
    // 1, 2, 2, 3: S = 5; τ-b = 5/√(6 · 5); of its twelve orders this one and its reverse lie so far from 0.
    const tied = mannKendall(daily([1, 2, 2, 3]));
    expect(tied).toMatchObject({ s: 5, isExact: true });
    expect(tied?.tau).toBeCloseTo(5 / Math.sqrt(30), 12);
    expect(tied?.p).toBeCloseTo(2 / 12, 12);
    // Eleven rising points: S = 55, variance 11·10·27/18 = 165, z = 54/12.845 = 4.2039.
    const eleven = mannKendall(daily([...Array(11).keys()]));
    expect(eleven?.isExact).toBe(false);
    expect(eleven?.p).toBeCloseTo(2.62e-5, 7);
    expect(eleven?.tau).toBe(1);
  });

  it('allows for ties in the days as well (Kendall 1970, ch. 4, by hand)', () => {
    // Days 0, 0, 1, 1 and values 1, 1, 2, 3: S = 4; pairs 6, tied 2 in days and 1 in values.
    // Of the six ways to choose the first day's two, {1, 1} makes 4 and {2, 3} makes −4.
    const result = mannKendall(pairs([0, 0, 1, 1], [1, 1, 2, 3]));
    expect(result?.s).toBe(4);
    expect(result?.tau).toBeCloseTo(4 / Math.sqrt(4 * 5), 12);
    expect(result?.p).toBeCloseTo(2 / 6, 12);
    // Variance: (4·3·13 − 2·(2·1·9) − 2·1·9)/18 + (2·2)(2)/(2·4·3) = 102/18 + 8/24 = 6.
    expect(varianceOfS(4, [2, 2], [2])).toBeCloseTo(6, 12);
  });

  it('counts the same as looking at every order, and has their variance, with ties of any size in days and values', () => {
    const tied = fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 3, maxLength: 6 });
    fc.assert(
      fc.property(tied, tied, (x, y) => {
        const n = Math.min(x.length, y.length);
        const [days, values] = [x.slice(0, n), y.slice(0, n)];
        const result = mannKendall(pairs(days, values));
        if (!result) return;
        const all = [...ordersOf(values)].map((order) => kendallS(pairs(days, order)));
        const asFar = all.filter((s) => Math.abs(s) >= Math.abs(result.s)).length / all.length;
        expect(result.p).toBeCloseTo(asFar, 9);
        const variance = all.reduce((sum, s) => sum + s * s, 0) / all.length;
        expect(varianceOfS(n, tiesAmong(days), tiesAmong(values))).toBeCloseTo(variance, 9);
      }),
      { numRuns: 60 },
    );
  });

  it('is undecided in a constant series, and nothing on a single day', () => {
    expect(mannKendall(weekly([5, 5, 5, 5]))).toEqual({ s: 0, tau: null, p: 1, isExact: true });
    expect(mannKendall([1, 2].map((value) => ({ day: 3, value })))).toBeNull();
    expect(mannKendall(daily([1]))).toBeNull();
  });

  it('turns round with the series', () => {
    fc.assert(
      fc.property(series, (points) => {
        const [up, down] = [points, points.map(({ day, value }) => ({ day, value: -value }))].map(mannKendall);
        expect(down?.s).toBe(0 - (up?.s ?? 0));
        expect(down?.p).toBe(up?.p);
        expect(up?.p).toBeGreaterThan(0);
        expect(up?.p).toBeLessThanOrEqual(1);
      }),
    );
  });
});

/** An order of 0 … n − 1 whose S is as asked for: begun in order, and put out of it one inversion at a time. */
function orderWithS(n: number, s: number): number[] {
  const values = Array.from({ length: n }, (_, i) => i);
  let inversions = ((n * (n - 1)) / 2 - s) / 2;
  for (let end = n - 1; end > 0 && inversions > 0; end--) {
    for (let i = 0; i < end && inversions > 0; i++, inversions--) {
      [values[i], values[i + 1]] = [values[i + 1] as number, values[i] as number];
    }
  }
  return values;
}

describe('when it arrives', () => {
  const from = '2026-11-02';
  const line = (values: number[]) =>
    theilSen(values.map((value, i) => ({ day: dayNumber(from) - 7 * (values.length - 1 - i), value }))) as TheilSenLine;

  it('is the day the line meets the target: 66 now, 7 a week, 80 in two weeks', () => {
    const rising = line([45, 52, 59, 66]);
    expect(arrivalOf(rising, { target: 80, direction: 'increase', from })).toEqual({
      on: '2026-11-16',
      earliest: '2026-11-16',
      latest: '2026-11-16',
    });
    expect(arrivalOf(rising, { target: 81, direction: 'increase', from }).on).toBe('2026-11-17');
  });

  it('goes down for a goal that goes down', () => {
    expect(arrivalOf(line([30, 23, 16, 9]), { target: 2, direction: 'decrease', from }).on).toBe('2026-11-09');
  });

  it('has arrived where the line is at the target already', () => {
    expect(arrivalOf(line([45, 52, 59, 66]), { target: 66, direction: 'increase', from }).on).toBe(from);
  });

  it('does not arrive on a level or contrary trend, nor later than two years on', () => {
    const never = { target: 90, direction: 'increase', from } as const;
    expect(arrivalOf(line([50, 50, 50]), never).on).toBeNull();
    expect(arrivalOf(line([50, 40, 30]), never).on).toBeNull();
    // 0.7 a week is 0.1 a day: 73.1 take 731 days, and 73.2 one too many.
    const slow = line([48.6, 49.3, 50]);
    expect(arrivalOf(slow, { ...never, target: 123.1 }).on).toBe(addDays(from, 731));
    expect(arrivalOf(slow, { ...never, target: 123.2 }).on).toBeNull();
  });

  it('gives a range with the flattest and the steepest slope that are likely', () => {
    const { on, earliest, latest } = arrivalOf(line([40, 44, 43, 50, 52, 51, 60, 58, 66]), {
      target: 80,
      direction: 'increase',
      from,
    });
    expect([earliest, on, latest].every(Boolean)).toBe(true);
    expect((earliest as string) < (on as string) && (on as string) < (latest as string)).toBe(true);
  });
});
