import { dayNumber, type IsoDate, isoDate } from '../../calendar/iso-date';
import { type Direction, signOf } from '../../goals/goal';

import { DAYS_PER_WEEK, type TrendLine } from './trend-line';

export interface Arrival {
  /** When the trend meets the target; null when it does not within two years. */
  on: IsoDate | null;
  /** The same for the steepest and for the flattest slope of the trend's interval. */
  earliest: IsoDate | null;
  latest: IsoDate | null;
}

/** Beyond this a straight line says nothing any more: “not on this trend”. */
const MOST_DAYS_AHEAD = 731;

/**
 * When a trend meets its target, looked for from a day on, with the range that the slope's interval gives.
 * A line that lies at or beyond the target on that day has arrived on it.
 *
 * @param from  usually today
 * @example arrivalOf(line rising 7 a week and now at 66, { target: 80, direction: 'increase', from: '2026-11-02' }).on // '2026-11-16'
 */
export function arrivalOf(
  trend: TrendLine & { lowLine: TrendLine; highLine: TrendLine },
  { target, direction, from }: { target: number; direction: Direction; from: IsoDate },
): Arrival {
  const [steepest, flattest] =
    direction === 'increase' ? [trend.highLine, trend.lowLine] : [trend.lowLine, trend.highLine];
  const meets = (line: TrendLine) => meetsOn(line, target, direction, from);
  return { on: meets(trend), earliest: meets(steepest), latest: meets(flattest) };
}

function meetsOn(line: TrendLine, target: number, direction: Direction, from: IsoDate): IsoDate | null {
  const sign = signOf(direction);
  const missing = sign * (target - line.at(dayNumber(from)));
  // What is missing may come out a hair above nothing.
  if (missing <= 1e-9) return from;
  const perDay = (sign * line.slopePerWeek) / DAYS_PER_WEEK;
  const days = Math.ceil(missing / perDay - 1e-9);
  return perDay > 0 && days <= MOST_DAYS_AHEAD ? isoDate(dayNumber(from) + days) : null;
}
