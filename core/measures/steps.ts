import { z } from 'zod';
import { listed, percent } from '../words/counting';
import { usualCriterion } from './criterion-definition';
import { type MeasureKind, shareOfChances } from './measure-kind';
import { hasDistinctKeys, type Named, named, oneOf, unnamed } from './named';
import { asCount, type BreakdownLine, type Score } from './score';
import { checkSupport, outcomeField, successLevels, supportAllowed, supportFields } from './support-levels';

/** A goal measured by the steps of a task analysis, each with the help that it took. */
export const stepsDefinition = z
  .object({
    kind: z.literal('steps'),
    steps: z.array(named).min(1).max(60).refine(hasDistinctKeys, { error: 'Two steps have the same key.' }),
    ...supportFields,
    /** From which end the steps are taught, or all at once. */
    chaining: z.enum(['forward', 'backward', 'whole']).default('whole'),
  })
  .superRefine(checkSupport);
export type StepsDefinition = z.infer<typeof stepsDefinition>;

/** Each step that was looked at, with a support level's key or `notDone`. */
export type StepsData = { steps: { step: string; outcome: string }[] };

const NOT_DONE = 'notDone';

function stepsData(definition: StepsDefinition): z.ZodType<StepsData> {
  return z.object({
    steps: z
      .array(
        z.object({
          step: oneOf(definition.steps, 'This is not one of the goal’s steps.'),
          outcome: outcomeField(definition, [NOT_DONE]),
        }),
      )
      .min(1, { error: 'Mark at least one step, or say why there is no score.' })
      .max(300, { error: 'At most 300 steps fit in one entry.' }),
  });
}

/**
 * The share of the steps looked at that were done with no more than the support that still counts.
 *
 * @returns value 0 … 100, amount such steps, weight steps looked at
 * @see Cooper, Heron & Heward, Applied Behavior Analysis: assessing a task analysis
 */
export function scoreSteps(definition: StepsDefinition, { steps }: StepsData): Score {
  if (steps.length === 0) return { value: null, reason: 'noOpportunity' };
  const right = successLevels(definition);
  const successes = steps.filter(({ outcome }) => right.has(outcome)).length;
  return { value: (100 * successes) / steps.length, amount: successes, weight: steps.length };
}

/**
 * The steps to teach next: forward, the first that is not yet done with the support that counts; backward, the last;
 * with the whole task at once, every such step. A step that was not looked at is not taken for done.
 *
 * @returns none when every step is done
 * @see forward, backward and total-task chaining: Cooper, Heron & Heward, Applied Behavior Analysis
 */
export function stepsToTeach(definition: StepsDefinition, { steps }: StepsData): Named[] {
  const right = successLevels(definition);
  const latest = new Map(steps.map(({ step, outcome }) => [step, outcome]));
  const open = definition.steps.filter(({ key }) => !right.has(latest.get(key) ?? NOT_DONE));
  if (definition.chaining === 'whole' || open.length === 0) return open;
  return [(definition.chaining === 'forward' ? open[0] : open.at(-1)) as Named];
}

function stepLines(definition: StepsDefinition, { steps }: StepsData): BreakdownLine[] {
  const right = successLevels(definition);
  const wordsOf = (outcome: string) => definition.levels.find(({ key }) => key === outcome)?.label ?? 'Not done';
  return definition.steps.map(({ key, label }) => {
    const own = steps.filter(({ step }) => step === key);
    return {
      key,
      label,
      value: own.length === 0 ? null : own.filter(({ outcome }) => right.has(outcome)).length,
      said: own.length === 0 ? 'not looked at' : own.map(({ outcome }) => wordsOf(outcome)).join(', '),
    };
  });
}

/** @example “9 of 12 steps alone: 75%. Next to teach: dry hands.” */
export function stepsSentence(definition: StepsDefinition, data: StepsData): string {
  const score = scoreSteps(definition, data);
  if (score.value === null) return 'No step was looked at.';
  const noun = score.weight === 1 ? 'step' : 'steps';
  const head = `${score.amount} of ${score.weight} ${noun} ${supportAllowed(definition)}: ${percent(score.value)}.`;
  const next = stepsToTeach(definition, data).map(({ label }) => label);
  if (next.length === 0) return head;
  return `${head} ${definition.chaining === 'whole' ? 'Still to teach' : 'Next to teach'}: ${listed(next)}.`;
}

export const steps: MeasureKind<StepsDefinition, StepsData> = {
  ...shareOfChances,
  data: stepsData,
  pool: (_, sessions) => ({ steps: sessions.flatMap((session) => session.steps) }),
  score: scoreSteps,
  breakdown: stepLines,
  sentence: stepsSentence,
  asCount: (definition, value, comparison) =>
    `${asCount(value, definition.steps.length, comparison)} of ${definition.steps.length}`,
  weightNoun: () => ({ one: 'step', many: 'steps' }),
  discreet: (definition) => ({ ...definition, steps: unnamed(definition.steps, 'Step') }),
  defaultCriterion: () => usualCriterion('atLeast', 100),
};
