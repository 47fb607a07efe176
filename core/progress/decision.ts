import { type IsoDate, shortDate } from '../calendar/iso-date';
import { type SchoolCalendar, schoolDaysBetween } from '../calendar/school-days';
import { defined } from '../defined';
import { type Direction, signOf } from '../goals/goal';
import type { CriterionDefinition } from '../measures/criterion-definition';
import { changeFigure, counted, figure, signed } from '../words/counting';
import { type AimLine, aimLineAt } from './aim-line';
import { type DecisionIs, decisionWords } from './decision-words';
import type { Mastery } from './mastery';
import { LONG_GAP_SCHOOL_DAYS, type SeriesPoint } from './series';
import { type DrawnTrend, meanDistance, tooEarlyForTrend } from './trend/drawn-trend';
import type { LeastVariance, WeightedPoint } from './trend/weighted';

/** What the decision rules say of a goal: the same on every screen, in every message and file. */
export interface Decision {
  is: DecisionIs;
  /** The word of it, with its date where it has one: “Met, not checked since Nov 3”. */
  label: string;
  /** Why, in a sentence with its numbers. */
  reason: string;
  /** The trend against the aim line in words; why there is none, where there is none. */
  trend: string;
}

/** Points that the four-point rule looks at, and without which it is too early to tell. */
export const POINTS_FOR_FOUR_POINT_RULE = 4;
/** From so many points on the mean distance to the aim line speaks. */
export const POINTS_FOR_DISTANCE = 8;
/** It looks at so many points at most. */
const MOST_POINTS_FOR_DISTANCE = 20;

/** What the rules look at. */
export interface Evidence {
  mastery: Mastery;
  criterion: CriterionDefinition | null;
  /** All points, in order of date. */
  points: readonly SeriesPoint[];
  /** The points of the present phase since the aim line began, with weights above 0. */
  present: readonly (SeriesPoint & WeightedPoint)[];
  phase: { label: string; isBaseline: boolean } | null;
  aimLine: AimLine | null;
  trend: DrawnTrend | null;
  least: LeastVariance;
  /** What the aim line would run between. */
  baseline: object | null;
  target: object | null;
  direction: Direction;
  /** What stands after a figure, “%”; and what a change is counted in, “points”. */
  unit: string;
  change: string;
  /** What one point is: a day or a session. */
  pointPer: 'day' | 'session';
  accumulates: boolean;
  /** The first day on which observations were expected. */
  startsOn: IsoDate;
  plannedGap: number | null;
  calendar: SchoolCalendar;
  today: IsoDate;
}

type Found = Pick<Decision, 'is' | 'reason'> & { label?: string };

/**
 * What the decision rules say of a goal, in this order: met (holding, not holding, or not checked since); no recent data (none measured
 * for 10 school days, or for twice the planned gap); nothing in a baseline phase; too early to tell (fewer than 4 points in the present
 * phase since the aim line began); with fewer than 8 points the four-point rule, provisional; from 8 points on the mean distance to the
 * aim line of the last 20 with its 95% interval: wholly on one side it lies behind or ahead, unless the last four all lie on the other.
 *
 * @see four-point decision rule of data-based program modification (Deno & Mirkin 1977); the mean distance is our own rule: how much data
 * it takes is in docs/measures.md
 */
export function decisionOf(evidence: Evidence): Decision {
  const found =
    metDecision(evidence) ??
    recencyDecision(evidence) ??
    phaseDecision(evidence) ??
    (evidence.present.length < POINTS_FOR_DISTANCE || evidence.accumulates
      ? fourPointDecision(evidence)
      : distanceDecision(evidence));
  return { ...found, label: found.label ?? decisionWords[found.is].label, trend: trendAgainstAimLine(evidence) };
}

/** School days since the last point, or since observing began. */
const missedDays = ({ points, startsOn, calendar, today }: Evidence) =>
  schoolDaysBetween(points.at(-1)?.on ?? startsOn, today, calendar);

const allowedGap = ({ plannedGap }: Evidence) => (plannedGap === null ? LONG_GAP_SCHOOL_DAYS : 2 * plannedGap);

const daysOf = ({ pointPer }: Evidence, n: number) => counted(n, pointPer, `${pointPer}s`);

function metDecision(evidence: Evidence): Found | null {
  const { mastery, points, criterion } = evidence;
  if (!mastery.metOn) return null;
  const first = `First met on ${shortDate(mastery.metOn)}`;
  const missed = missedDays(evidence);
  const lastOn = points.at(-1)?.on;
  if (lastOn && missed >= allowedGap(evidence)) {
    return {
      is: 'metNotChecked',
      label: `${decisionWords.metNotChecked.label} ${shortDate(lastOn)}`,
      reason: `${first}. Nothing was recorded for ${counted(missed, 'school day', 'school days')}.`,
    };
  }
  const now =
    criterion?.rule.kind === 'inARow'
      ? `${mastery.passing} in a row at the end`
      : `${mastery.passing} of the last ${daysOf(evidence, mastery.looked)}`;
  // What was once met and has not lapsed need not be met by what is looked at now: then it is neither said to be met still, nor not.
  const isMetNow = mastery.lastMetOn === lastOn;
  const said =
    mastery.lastMetOn && !isMetNow
      ? mastery.lastMetOn === mastery.metOn
        ? `Met on ${shortDate(mastery.metOn)} only`
        : `${first}, last met on ${shortDate(mastery.lastMetOn)}`
      : `${first}, and met now`;
  const reason = `${said}: ${now}.`;
  return { is: mastery.holding ? 'metHolding' : 'metNotHolding', reason };
}

