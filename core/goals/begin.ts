import { addDays, type IsoDate } from '../calendar/iso-date';
import { usualCriterion } from '../measures/criterion-definition';
import { beginningOf } from '../measures/measure';
import type { GoalInput, GoalTemplate } from './goal-input';
import { templateFor } from './other-student';

const NAME = '{name}';

/**
 * What a goal begins with when nothing is known of it.
 *
 * @param numbers  those of the goals that are worked on: the new one gets the next
 * @param planEndsOn  its target date, when the plan has not ended; else a year from today
 */
export function blankGoal(
  id: string,
  { today, planEndsOn, numbers }: { today: IsoDate; planEndsOn: IsoDate | null; numbers: readonly string[] },
): GoalInput {
  const used = numbers.map((number) => Number.parseInt(number, 10) || 0);
  return {
    ...{ id, editedAt: null, number: `${Math.max(0, ...used) + 1}`, area: '', shortName: '', wording: '' },
    ...{ measure: beginningOf('trials'), criterion: usualCriterion('atLeast', 80), pointPer: 'day' },
    ...{ baselineValue: null, baselineOn: null, startsOn: today },
    targetOn: planEndsOn !== null && planEndsOn > today ? planEndsOn : addDays(today, 365),
    ...{ plannedGap: null, observerIds: [], locationIds: [], phases: [], newVersionFrom: null },
  };
}

/** Another goal's content in a new goal, without what belongs to its own past. */
export function beginFromGoal(blank: GoalInput, goal: GoalInput, wording: string): GoalInput {
  const { area, shortName, measure, criterion, pointPer, plannedGap, locationIds } = goal;
  return { ...blank, area, shortName, measure, criterion, pointPer, plannedGap, locationIds, wording };
}

/** A goal of the bank in a new goal, worded for a student. */
export function beginFromTemplate(blank: GoalInput, template: GoalTemplate, firstName: string): GoalInput {
  const { name, area, measure, criterion, wording } = template;
  return {
    ...blank,
    shortName: name,
    area,
    measure,
    criterion,
    wording: templateFor(wording, { from: NAME, to: firstName }),
  };
}

/** What of a goal goes into the goal bank: without its student's first name. */
export function templateOf(
  {
    shortName,
    area,
    wording,
    measure,
    criterion,
  }: Pick<GoalInput, 'shortName' | 'area' | 'wording' | 'measure' | 'criterion'>,
  firstName: string,
): GoalTemplate {
  return { name: shortName, area, wording: templateFor(wording, { from: firstName, to: NAME }), measure, criterion };
}
