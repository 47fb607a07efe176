import { dateSeenFrom, type IsoDate, shortDate } from '../calendar/iso-date';
import type { SchoolCalendar } from '../calendar/school-days';
import { directionOf, type GoalDefinition } from '../goals/goal';
import { measureOf } from '../measures/measure';
import { wilsonInterval } from '../statistics/wilson';
import { counted, percent, readable } from '../words/counting';
import type { Progress } from './progress';
import { longGaps } from './series';
import { arrivalOf } from './trend/arrival';

export interface Said {
  title: string;
  text: string;
}

/** What the sentences are made of: the goal, and what is said of it. */
interface Told {
  goal: GoalDefinition;
  progress: Progress;
  /** A value of the goal with its unit, never rounded up to the target. */
  value: (value: number) => string;
  today: IsoDate;
  calendar: SchoolCalendar;
}

type Sentence = (told: Told) => Said | null;

/** A value of a goal with its unit, as it is read: cut where rounding would carry it to the target or the criterion. */
export function valueSaid(goal: Pick<GoalDefinition, 'measure' | 'target' | 'criterion'>, value: number): string {
  const measure = measureOf(goal.measure);
  return measure.said(readable(value, [goal.target, goal.criterion.value], measure.axis.unit === '%' ? 0 : 1));
}

/** Where a goal is now, as every screen says it: “> 30 s” where it lies beyond the limit; null without a score in the present phase. */
export function nowText(goal: Parameters<typeof valueSaid>[0], { now, isNowBeyond }: Progress): string | null {
  return now === null ? null : `${isNowBeyond ? '> ' : ''}${valueSaid(goal, now)}`;
}

/** What a goal’s numbers say, in sentences that name them; the most telling first. */
export function progressSentences(
  goal: GoalDefinition,
  progress: Progress,
  { today, calendar }: { today: IsoDate; calendar: SchoolCalendar },
): Said[] {
  const told: Told = { goal, progress, value: (value) => valueSaid(goal, value), today, calendar };
  const all: Sentence[] = [decisionSaid, trendText, nowSaid, paceText, arrivalSaid, masteryText, gapSaid, lastSaid];
  return all.flatMap((sentence) => sentence(told) ?? []);
}

const decisionSaid: Sentence = ({ progress: { decision } }) => ({ title: decision.label, text: decision.reason });

const trendText: Sentence = ({ goal, progress: { decision, points, trend } }) =>
  points.length === 0 || measureOf(goal.measure).accumulates
    ? null
    : { title: trend ? 'Trend' : 'No trend yet', text: decision.trend };

const beganWords = { plan: ', as the plan states', phase: ', the median of the baseline scores', start: '' };

const nowSaid: Sentence = ({ goal, progress, value }) => {
  const { now, baseline, points } = progress;
  if (now === null) return points.length === 0 ? null : { title: 'No score yet in this phase', text: '' };
  const of = measureOf(goal.measure).accumulates
    ? 'all that came together so far'
    : progress.nowOf < 3
      ? `the median of ${counted(progress.nowOf, 'score', 'scores')}`
      : 'the median of the last three scores';
  const began = baseline
    ? ` It began at ${value(baseline.value)} on ${shortDate(baseline.on)}${beganWords[baseline.from]}.`
    : ' There is no baseline yet.';
  const way = wayWords(goal, progress);
  return { title: `Now ${nowText(goal, progress)}`, text: `That is ${of}.${began}${way === null ? '' : ` ${way}`}` };
};

/**
 * How far a goal has come from its baseline to its target, in words; null while one of them is missing.
 *
 * @example “60% of the way from baseline to target.”
 */
export function wayWords(goal: GoalDefinition, { progressToTarget: way, now, baseline }: Progress): string | null {
  if (way === null || now === null || !baseline) return null;
  if (way >= 1) return way === 1 ? 'At the target.' : 'Past the target.';
  if (way <= 0) {
    const side = way === 0 ? 'where it began' : directionOf(goal.criterion) === 'increase' ? 'below' : 'above';
    const start = way === 0 ? '' : ` the start of ${valueSaid(goal, baseline.value)}`;
    return `None yet: now ${valueSaid(goal, now)}, ${side}${start}.`;
  }
  return `${percent(100 * way)} of the way from baseline to target.`;
}

