import type { IsoDate } from '../calendar/iso-date';
import { defined } from '../defined';
import type { GoalDefinition } from '../goals/goal';
import type { CriterionDefinition } from '../measures/criterion-definition';
import { measureOf } from '../measures/measure';
import type { SeriesPoint } from './series';

export interface CriterionState {
  /** The first date on which everything held; the goal stays met. */
  metOn: IsoDate | null;
  /** Points since then that fell short: shown, not hidden. */
  lapses: IsoDate[];
  /** Of the points now looked at, how many pass (for “in a row”: how many in a row at the end). */
  passing: number;
  needed: number;
}

type CriterionPoint = Pick<SeriesPoint, 'on' | 'value' | 'weight' | 'settings' | 'observers'>;

/** Whether one value reaches the criterion's value, in its direction. */
export function reaches(value: number, criterion: Pick<CriterionDefinition, 'comparison' | 'value'>): boolean {
  // A share such as 7 of 10 may come out a hair below 70.
  return criterion.comparison === 'atLeast' ? value >= criterion.value - 1e-9 : value <= criterion.value + 1e-9;
}

const varietyOf = (points: readonly CriterionPoint[], of: 'settings' | 'observers') =>
  new Set(points.flatMap((point) => point[of])).size;

function windowHolds(window: readonly CriterionPoint[], criterion: CriterionDefinition): boolean {
  const passing = window.filter((point) => reaches(point.value, criterion));
  const { rule } = criterion;
  const enough =
    rule.kind === 'ofLast' ? passing.length >= rule.k : window.length === rule.n && passing.length === rule.n;
  return (
    enough &&
    varietyOf(passing, 'settings') >= (criterion.distinctLocations > 1 ? criterion.distinctLocations : 0) &&
    varietyOf(passing, 'observers') >= (criterion.distinctObservers > 1 ? criterion.distinctObservers : 0)
  );
}

/**
 * Holds the points since the aim line began against the criterion. “3 of the last 4” is met as soon as three of any four
 * neighbouring points pass, be the fourth there or not.
 *
 * @param points  in order of date, without those of the baseline
 */
export function criterionState(points: readonly CriterionPoint[], criterion: CriterionDefinition): CriterionState {
  const counting = points.filter((point) => point.weight >= criterion.minimumOpportunities);
  const { rule } = criterion;
  const endsAt = counting.findIndex((_, i) =>
    windowHolds(counting.slice(Math.max(0, i + 1 - rule.n), i + 1), criterion),
  );
  const last = counting.slice(-rule.n);
  const misses = (point: CriterionPoint) => !reaches(point.value, criterion);
  const runStart = last.findLastIndex(misses) + 1;
  return {
    metOn: endsAt === -1 ? null : defined(counting[endsAt]).on,
    lapses:
      endsAt === -1
        ? []
        : counting
            .slice(endsAt + 1)
            .filter(misses)
            .map((point) => point.on),
    passing: rule.kind === 'inARow' ? last.length - runStart : last.filter((point) => !misses(point)).length,
    needed: rule.kind === 'inARow' ? rule.n : rule.k,
  };
}

/**
 * The criterion as a sentence that also says the count.
 *
 * @example “At least 80%, that is 5 of 6, in 3 of the last 4 days.”
 */
export function criterionSentence(goal: Pick<GoalDefinition, 'criterion' | 'measure' | 'pointPer'>): string {
  const { comparison, value, rule, minimumOpportunities, distinctLocations, distinctObservers } = goal.criterion;
  const measure = measureOf(goal.measure);
  const inNumbers = measure.asCount(value, comparison);
  const count = inNumbers ? `, that is ${inNumbers},` : '';
  const one = goal.pointPer;
  const run =
    rule.kind === 'ofLast'
      ? `in ${rule.k} of the last ${rule.n} ${one}s`
      : `in ${rule.n} ${one}${rule.n === 1 ? '' : 's'} in a row`;
  const also = [
    minimumOpportunities > 1 ? `at least ${minimumOpportunities} ${measure.weightNoun.many} each` : '',
    distinctLocations > 1 ? `in ${distinctLocations} locations` : '',
    distinctObservers > 1 ? `seen by ${distinctObservers} people` : '',
  ].filter(Boolean);
  const head = `${comparison === 'atLeast' ? 'At least' : 'At most'} ${measure.said(value)}${count} ${run}`;
  return `${[head, ...also].join(', ')}.`;
}
