import type { IsoDate } from '../calendar/iso-date';
import { directionOf, type GoalDefinition } from '../goals/goal';
import { measureOf } from '../measures/measure';
import type { Progress } from './progress';
import { phaseName } from './series';

/** The columns of the file, as `analyse -- series` reads them. */
export const dataFields = ['date', 'value', 'of', 'phase', 'baseline'];

/**
 * The numbers behind a goal’s page, one row for each point as it is judged: from them `analyse -- series` gives the page’s figures.
 *
 * @returns rows in the order of `dataFields`; `of` is blank where the value is no share of opportunities
 */
export function dataOfPage(goal: GoalDefinition, { points }: Progress): (string | number)[][] {
  const { isShare } = measureOf(goal.measure);
  return points
    .filter(({ isFormer }) => !isFormer)
    .map(({ on, value, weight, phase, isBaseline }) => [
      ...[on, value, isShare ? weight : ''],
      ...[phaseName(goal.phases, phase), isBaseline ? 'yes' : 'no'],
    ]);
}

/** What the command is told besides: the page’s baseline, target, criterion and day. */
export function optionsOfPage(goal: GoalDefinition, { aimLine }: Progress, today: IsoDate): string[] {
  const { comparison, rule, minimumOpportunities } = goal.criterion;
  const { k, n } = rule.kind === 'ofLast' ? rule : { k: rule.n, n: rule.n };
  const options: [string, string | number][] = [
    ['direction', directionOf(goal.criterion)],
    ['comparison', comparison],
    ...(aimLine
      ? ([
          ['baseline', aimLine.from.value],
          ['baseline-date', aimLine.from.on],
        ] satisfies [string, string | number][])
      : []),
    ['target', goal.target],
    ['target-date', goal.targetOn],
    ['criterion', `${k}/${n}`],
    ['minimum', minimumOpportunities],
    ['today', today],
  ];
  return options.flatMap(([name, value]) => [`--${name}`, String(value)]);
}
