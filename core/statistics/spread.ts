import { defined } from '../defined';
/** The sum; 0 of no values. */
export function sum(values: readonly number[]): number {
  let total = 0;
  for (const value of values) total += value;
  return total;
}

/**
 * The smallest value.
 *
 * @param values  at least one
 */
export const smallest = (values: readonly number[]) => values.reduce((a, b) => Math.min(a, b));

/**
 * The largest value.
 *
 * @param values  at least one
 */
export const largest = (values: readonly number[]) => values.reduce((a, b) => Math.max(a, b));

/**
 * The arithmetic mean.
 *
 * @param values  any unit, at least one
 * @throws RangeError when there is no value
 * @example mean([1, 2, 6]) // 3
 */
export function mean(values: ArrayLike<number>): number {
  if (values.length === 0) throw new RangeError('The mean needs at least one value.');
  let sum = 0;
  for (let i = 0; i < values.length; i++) sum += defined(values[i]);
  return sum / values.length;
}

/**
 * The standard deviation of a sample, with n − 1 below the line.
 *
 * @param values  any unit
 * @returns the same unit; null with fewer than two values, which have no spread to speak of
 * @example standardDeviation([2, 4, 4, 4, 5, 5, 7, 9]) // 2.138…
 */
export function standardDeviation(values: readonly number[]): number | null {
  if (values.length < 2) return null;
  const middle = mean(values);
  let squares = 0;
  for (const value of values) squares += (value - middle) ** 2;
  return Math.sqrt(squares / (values.length - 1));
}

/** A figure to its tenth, as a clock is read. */
export const tenths = (value: number): number => Math.round(value * 10) / 10;
