import { dateSeenFrom, type IsoDate, shortDate } from '../calendar/iso-date';
import type { SchoolCalendar } from '../calendar/school-days';
import { directionOf, type GoalDefinition } from '../goals/goal';
import { measureOf } from '../measures/measure';
import { wilsonInterval } from '../statistics/wilson';
import { changeFigure, counted, figure, percent, signed } from '../words/counting';
import { decisionWords } from './decision-words';
import { comparePhases, type EnoughPoints, type NamedPhase } from './phases/phases';
import type { Progress } from './progress';
import { longGaps, phaseName, type SeriesPoint } from './series';
import { arrivalOf } from './trend/arrival';
import { mannKendall } from './trend/mann-kendall';
import { type TheilSenLine, theilSen } from './trend/theil-sen';
import { LEAST_POINTS_FOR_TREND } from './trend/trend-line';
import { type TrendRule, trendRule, trendRuleWords } from './trend-rule';

export interface Said {
  title: string;
  text: string;
}

/** What the sentences are made of: the goal, what is said of it, and its trend. */
interface Told {
  goal: GoalDefinition;
  progress: Progress;
  trend: TheilSenLine | null;
  rule: TrendRule | null;
  /** A value of the goal with its unit. */
  value: (value: number) => string;
  /** What a change is counted in. */
  change: string;
  today: IsoDate;
  calendar: SchoolCalendar;
}

type Sentence = (told: Told) => Said | null;

/** The trend through the points since the aim line began; null while there are too few. */
export const trendOf = ({ sinceCourse }: Progress): TheilSenLine | null => theilSen(sinceCourse);

/** What a goal’s numbers say, in sentences that name them; the most telling first. */
export function progressSentences(
  goal: GoalDefinition,
  progress: Progress,
  trend: TheilSenLine | null,
  { today, calendar }: { today: IsoDate; calendar: SchoolCalendar },
): Said[] {
  const measure = measureOf(goal.measure);
  const { change } = measure.axis;
  const rule = trendRule(progress.sinceCourse, trend, progress.course, {
    direction: directionOf(goal.criterion),
    change,
  });
  const value = (some: number) => measure.said(some);
  const told: Told = { goal, progress, trend, rule, value, change, today, calendar };
  const all: Sentence[] = [
    decisionSaid,
    ruleSaid,
    nowSaid,
    trendSaid,
    arrivalSaid,
    phasesSaid,
    criterionSaid,
    gapSaid,
    lastSaid,
  ];
  return all.flatMap((sentence) => sentence(told) ?? []);
}

const decisionSaid: Sentence = ({ progress: { decision } }) => ({
  title: decisionWords[decision.is].label,
  text: decision.reason,
});

const ruleSaid: Sentence = ({ rule }) =>
  rule === null || rule.is === 'tooEarly' ? null : { title: trendRuleWords[rule.is], text: rule.reason };

const nowSaid: Sentence = ({ goal, progress: { now, baseline, wayTravelled, points }, value }) => {
  if (now === null) return null;
  const of = measureOf(goal.measure).accumulates
    ? 'all that came together so far'
    : points.length < 3
      ? `the median of ${counted(points.length, 'point', 'points')}`
      : 'the median of the last three points';
  const began = baseline
    ? ` It began at ${value(baseline.value)} on ${shortDate(baseline.on)}${baseline.from === 'phase' ? ', the median of the baseline points' : ', as the plan states'}.`
    : ' There is no baseline yet.';
  const way = wayTravelled === null ? '' : ` ${waySaid(wayTravelled, value(goal.target))}`;
  return { title: `Now ${value(now)}`, text: `That is ${of}.${began}${way}` };
};

/** The figure is shown from 0 to 100; what lies beyond is said in words and kept. */
function waySaid(way: number, target: string): string {
  const true_ = Math.round(way * 100);
  if (way < 0) return `It is on the far side of the baseline now (${true_}% of the way to ${target}).`;
  if (way > 1) return `It is past the target of ${target} (${true_}% of the way).`;
  return `${true_}% of the way from baseline to ${target}.`;
}

const trendSaid: Sentence = ({ progress: { course, points, sinceCourse }, trend, change }) => {
  if (points.length === 0) return null;
  if (!trend)
    return { title: 'No trend yet', text: `A trend needs ${LEAST_POINTS_FOR_TREND} points since the aim line began.` };
  const slope = changeFigure(trend.slopePerWeek);
  const title = slope === '0' ? 'Level' : `${trend.slopePerWeek > 0 ? 'Up' : 'Down'} ${slope} ${change} a week`;
  const asks = course ? ` The aim line asks for ${signed(course.slopePerWeek).replace('+', '')} a week.` : '';
  const kendall = mannKendall(sinceCourse);
  const test = kendall ? `; Mann–Kendall ${chance(kendall.p)}` : '';
  const sure = `between ${signed(trend.low)} and ${signed(trend.high)} with ${percent(100 * trend.confidence)} confidence (Sen${test})`;
  return {
    title,
    text: `The median of the slopes between all points since the aim line began (Theil–Sen), likely ${sure}.${asks}`,
  };
};

