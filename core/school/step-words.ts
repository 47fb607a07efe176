import { z } from 'zod';

/** How a student stands with one step of their work: five meanings, and no sixth. */
export const stepStates = ['notBegun', 'atIt', 'stuck', 'pleaseLook', 'done'] as const;
export type StepState = (typeof stepStates)[number];

/** What each is called. */
export type StepWords = Record<StepState, string>;

const usual: StepWords = {
  notBegun: 'Not begun',
  atIt: 'At it',
  stuck: 'Stuck',
  pleaseLook: 'Please look',
  done: 'Done',
};

const word = z.string().trim().max(20, { error: 'Keep it to 20 characters.' }).default('');

/** A school's own words for them; empty where it has none of its own. */
export const ownStepWords = z.object({ notBegun: word, atIt: word, stuck: word, pleaseLook: word, done: word });
export type OwnStepWords = z.infer<typeof ownStepWords>;

/**
 * What the five are called at a school.
 *
 * @param own  as they are kept: what is missing or empty is called as usual
 * @example stepWordsFrom({ stuck: 'I need help' }).stuck // 'I need help'
 */
export function stepWordsFrom(own: Partial<OwnStepWords>): StepWords {
  const words = { ...usual };
  for (const state of stepStates) words[state] = own[state] || usual[state];
  return words;
}
