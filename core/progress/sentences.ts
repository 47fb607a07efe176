import { shortDate } from '../calendar/iso-date';
import { directionOf, type GoalDefinition } from '../goals/goal';
import { wilsonInterval } from '../statistics/wilson';
import { LEAST_POINTS_FOR_TREND, type TrendLine } from '../trend/theil-sen';
import { counted, figure, percent } from '../words/counting';
import type { Progress } from './progress';
import { verdictWords } from './verdict';

export interface Said {
  title: string;
  text: string;
}

type Sentence = (goal: GoalDefinition, progress: Progress, trend: TrendLine | null) => Said | null;

/**
 * What a goal’s numbers say, in sentences that name them; the most telling first.
 *
 * @param trend  through the points since the course began, null while there is none
 */
export function progressSentences(goal: GoalDefinition, progress: Progress, trend: TrendLine | null): Said[] {
  const all: Sentence[] = [verdictSaid, nowSaid, trendSaid, criterionSaid, lastSaid];
  return all.flatMap((sentence) => sentence(goal, progress, trend) ?? []);
}

const verdictSaid: Sentence = (_, { verdict }) => ({ title: verdictWords[verdict.is].label, text: verdict.reason });

const nowSaid: Sentence = (goal, { now, baseline, wayTravelled, points }) => {
  if (now === null) return null;
  const of =
    points.length < 3
      ? `the median of ${counted(points.length, 'point', 'points')}`
      : 'the median of the last three points';
  const began = baseline
    ? ` It began at ${percent(baseline.value)} on ${shortDate(baseline.on)}${baseline.from === 'phase' ? ', the median of the baseline points' : ', as the plan states'}.`
    : ' There is no baseline yet.';
  const way = wayTravelled === null ? '' : ` ${waySaid(wayTravelled, goal.target)}`;
  return { title: `Now ${percent(now)}`, text: `That is ${of}.${began}${way}` };
};

/** The figure is shown from 0 to 100; what lies beyond is said in words and kept. */
function waySaid(way: number, target: number): string {
  const true_ = Math.round(way * 100);
  if (way < 0) return `It now lies on the far side of the baseline (${true_}% of the way to ${percent(target)}).`;
  if (way > 1) return `The way to ${percent(target)} is behind (${true_}%).`;
  return `${true_}% of the way to ${percent(target)} is behind.`;
}

const trendSaid: Sentence = (_, { course, points }, trend) => {
  if (points.length === 0) return null;
  if (!trend)
    return { title: 'No trend yet', text: `A trend needs ${LEAST_POINTS_FOR_TREND} points since the course began.` };
  const slope = figure(Math.abs(trend.slopePerWeek));
  const title = slope === '0' ? 'Level' : `${trend.slopePerWeek > 0 ? 'Up' : 'Down'} ${slope} points a week`;
  const asks = course ? ` The course asks for ${figure(course.slopePerWeek)} a week.` : '';
  return { title, text: `The median of the slopes between all points since the course began (Theil–Sen).${asks}` };
};

const criterionSaid: Sentence = (goal, { criterion }) => {
  if (criterion.metOn) return null;
  const { rule, value } = goal.criterion;
  const way = directionOf(goal.criterion) === 'increase' ? 'at or above' : 'at or below';
  const unit = `${goal.pointPer}s`;
  const title = `${criterion.passing} of ${criterion.needed} ${unit} so far`;
  return rule.kind === 'ofLast'
    ? {
        title,
        text: `Of the last ${rule.n} ${unit}, ${criterion.passing} came ${way} ${percent(value)}; ${rule.k} are needed.`,
      }
    : { title, text: `${criterion.passing} in a row came ${way} ${percent(value)}; ${rule.n} in a row are needed.` };
};

const lastSaid: Sentence = (_, { points }) => {
  const last = points.at(-1);
  if (!last) return null;
  const { low, high } = wilsonInterval(last.successes, last.opportunities);
  return {
    title: `${last.successes} of ${last.opportunities} on ${shortDate(last.on)}`,
    text: `${percent(last.value)}; with so few chances the true share is likely between ${percent(100 * low)} and ${percent(100 * high)} (Wilson, 95%).`,
  };
};