/** A chance as it is printed in a report: “p = .03”, “p < .001”. */
function chance(p: number): string {
  if (p < 0.001) return 'p < .001';
  const text = p.toFixed(p < 0.1 ? 3 : 2);
  return `p = ${text.replace(/^0/, '')}`;
}

const arrivalSaid: Sentence = ({ goal, progress: { criterion, now }, trend, value, today }) => {
  if (!trend || criterion.metOn || now === null) return null;
  const target = value(goal.target);
  const { on, earliest, latest } = arrivalOf(trend, {
    target: goal.target,
    direction: directionOf(goal.criterion),
    from: today,
  });
  if (on === today) return null;
  if (!on) return { title: `${target} is not on this trend`, text: 'Not within two years, if it goes on as it does.' };
  const late = on > goal.targetOn ? ', after the target date' : '';
  const range =
    earliest && latest ? ` Likely between ${dateSeenFrom(earliest, today)} and ${dateSeenFrom(latest, today)}.` : '';
  const open =
    earliest && !latest
      ? ` At the earliest ${dateSeenFrom(earliest, today)}; how late it may be cannot be said from these points.`
      : '';
  return {
    title: `${target} about ${dateSeenFrom(on, today)}`,
    text: `If it goes on as it does${late}.${range}${open}`,
  };
};

/** The goal’s phases with their points as it is measured now, and what lies before the first of them. */
export function namedPhases({ phases }: Pick<GoalDefinition, 'phases'>, points: readonly SeriesPoint[]): NamedPhase[] {
  return [-1, ...phases.keys()].map((index) => ({
    name: phaseName(phases, index),
    points: points.filter((point) => point.phase === index && !point.isFormer),
  }));
}

const enoughWords: Record<EnoughPoints, string> = {
  enough: '',
  withReservations: ' Fewer than 5 points in one of them: with reservations.',
  tooFew: ' Fewer than 3 points in one of them: too few to rely on.',
};

const phasesSaid: Sentence = ({ goal, progress, value, change }) => {
  const [before, after] = namedPhases(goal, progress.points)
    .filter(({ points }) => points.length > 0)
    .slice(-2);
  if (!before || !after) return null;
  const { nap, pnd, tauU, immediate, enough } = comparePhases(before, after, directionOf(goal.criterion));
  const unit = change === 'points' ? 'points' : value(Math.abs(immediate));
  const step =
    figure(immediate) === '0'
      ? 'no change at the line'
      : `${change === 'points' ? `${figure(Math.abs(immediate))} ${unit}` : unit} ${immediate > 0 ? 'better' : 'worse'} at the line`;
  return {
    title: `${after.name} after ${before.name}`,
    text: `${percent(100 * nap)} of all pairs of points improve (NAP ${decimal(nap)}), ${percent(100 * pnd)} of the points lie beyond the best before (PND); ${step}; Tau-U ${decimal(tauU)}.${enoughWords[enough]}`,
  };
};

/** Two decimals, as coefficients are printed. */
const decimal = (value: number) =>
  value
    .toFixed(2)
    .replace(/^(-?)0\./, '$1.')
    .replace('-', '−');

const criterionSaid: Sentence = ({ goal, progress: { criterion }, value }) => {
  if (criterion.metOn) return null;
  const { rule } = goal.criterion;
  const way = directionOf(goal.criterion) === 'increase' ? 'at or above' : 'at or below';
  const unit = `${goal.pointPer}s`;
  const title = `${criterion.passing} of ${criterion.needed} ${unit} so far`;
  const reached = value(goal.criterion.value);
  return rule.kind === 'ofLast'
    ? {
        title,
        text: `Of the last ${rule.n} ${unit}, ${criterion.passing} came ${way} ${reached}; ${rule.k} are needed.`,
      }
    : { title, text: `${criterion.passing} in a row came ${way} ${reached}; ${rule.n} in a row are needed.` };
};

const gapSaid: Sentence = ({ progress: { points }, calendar }) => {
  const gaps = longGaps(points, calendar);
  const longest = gaps.toSorted((a, b) => b.schoolDays - a.schoolDays)[0];
  if (!longest) return null;
  return {
    title: `${counted(gaps.length, 'stretch', 'stretches')} without a point`,
    text: `The longest lies between ${shortDate(longest.after)} and ${shortDate(longest.before)}: ${counted(longest.schoolDays, 'school day', 'school days')} (${counted(longest.calendarDays, 'calendar day', 'calendar days')}).`,
  };
};

const lastSaid: Sentence = ({ goal, progress: { points }, value }) => {
  const last = points.at(-1);
  const measure = measureOf(goal.measure);
  if (!last || !measure.isShare) return null;
  const { low, high } = wilsonInterval(last.amount, last.weight);
  return {
    title: `${measure.basis(last)} on ${shortDate(last.on)}`,
    text: `${value(last.value)}; with so few chances the true share is likely between ${percent(100 * low)} and ${percent(100 * high)} (Wilson, 95%).`,
  };
};
