import { z } from 'zod';
import { defined } from '../../defined';
import { listed, percent } from '../../words/counting';
import { commonAgreement } from '../agreement/pair';
import { choiceCell } from '../cells';
import { usualCriterion } from '../criterion-definition';
import { type MeasureKind, shareOfChances } from '../measure-kind';
import { filled, markExample, marks } from '../measure-table';
import { hasDistinctKeys, keysOf, type Named, named, oneOf, unnamed } from '../named';
import { signsCell } from '../one-cell';
import { asCount, type BreakdownLine, type Score } from '../score';
import {
  checkSupport,
  outcomeField,
  successLevels,
  supportAllowed,
  supportFields,
  usualLevels,
} from '../support-levels';

/** A goal measured by the steps of a task analysis, each with the help that it took. */
export const taskAnalysisDefinition = z
  .object({
    kind: z.literal('taskAnalysis'),
    steps: z.array(named).min(1).max(60).refine(hasDistinctKeys, { error: 'Two steps have the same key.' }),
    ...supportFields,
    /** From which end the steps are taught, or all at once. */
    chaining: z.enum(['forward', 'backward', 'whole']).default('whole'),
    /** Whether each step gets its own opportunity, or the chain ends with the first step that is not done: a single opportunity. */
    opportunity: z.enum(['each', 'single']).default('each'),
    /** Whether every step is to be looked at: before one is left open, it is asked about. */
    requiresAll: z.boolean().default(false),
  })
  .superRefine(checkSupport);
export type TaskAnalysisDefinition = z.infer<typeof taskAnalysisDefinition>;

/** Each step that was looked at, with a support level's key or `notDone`. */
export type TaskAnalysisData = { steps: { step: string; outcome: string }[] };

const NOT_DONE = 'notDone';

/**
 * A session of a single opportunity, whole: after the first step that was not done with the support that counts, the others count as not
 * done, whatever was marked.
 *
 * @see single-opportunity method: Cooper, Heron & Heward, Applied Behavior Analysis, assessing a task analysis
 */
function endedAtError(definition: TaskAnalysisDefinition, { steps }: TaskAnalysisData): TaskAnalysisData {
  if (definition.opportunity !== 'single') return { steps };
  const right = successLevels(definition);
  const marked = new Map(steps.map(({ step, outcome }) => [step, outcome]));
  const error = definition.steps.findIndex(({ key }) => marked.has(key) && !right.has(defined(marked.get(key))));
  if (error < 0) return { steps };
  return {
    steps: definition.steps.flatMap(({ key }, at) => {
      const outcome = at > error ? NOT_DONE : marked.get(key);
      return outcome === undefined ? [] : [{ step: key, outcome }];
    }),
  };
}

function taskAnalysisData(definition: TaskAnalysisDefinition): z.ZodType<TaskAnalysisData> {
  const data = z.object({
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
  return data.transform((given) => endedAtError(definition, given));
}

/** The steps that were not looked at, by name; none after the error that ends a single opportunity. */
export function openSteps(definition: TaskAnalysisDefinition, data: TaskAnalysisData): string[] {
  const marked = new Set(endedAtError(definition, data).steps.map(({ step }) => step));
  return definition.steps.filter(({ key }) => !marked.has(key)).map(({ label }) => label);
}

/**
 * The share of the steps looked at that were done with no more than the support that still counts.
 *
 * @returns value 0 … 100, amount such steps, weight steps looked at
 * @see Cooper, Heron & Heward, Applied Behavior Analysis: assessing a task analysis
 */
export function scoreTaskAnalysis(definition: TaskAnalysisDefinition, { steps }: TaskAnalysisData): Score {
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
export function stepsToTeach(definition: TaskAnalysisDefinition, { steps }: TaskAnalysisData): Named[] {
  const right = successLevels(definition);
  const latest = new Map(steps.map(({ step, outcome }) => [step, outcome]));
  const open = definition.steps.filter(({ key }) => !right.has(latest.get(key) ?? NOT_DONE));
  if (definition.chaining === 'whole' || open.length === 0) return open;
  return [defined(definition.chaining === 'forward' ? open[0] : open.at(-1))];
}

function stepLines(definition: TaskAnalysisDefinition, { steps }: TaskAnalysisData): BreakdownLine[] {
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

/** @example “9 of 12 steps done alone (75%). Next step: dry hands.” */
export function taskAnalysisSentence(definition: TaskAnalysisDefinition, data: TaskAnalysisData): string {
  const score = scoreTaskAnalysis(definition, data);
  if (score.value === null) return 'No step was looked at.';
  const noun = score.weight === 1 ? 'step' : 'steps';
  const head = `${score.amount} of ${score.weight} ${noun} done ${supportAllowed(definition)} (${percent(score.value)}).`;
  const next = stepsToTeach(definition, data).map(({ label }) => label);
  if (next.length === 0) return head;
  return `${head} ${definition.chaining === 'whole' ? 'Still to teach' : 'Next step'}: ${listed(next)}.`;
}

export const taskAnalysis: MeasureKind<TaskAnalysisDefinition, TaskAnalysisData> = {
  question: 'Which steps',
  term: 'task analysis',
  example: 'steps 1 to 4 of washing up alone',
  beginning: taskAnalysisDefinition.parse({
    kind: 'taskAnalysis',
    levels: usualLevels,
    mostSupport: 'independent',
    steps: [{ key: 'step1', label: 'First step' }],
  }),
  holds: (data): data is TaskAnalysisData => 'steps' in data,
  ...shareOfChances,
  data: taskAnalysisData,
  pool: (_, sessions) => ({ steps: sessions.flatMap((session) => session.steps) }),
  score: scoreTaskAnalysis,
  required: (definition, data) => (definition.requiresAll ? openSteps(definition, data) : []),
  breakdown: stepLines,
  sentence: taskAnalysisSentence,
  asCount: (definition, value, comparison) =>
    `${asCount(value, definition.steps.length, comparison)} of ${definition.steps.length}`,
  opportunities: ({ steps }) => ({ planned: steps.length, areIndependent: false }),
  weightNoun: () => ({ one: 'step', many: 'steps' }),
  discreet: (definition) => ({ ...definition, steps: unnamed(definition.steps, 'Step') }),
  defaultCriterion: () => usualCriterion('atLeast', 100),
  meaning: ({ steps, levels, mostSupport, opportunity }) => [
    ...[keysOf(steps), keysOf(levels), mostSupport],
    opportunity === 'single',
  ],
  table: {
    columns: ({ steps, levels }) => steps.map(({ key, label }) => ({ key, label, example: markExample(levels) })),
    read: ({ steps, levels }, cells, take) => ({
      steps: filled(steps, cells, ({ key }) => {
        const choices = [...levels, { key: NOT_DONE, label: 'Not done' }];
        const outcome = take(key, (text) => choiceCell(text, choices, marks(levels, NOT_DONE)));
        return outcome === undefined ? undefined : { step: key, outcome };
      }),
    }),
    one: ({ steps }, text) => signsCell(text, steps, 'step'),
  },
  agreement: (_, a, b) => {
    const outcomes = ({ steps }: TaskAnalysisData) => steps.map(({ step, outcome }) => [step, outcome] as const);
    return commonAgreement(outcomes(a), outcomes(b), { one: 'step', many: 'steps' });
  },
};
