import { z } from 'zod';
import { isoDateField } from '../calendar/date-fields';
import {
  type CriterionDefinition,
  type CriterionInput,
  criterionDefinition,
  criterionInput,
} from '../measures/criterion-definition';
import { type MeasureDefinition, measureDefinition, measureOf } from '../measures/measure';
import { type GoalDefinition, phaseDefinition } from './goal';

const LONGEST_WORDING = 4000;

const text = (message: string, longest: number) =>
  z
    .string({ error: message })
    .trim()
    .min(1, { error: message })
    .max(longest, { error: `Keep this to ${longest} characters.` });

/** A goal as a case manager sets it up. */
export const goalInput = z
  .object({
    id: z.uuid(),
    /** When the goal was last changed before it was opened; null for one that never was. */
    editedAt: z.string().nullable().default(null),
    number: text('Type the number that the goal has in the plan.', 12),
    area: z.string().trim().max(60).default(''),
    shortName: text('Type a short name, for screens.', 60),
    /** Word for word, line breaks too. */
    wording: z
      .string({ error: 'Type the goal as the plan words it.' })
      .transform((words) => words.replace(/\r\n?/g, '\n'))
      .refine((words) => words.trim() !== '', { error: 'Type the goal as the plan words it.' })
      .refine((words) => words.length <= LONGEST_WORDING, {
        error: `Keep the goal to ${LONGEST_WORDING} characters.`,
      }),
    measure: measureDefinition,
    criterion: criterionInput,
    pointPer: z.enum(['day', 'session']).default('day'),
    baselineValue: z.number({ error: 'Type the baseline as a number.' }).nullable().default(null),
    baselineOn: isoDateField.nullable().default(null),
    targetOn: isoDateField,
    startsOn: isoDateField,
    plannedGap: z
      .number({ error: 'Type how many school days.' })
      .int({ error: 'Whole school days only.' })
      .min(1, { error: 'At least 1.' })
      .max(60, { error: 'At most 60 school days.' })
      .nullable()
      .default(null),
    observerIds: z.array(z.uuid()).max(60).default([]),
    locationIds: z.array(z.uuid()).max(60).default([]),
    phases: z.array(phaseDefinition).max(30).default([]),
    /** From when on it is measured in the new way, where the change makes one. */
    newVersionFrom: isoDateField.nullable().default(null),
  })
  .superRefine((goal, context) => {
    for (const [path, message] of contradictions(goal)) {
      context.addIssue({ code: 'custom', message, path, input: goal });
    }
  })
  .transform((goal) => ({ ...goal, criterion: withMinimum(goal.criterion, goal.measure) }));
export type GoalInput = z.infer<typeof goalInput>;

/** The criterion with its minimum: the usual one of the measure, where none was written. */
export function withMinimum(criterion: CriterionInput, measure: MeasureDefinition): CriterionDefinition {
  return { ...criterion, minimumOpportunities: criterion.minimumOpportunities ?? measureOf(measure).usualMinimum() };
}

type Told = { criterion: CriterionInput } & Pick<
  GoalInput,
  'measure' | 'baselineValue' | 'baselineOn' | 'targetOn' | 'startsOn' | 'phases'
>;

/** What cannot all be true of one goal, each with the field that says it. */
function contradictions(goal: Told): [path: (string | number)[], message: string][] {
  const { measure, criterion, baselineValue, baselineOn, targetOn, startsOn, phases } = goal;
  const { max, unit } = measureOf(measure).axis;
  const found: [(string | number)[], string][] = [];
  const outOfScale = (value: number) => value < 0 || (max !== null && value > max);
  const scale = max === null ? 'This cannot be below 0.' : `This lies outside of 0 to ${max}${unit}.`;
  if (outOfScale(criterion.value)) found.push([['criterion', 'value'], scale]);
  if (baselineValue !== null && outOfScale(baselineValue)) found.push([['baselineValue'], scale]);
  if (baselineValue !== null && baselineOn === null) found.push([['baselineOn'], 'Say when the baseline was taken.']);
  if (baselineValue === null && baselineOn !== null) found.push([['baselineValue'], 'Say what the baseline was.']);
  if (targetOn <= startsOn) found.push([['targetOn'], 'The target date lies after the day on which observing begins.']);
  if (baselineOn !== null && baselineOn >= targetOn) {
    found.push([['baselineOn'], 'The baseline lies before the target date.']);
  }
  for (const [i, phase] of phases.entries()) {
    if (phases.findIndex((other) => other.startsOn === phase.startsOn) < i) {
      found.push([['phases', i, 'startsOn'], 'Another phase begins on this day.']);
    }
  }
  return found;
}

/** What the computation needs of a goal as it was set up. */
export function definitionFrom(input: GoalInput): GoalDefinition {
  const { measure, criterion, pointPer, baselineValue, baselineOn, targetOn, startsOn, plannedGap, phases } = input;
  return {
    measure,
    criterion,
    pointPer,
    baseline: baselineValue === null || baselineOn === null ? null : { value: baselineValue, on: baselineOn },
    target: criterion.value,
    targetOn,
    startsOn,
    plannedGap,
    phases: phases.toSorted((a, b) => a.startsOn.localeCompare(b.startsOn)),
  };
}

/** A goal to begin from: what is not a student's own. */
export const goalTemplate = z.object({
  name: text('Say what the goal in the bank is called.', 60),
  area: z.string().trim().max(60),
  /** `{name}` stands for the student's first name. */
  wording: z.string().max(LONGEST_WORDING),
  measure: measureDefinition,
  criterion: criterionDefinition,
});
export type GoalTemplate = z.infer<typeof goalTemplate>;
