import { defined } from '../../defined';
/** A day number (whole days since any fixed day) and a value in any unit. */
export interface DayValue {
  day: number;
  value: number;
}

/** A series as two columns of numbers: for sums over many points, and many times faster than to go through the points. */
export interface Columns {
  days: Float64Array;
  values: Float64Array;
}

export function columnsOf(points: readonly DayValue[]): Columns {
  const days = new Float64Array(points.length);
  const values = new Float64Array(points.length);
  for (let i = 0; i < points.length; i++) {
    const point = defined(points[i]);
    days[i] = point.day;
    values[i] = point.value;
  }
  return { days, values };
}

/** A straight line through a series. */
export interface TrendLine {
  /** Change of the value per week, in the value's unit. */
  slopePerWeek: number;
  /** The line's value on a day number. */
  at: (day: number) => number;
}

/** Fewer points than this have no trend. */
export const LEAST_POINTS_FOR_TREND = 3;

export const DAYS_PER_WEEK = 7;

/** The line of a slope per day through a point. */
export function lineThrough(slope: number, { day, value }: DayValue): TrendLine {
  return { slopePerWeek: slope * DAYS_PER_WEEK, at: (other) => value + slope * (other - day) };
}

/** Whether a series can have a trend: enough points, and not all on one day. */
export function canHaveTrend(points: readonly DayValue[]): boolean {
  return points.length >= LEAST_POINTS_FOR_TREND && points.some((point) => point.day !== points[0]?.day);
}