/** A total only grows: what is said is its pace. */
const paceText: Sentence = ({ progress: { pace }, today }) => {
  if (!pace) return null;
  const needs =
    pace.needed === null ? '' : ` To be there by the target date it takes ${pace.neededSaid} in as many days.`;
  const title = pace.on ? `The whole about ${dateSeenFrom(pace.on, today)}` : 'Not to be foreseen';
  const range =
    pace.earliest && pace.latest
      ? ` Likely between ${dateSeenFrom(pace.earliest, today)} and ${dateSeenFrom(pace.latest, today)}.`
      : pace.earliest
        ? ` At the earliest ${dateSeenFrom(pace.earliest, today)}; how late cannot be said from these entries.`
        : '';
  return {
    title,
    text: `${pace.said} in the last ${counted(pace.days, 'school day', 'school days')}.${needs}${pace.on ? range : ''}`,
  };
};

const arrivalSaid: Sentence = ({ goal, progress: { mastery, now, trend }, value, today }) => {
  if (!trend || mastery.metOn || now === null) return null;
  const target = value(goal.target);
  const direction = directionOf(goal.criterion);
  const { on, earliest, latest } = arrivalOf(trend, { target: goal.target, direction, from: today });
  if (on === today) return null;
  if (!on) {
    return earliest
      ? {
          title: `${target} cannot be foreseen`,
          text: `At the earliest ${dateSeenFrom(earliest, today)}; as it goes now, not within two years.`,
        }
      : { title: `${target} is not in sight`, text: 'Not within two years, if it goes on as it does.' };
  }
  const late = on > goal.targetOn ? ', after the target date' : '';
  const range =
    earliest && latest ? ` Likely between ${dateSeenFrom(earliest, today)} and ${dateSeenFrom(latest, today)}.` : '';
  const open =
    earliest && !latest
      ? ` At the earliest ${dateSeenFrom(earliest, today)}; how late it may be cannot be said from these scores.`
      : '';
  return {
    title: `${target} about ${dateSeenFrom(on, today)}`,
    text: `If it goes on as it does${late}.${range}${open}`,
  };
};

const masteryText: Sentence = ({ goal, progress: { mastery }, value }) => {
  if (mastery.metOn) return null;
  const { rule } = goal.criterion;
  const way = directionOf(goal.criterion) === 'increase' ? 'at or above' : 'at or below';
  const unit = `${goal.pointPer}s`;
  const title = `${mastery.passing} of ${mastery.needed} ${unit} so far`;
  const reached = value(goal.criterion.value);
  return rule.kind === 'ofLast'
    ? { title, text: `Of the last ${rule.n} ${unit}, ${mastery.passing} came ${way} ${reached}; ${rule.k} are needed.` }
    : { title, text: `${mastery.passing} in a row came ${way} ${reached}; ${rule.n} in a row are needed.` };
};

const gapSaid: Sentence = ({ progress: { points }, calendar }) => {
  const gaps = longGaps(points, calendar);
  const longest = gaps.toSorted((a, b) => b.schoolDays - a.schoolDays)[0];
  if (!longest) return null;
  return {
    title: `${counted(gaps.length, 'stretch', 'stretches')} without a score`,
    text: `The longest lies between ${shortDate(longest.after)} and ${shortDate(longest.before)}: ${counted(longest.schoolDays, 'school day', 'school days')} (${counted(longest.calendarDays, 'calendar day', 'calendar days')}).`,
  };
};

/** Only of trials: steps of a task and neighbouring intervals are no independent opportunities. */
const lastSaid: Sentence = ({ goal, progress: { points }, value }) => {
  const last = points.at(-1);
  const measure = measureOf(goal.measure);
  if (!last || last.isFormer || goal.measure.kind !== 'trials' || last.weight < 1) return null;
  const { low, high } = wilsonInterval(last.amount, last.weight);
  const { one, many } = measure.weightNoun;
  return {
    title: `${measure.basis(last)} on ${shortDate(last.on)}`,
    text: `${value(last.value)}; with ${counted(last.weight, one, many)} the true share is likely between ${percent(100 * low)} and ${percent(100 * high)}.`,
  };
};
