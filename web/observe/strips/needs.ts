import type { CriterionDefinition } from '~/core/goals/criterion-definition';
import { type MeasureDefinition, measureOf } from '~/core/measures/measure';

/** What the criterion asks of a session: “needs 5 of 6”, “at most 2 an hour”. */
export function needsOf(measure: MeasureDefinition, { comparison, value }: CriterionDefinition): string {
  const { asCount, said } = measureOf(measure);
  const target = asCount(measure, value, comparison) ?? said(measure, value);
  return `${comparison === 'atLeast' ? 'needs' : 'at most'} ${target}`;
}