function recencyDecision(evidence: Evidence): Found | null {
  const { points, plannedGap } = evidence;
  const missed = missedDays(evidence);
  if (missed < allowedGap(evidence)) return null;
  const last = points.at(-1)?.on;
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

function phaseDecision({ phase, aimLine, baseline, target, present }: Evidence): Found | null {
  if (phase?.isBaseline) {
    return { is: 'tooEarly', reason: `“${phase.label}” is a baseline phase: nothing is decided in it.` };
  }
  if (!aimLine) {
    const why = !target
      ? 'There is no target yet'
      : !baseline
        ? 'There is no baseline yet'
        : 'The target date does not lie after the baseline';
    return { is: 'tooEarly', reason: `${why}, so there is no aim line to compare with.` };
  }
  const n = present.length;
  if (n >= POINTS_FOR_FOUR_POINT_RULE) return null;
  const since = phase ? `in “${phase.label}”` : 'since the aim line began';
  return {
    is: 'tooEarly',
    reason: `${counted(n, 'score', 'scores')} ${since}; ${POINTS_FOR_FOUR_POINT_RULE} are needed.`,
  };
}

/** How many of the last four lie ahead of the aim line, and behind it, in the direction of the goal. */
function lastFour({ present, aimLine, direction }: Evidence) {
  const last = present.slice(-POINTS_FOR_FOUR_POINT_RULE);
  const leads = last.map(({ value, day }) => signOf(direction) * (value - aimLineAt(defined(aimLine), day)));
  return { last, ahead: leads.every((lead) => lead > 1e-9), behind: leads.every((lead) => lead < -1e-9) };
}

/** Where a value that is better or worse than the line lies, seen on the graph. */
const sideOf = (isAhead: boolean, direction: Direction) => ((direction === 'increase') === isAhead ? 'above' : 'below');

function fourPointDecision(evidence: Evidence): Found {
  const { aimLine, direction, unit, accumulates } = evidence;
  const { last, ahead, behind } = lastFour(evidence);
  const values = `${last.map(({ value }) => figure(value)).join(', ')}${unit}`;
  const [from, to] = [last[0], last.at(-1)].map((point) => figure(aimLineAt(defined(aimLine), defined(point).day)));
  const line = from === to ? `about ${from}${unit}` : `${from} to ${to}${unit}`;
  const provisional = accumulates ? '' : ` Provisional: from ${POINTS_FOR_DISTANCE} scores on, their average decides.`;
  const text = (where: string) => `The last four scores (${values}) ${where} the aim line (${line}).${provisional}`;
  if (behind) return { is: 'below', reason: text(`are all ${sideOf(false, direction)}`) };
  if (ahead) return { is: 'above', reason: text(`are all ${sideOf(true, direction)}`) };
  return { is: 'noChange', reason: text('are close to') };
}

function distanceDecision(evidence: Evidence): Found {
  const { present, aimLine, direction, change, least } = evidence;
  const last = present.slice(-MOST_POINTS_FOR_DISTANCE);
  const { mean, low, high } = meanDistance(last, (day) => aimLineAt(defined(aimLine), day), least);
  const side = mean > 0 ? 'above' : 'below';
  const room = changeFigure((high - low) / 2);
  const distance = Math.abs(mean) < 0.05 ? 'on' : `${changeFigure(mean)} ${change} ${side}`;
  const head = `Over the last ${daysOf(evidence, last.length)} ${distance} the aim line, give or take ${room}`;
  const isAhead = signOf(direction) * mean > 0;
  if (low <= 0 && high >= 0) return { is: 'noChange', reason: `${head}: too close to tell apart.` };
  const four = lastFour(evidence);
  if (isAhead ? four.behind : four.ahead) {
    return {
      is: 'noChange',
      reason: `${head}; but the last four scores are all ${sideOf(!isAhead, direction)} it.`,
    };
  }
  return { is: isAhead ? 'above' : 'below', reason: `${head}.` };
}

/** “Up 1.2 points a week, give or take 0.8, slower than the aim line (2).” */
function trendAgainstAimLine({
  present,
  trend,
  aimLine,
  change,
  direction,
  accumulates,
}: Pick<Evidence, 'present' | 'trend' | 'aimLine' | 'change' | 'direction' | 'accumulates'>): string {
  if (accumulates) return 'A total only grows: its pace is said in place of a trend.';
  if (!trend) return tooEarlyForTrend(present) ?? 'There is no trend yet.';
  const said = trendSaid(trend, change);
  if (!aimLine) return `${said}.`;
  const asked = aimLine.slopePerWeek;
  const sign = signOf(direction);
  const against =
    trend.low > asked || trend.high < asked
      ? sign * (trend.slopePerWeek - asked) > 0
        ? 'faster than the aim line'
        : 'slower than the aim line'
      : 'not to be told from the aim line';
  return `${said}: ${against} (${signed(asked)} a week).`;
}

/**
 * A trend in words, with its interval.
 *
 * @example “Up 1.2 points a week, give or take 0.8”
 */
function trendSaid({ slopePerWeek, low, high }: DrawnTrend, change: string): string {
  const size = changeFigure(slopePerWeek);
  const room = changeFigure((high - low) / 2);
  const way = size === '0' ? 'Level' : `${slopePerWeek > 0 ? 'Up' : 'Down'} ${size} ${change} a week`;
  return room === '0' ? way : `${way}, give or take ${room}`;
}
