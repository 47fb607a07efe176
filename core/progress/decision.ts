import { type IsoDate, shortDate } from '../calendar/iso-date';
import { type SchoolCalendar, schoolDaysBetween } from '../calendar/school-days';
import { defined } from '../defined';
import { type Direction, signOf } from '../goals/goal';
import { counted, figure } from '../words/counting';
import { type AimLine, aimLineAt } from './aim-line';
import type { CriterionState } from './criterion';
import type { DecisionIs } from './decision-words';
import { LONG_GAP_SCHOOL_DAYS, type SeriesPoint } from './series';

export interface Decision {
  is: DecisionIs;
  /** Why, in a sentence with its numbers. */
  reason: string;
}

/** Points that the four-point rule looks at, and without which it is too early to tell. */
export const POINTS_FOR_VERDICT = 4;

interface Evidence {
  criterion: CriterionState;
  /** All points, in order of date. */
  points: readonly SeriesPoint[];
  /** The points since the aim line began. */
  sinceCourse: readonly SeriesPoint[];
  course: AimLine | null;
  /** What the aim line would run between. */
  baseline: object | null;
  target: object | null;
  direction: Direction;
  /** What stands after a figure: “%”. */
  unit: string;
  /** The first day on which observations were expected. */
  startsOn: IsoDate;
  plannedGap: number | null;
  calendar: SchoolCalendar;
  today: IsoDate;
}

/**
 * What the decision rules say of a goal, in this order: met; no recent data (none measured for 10 school days, or for
 * twice the planned gap); too early to tell (fewer than 4 points since the aim line began); the four-point rule: the last
 * four all on the wrong side of the aim line, or all on the right side; else on course.
 *
 * @see four-point decision rule of data-based program modification (Deno & Mirkin 1977)
 */
export function decisionOf(evidence: Evidence): Decision {
  return metDecision(evidence) ?? recencyDecision(evidence) ?? aimLineDecision(evidence);
}

function metDecision({ criterion }: Evidence): Decision | null {
  if (!criterion.metOn) return null;
  const lapsed = criterion.lapses.length;
  const since = lapsed === 0 ? 'Still met since.' : `Since then ${counted(lapsed, 'point', 'points')} fell short.`;
  return { is: 'met', reason: `First met on ${shortDate(criterion.metOn)}. ${since}` };
}

function recencyDecision({ points, startsOn, plannedGap, calendar, today }: Evidence): Decision | null {
  const last = points.at(-1)?.on;
  const allowed = plannedGap === null ? LONG_GAP_SCHOOL_DAYS : 2 * plannedGap;
  const missed = schoolDaysBetween(last ?? startsOn, today, calendar);
  if (missed < allowed) return null;
  const days = counted(missed, 'school day', 'school days');
  const wanted =
    plannedGap === null
      ? ''
      : ` The plan asks for one at least every ${counted(plannedGap, 'school day', 'school days')}.`;
  return {
    is: 'noRecentData',
    reason: (last ? `Last measured on ${shortDate(last)}, ${days} ago.` : `Not observed yet (${days}).`) + wanted,
  };
}

function aimLineDecision({ sinceCourse, course, baseline, target, direction, unit }: Evidence): Decision {
  if (!course) {
    const why = !target
      ? 'There is no target yet'
      : !baseline
        ? 'There is no baseline yet'
        : 'The target date does not lie after the baseline';
    return { is: 'tooEarly', reason: `${why}, so there is no aim line to compare with.` };
  }
  const n = sinceCourse.length;
  if (n < POINTS_FOR_VERDICT) {
    return {
      is: 'tooEarly',
      reason: `${counted(n, 'point', 'points')} since the aim line began; ${POINTS_FOR_VERDICT} are needed.`,
    };
  }
  const last = sinceCourse.slice(-POINTS_FOR_VERDICT);
  const sign = signOf(direction);
  const leads = last.map((point) => sign * (point.value - aimLineAt(course, point.day)));
  const values = `${last.map((point) => figure(point.value)).join(', ')}${unit}`;
  const ends = [last[0], last.at(-1)].map((point) => figure(aimLineAt(course, defined(point).day)));
  const beside = `the aim line, which ran from ${ends[0]} to ${ends[1]}${unit}`;
  const [above, below] = direction === 'increase' ? ['above', 'below'] : ['below', 'above'];
  if (leads.every((lead) => lead < 0)) {
    return { is: 'belowCourse', reason: `The last four points (${values}) all lie ${below} ${beside}.` };
  }
  if (leads.every((lead) => lead > 0)) {
    return { is: 'aboveCourse', reason: `The last four points (${values}) all lie ${above} ${beside}.` };
  }
  return { is: 'onCourse', reason: `The last four points (${values}) lie on both sides of ${beside}.` };
}
