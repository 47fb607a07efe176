import { defined } from '../defined';
import { type Direction, signOf } from '../goals/goal';
import { counted, signed } from '../words/counting';
import type { AimLine } from './aim-line';
import type { TheilSenLine } from './trend/theil-sen';
import type { DayValue } from './trend/trend-line';

export interface TrendRule {
  is: 'faster' | 'asFast' | 'slower' | 'tooEarly';
  /** Why, in a sentence with its numbers. */
  reason: string;
}

/** The rule speaks from so many points on, over so many weeks. */
export const POINTS_FOR_TREND_RULE = 8;
export const WEEKS_FOR_TREND_RULE = 3;

/** The word of each outcome. */
export const trendRuleWords: Record<TrendRule['is'], string> = {
  faster: 'Faster than the aim line',
  asFast: 'As fast as the aim line',
  slower: 'Slower than the aim line',
  tooEarly: 'Too early for the trend rule',
};

/**
 * The trend rule: with 8 points or more over 3 weeks or more, the slope of the trend against that of the aim line, in the
 * direction in which the goal goes. Where the aim line lies within the trend's interval the sentence says that the difference
 * is not sure.
 *
 * @param points  the points since the aim line began, in order of date
 * @param change  what a change is counted in: “points”
 * @returns null where there is no aim line
 * @see trend-based decision rule of data-based program modification (Deno & Mirkin 1977)
 */
export function trendRule(
  points: readonly DayValue[],
  trend: TheilSenLine | null,
  course: AimLine | null,
  { direction, change }: { direction: Direction; change: string },
): TrendRule | null {
  if (!course) return null;
  const days = points.length === 0 ? 0 : defined(points.at(-1)).day - defined(points[0]).day;
  if (!trend || points.length < POINTS_FOR_TREND_RULE || days < 7 * WEEKS_FOR_TREND_RULE) {
    const weeks = Math.floor(days / 7);
    return {
      is: 'tooEarly',
      reason: `${counted(points.length, 'point', 'points')} over ${counted(weeks, 'week', 'weeks')} since the aim line began; ${POINTS_FOR_TREND_RULE} over ${WEEKS_FOR_TREND_RULE} are needed.`,
    };
  }
  const lead = signOf(direction) * (trend.slopePerWeek - course.slopePerWeek);
  // Slopes that print the same are not told apart.
  const is = Math.abs(lead) < 1e-9 ? 'asFast' : lead > 0 ? 'faster' : 'slower';
  const isSure = course.slopePerWeek < trend.low || course.slopePerWeek > trend.high;
  const doubt =
    is === 'asFast' || isSure
      ? ''
      : ` Its interval, ${signed(trend.low)} to ${signed(trend.high)}, includes the aim line too.`;
  return {
    is,
    reason: `The trend goes ${signed(trend.slopePerWeek)} ${change} a week, the aim line ${signed(course.slopePerWeek)}.${doubt}`,
  };
}
