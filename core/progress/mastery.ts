import type { IsoDate } from '../calendar/iso-date';
import { defined } from '../defined';
import type { GoalDefinition } from '../goals/goal';
import type { CriterionDefinition } from '../measures/criterion-definition';
import { measureOf } from '../measures/measure';
import { wilsonInterval } from '../statistics/wilson';
import type { SeriesPoint } from './series';

/** Whether a goal was ever met, and whether that still holds. */
export interface Mastery {
  /** The first day on which all of it held; null while it never did. */
  metOn: IsoDate | null;
  /** Whether it holds now; null while it was never met. */
  holding: boolean | null;
  /** The last day on which all of it held; null while it never did. */
  lastMetOn: IsoDate | null;
  /** Of the points now looked at, how many pass (for “in a row”: how many in a row at the end). */
  passing: number;
  /** How many points are looked at now: at most as many as the rule names. */
  looked: number;
  needed: number;
}

export const NO_MASTERY: Mastery = {
  ...{ metOn: null, holding: null, lastMetOn: null },
  ...{ passing: 0, looked: 0, needed: 0 },
};

/** A point as the criterion sees it. */
export type CriterionPoint = Pick<SeriesPoint, 'on' | 'value' | 'amount' | 'weight' | 'phase' | 'isBeyond'>;

/** The points of each place and of each observer, where the criterion asks for more than one. */
export interface OwnPoints {
  locations: readonly (readonly CriterionPoint[])[];
  observers: readonly (readonly CriterionPoint[])[];
}

/** Whether one value reaches the criterion's value, in its direction. */
export function reaches(value: number, criterion: Pick<CriterionDefinition, 'comparison' | 'value'>): boolean {
  // A share such as 7 of 10 may come out a hair below 70.
  return criterion.comparison === 'atLeast' ? value >= criterion.value - 1e-9 : value <= criterion.value + 1e-9;
}

/** What lies somewhere beyond its value is never a success. */
const passes = ({ value, isBeyond }: CriterionPoint, criterion: CriterionDefinition) =>
  !isBeyond && reaches(value, criterion);

/** How many of a window must pass, and how many it looks at. */
const ruleOf = ({ rule }: CriterionDefinition) => ({ k: rule.kind === 'ofLast' ? rule.k : rule.n, n: rule.n });

/** The points that count, each with the window that ends with it: of its own phase only. */
function windowsOf(points: readonly CriterionPoint[], criterion: CriterionDefinition) {
  const counting = points.filter((point) => point.weight >= criterion.minimumOpportunities);
  const { k, n } = ruleOf(criterion);
  return counting.map((point, i) => {
    const window = counting.slice(Math.max(0, i + 1 - n), i + 1).filter(({ phase }) => phase === point.phase);
    const passing = window.filter((one) => passes(one, criterion)).length;
    return { on: point.on, window, passing, holds: passing >= k };
  });
}

/**
 * Holds the points since the aim line began against the criterion. “3 of the last 4” is met as soon as three of any four neighbouring
 * points of one phase pass, be the fourth there or not. Points short of the minimum are passed over: neither for nor against. Where
 * several places or observers are asked for, each must pass on its own points.
 *
 * Once met, it holds until the record says otherwise: of shares when the Wilson interval of the last n points, pooled, lies wholly short
 * of the target; of other figures when fewer than k of the last n pass, twice n points on end (our own rules).
 *
 * @param points  in order of date, without those of a baseline
 * @param isShare  the values are percentages of their weights, the amounts the successes
 * @param own  the same points, for each place and observer apart
 */
export function masteryOf(
  points: readonly CriterionPoint[],
  criterion: CriterionDefinition,
  isShare: boolean,
  own: OwnPoints = { locations: [], observers: [] },
): Mastery {
  const windows = windowsOf(points, criterion);
  const { k, n } = ruleOf(criterion);
  const locations = own.locations.map((some) => windowsOf(some, criterion));
  const observers = own.observers.map((some) => windowsOf(some, criterion));
  const enough = (all: (typeof windows)[], asked: number, on: IsoDate) =>
    asked <= 1 || all.filter((some) => some.findLast((window) => window.on <= on)?.holds).length >= asked;
  const isMet = ({ on, holds }: (typeof windows)[number]) =>
    holds && enough(locations, criterion.distinctLocations, on) && enough(observers, criterion.distinctObservers, on);
  const met = windows.findIndex(isMet);
  const last = windows.at(-1);
  const inARow = last ? last.window.length - 1 - last.window.findLastIndex((one) => !passes(one, criterion)) : 0;
  const state = {
    passing: criterion.rule.kind === 'inARow' ? inARow : (last?.passing ?? 0),
    looked: last?.window.length ?? 0,
    needed: k,
  };
  if (met === -1) return { ...NO_MASTERY, ...state };
  let short = 0;
  let holding = true;
  for (const { window, passing } of windows.slice(met + 1)) {
    short = passing < k ? short + 1 : 0;
    holding = !(isShare ? window.length === n && isShort(window, criterion) : short >= 2 * n);
  }
  const lastMetOn = defined(windows.findLast(isMet)).on;
  return { metOn: defined(windows[met]).on, holding, lastMetOn, ...state };
}

/** Whether the share of all opportunities of a window lies short of the target beyond what chance brings. */
function isShort(window: readonly CriterionPoint[], { comparison, value }: CriterionDefinition): boolean {
  const opportunities = window.reduce((sum, { weight }) => sum + weight, 0);
  const successes = window.reduce((sum, { amount }) => sum + amount, 0);
  if (opportunities < 1) return false;
  const { low, high } = wilsonInterval(Math.min(successes, opportunities), opportunities);
  return comparison === 'atLeast' ? 100 * high < value - 1e-9 : 100 * low > value + 1e-9;
}

/**
 * The criterion as a sentence that also says the count.
 *
 * @example “Goal: 5 of 6 (80%) on 3 of 4 days, with at least 3 edges a day.”
 */
export function criterionSentence(goal: Pick<GoalDefinition, 'criterion' | 'measure' | 'pointPer'>): string {
  const { comparison, value, rule, minimumOpportunities, distinctLocations, distinctObservers } = goal.criterion;
  const measure = measureOf(goal.measure);
  const one = goal.pointPer;
  const at = one === 'day' ? 'on' : 'in';
  const days = (n: number) => `${n} ${one}${n === 1 ? '' : 's'}`;
  const run =
    rule.kind === 'ofLast' && rule.n > 1
      ? `${at} ${rule.k} of ${days(rule.n)}`
      : `${at} ${days(rule.n)}${rule.n === 1 ? '' : ' in a row'}`;
  const nouns = minimumOpportunities === 1 ? measure.weightNoun.one : measure.weightNoun.many;
  const also = [
    minimumOpportunities > 1 ? `with at least ${minimumOpportunities} ${nouns} a ${one}` : '',
    distinctLocations > 1 ? `in each of ${distinctLocations} locations` : '',
    distinctObservers > 1 ? `for each of ${distinctObservers} observers` : '',
  ].filter(Boolean);
  const count = measure.asCount(value, comparison);
  const [some, all] = count?.split(' of ') ?? [];
  const least = comparison === 'atLeast';
  const what = !count
    ? `${least ? 'at least' : 'at most'} ${measure.said(value)}`
    : `${least ? '' : 'at most '}${least && some === all ? `all ${all}` : count} (${measure.said(value)})`;
  // A total only grows: once there, it is there.
  return measure.accumulates ? `Goal: ${what}.` : `Goal: ${[`${what} ${run}`, ...also].join(', ')}.`;
}
