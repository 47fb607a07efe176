import { z } from 'zod';

/** What an incident is described with. */
export const choiceKinds = ['behavior', 'antecedent', 'consequence', 'location', 'intensity', 'function'] as const;
export type ChoiceKind = (typeof choiceKinds)[number];

/** How each kind is called: one, several, and where it is asked for: the trade's term, and a plain hint beside it. */
export const kindWords: Record<ChoiceKind, { one: string; many: string; asks: string; hint: string }> = {
  behavior: { one: 'behavior', many: 'Target behaviors', asks: 'Behavior', hint: 'what happened' },
  antecedent: { one: 'antecedent', many: 'Antecedents', asks: 'Antecedent', hint: 'what came before' },
  consequence: { one: 'consequence', many: 'Consequences', asks: 'Consequence', hint: 'what followed' },
  location: { one: 'location', many: 'Locations', asks: 'Location', hint: '' },
  intensity: { one: 'step', many: 'Intensity', asks: 'Intensity', hint: 'how strong' },
  function: { one: 'function', many: 'Functions', asks: 'Function', hint: 'what it may be for' },
};

/** Fields of an incident that a team may leave out for a student. */
export const optionalFields = ['location', 'intensity', 'function', 'duration', 'resolved'] as const;
export type OptionalField = (typeof optionalFields)[number];

export const optionalFieldWords: Record<OptionalField, string> = {
  location: 'Location',
  intensity: 'Intensity',
  function: 'Function',
  duration: 'How long it lasted',
  resolved: 'Whether it was resolved',
};

/**
 * - `offered`: on the incident’s screen
 * - `other`: was typed into an incident, and is not offered
 * - `retired`: is offered no longer; the incidents that name it keep it
 */
export type ChoiceState = 'offered' | 'other' | 'retired';

/** One thing to choose. A target behavior is one too: with its definition, its direction and how it is noted. */
export interface Choice {
  id: string;
  kind: ChoiceKind;
  name: string;
  /** What it looks like; of an intensity its descriptor. */
  words: string;
  /** What it is called in the discreet view: a short word that its team knows; blank for its first letters. */
  discreetWord: string;
  /** What it is not: of behaviors. */
  unlike: string;
  direction: 'decrease' | 'increase';
  abc: boolean;
  counted: boolean;
  timed: boolean;
  state: ChoiceState;
  /** The one that means the same and stands for it everywhere. */
  mergedInto: string | null;
  /** The school’s location that this one stands for. */
  locationId: string | null;
}

const nameField = z
  .string({ error: 'Type what it is called.' })
  .trim()
  .min(1, { error: 'Type what it is called.' })
  .max(80, { error: 'Keep it to 80 characters.' });
const wordsField = z.string().trim().max(1000, { error: 'Keep it to 1,000 characters.' }).default('');
const flag = z
  .boolean()
  .optional()
  .transform((value) => value === true);

const choiceRow = z.object({
  id: z.uuid(),
  name: nameField,
  words: wordsField,
  locationId: z.uuid().nullable().default(null),
  discreetWord: z.string().trim().max(14, { error: 'Keep it to 14 letters.' }).default(''),
  /** It was asked whether it means the same as one with nearly its name, and it does not. */
  isDifferent: flag,
});
export type ChoiceRow = z.infer<typeof choiceRow>;

const behaviorRow = choiceRow
  .extend({
    unlike: wordsField,
    direction: z.enum(['decrease', 'increase']).default('decrease'),
    abc: flag,
    counted: flag,
    timed: flag,
  })
  .refine(({ abc, counted, timed }) => abc || counted || timed, {
    error: 'Say how it is noted: as ABC, counted or timed.',
    path: ['abc'],
  });
export type BehaviorRow = z.infer<typeof behaviorRow>;

const rows = z.array(choiceRow).max(60).default([]);

/** What incidents are described with, as it is set up: for the school to begin from, or for one student. */
export const choicesInput = z
  .object({
    behavior: z.array(behaviorRow).max(30).default([]),
    antecedent: rows,
    consequence: rows,
    location: rows,
    intensity: z.array(choiceRow).max(10, { error: 'A scale has at most ten steps.' }).default([]),
    function: rows,
    leftOut: z.array(z.enum(optionalFields)).default([]),
  })
  .superRefine((input, context) => {
    for (const kind of choiceKinds) {
      for (const [i, row] of input[kind].entries()) {
        const before = input[kind].slice(0, i);
        const refuse = (message: string, field: string) =>
          context.addIssue({ code: 'custom', message, path: [kind, i, field], input: row });
        if (before.some(({ name }) => name === row.name)) refuse('It is there already.', 'name');
        else if (!row.isDifferent) {
          const same = before.find(({ name }) => plainName(name) === plainName(row.name));
          if (same) refuse(`“${same.name}” is there already. Do they mean different things?`, 'isDifferent');
        }
      }
    }
  });
export type ChoicesInput = z.infer<typeof choicesInput>;

/**
 * A name without what people type differently: case, and spaces around and within.
 *
 * @example plainName(' Asked  to Begin ') // 'asked to begin'
 */
export function plainName(name: string): string {
  return name.trim().replace(/\s+/g, ' ').toLocaleLowerCase('en-US');
}

/**
 * What each choice is called once merged ones stand under the name of the one that stands for them.
 *
 * @returns by id: the choice itself, or the one it was merged into
 */
export function standingChoices<T extends Pick<Choice, 'id' | 'mergedInto'>>(choices: readonly T[]): Map<string, T> {
  const byId = new Map(choices.map((choice) => [choice.id, choice]));
  return new Map(
    choices.map((choice) => [choice.id, choice.mergedInto ? (byId.get(choice.mergedInto) ?? choice) : choice]),
  );
}
