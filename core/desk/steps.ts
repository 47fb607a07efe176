import { z } from 'zod';
import { stepStates } from '../school/step-words';

/** Steps that a piece of work may have. */
export const MOST_STEPS = 20;
/** Students that a piece of work is given to at once. */
export const MOST_STUDENTS = 60;
const LONGEST_WORD = 200;

const title = (what: string, longest: number) =>
  z
    .string({ error: what })
    .trim()
    .min(1, { error: what })
    .max(longest, { error: `Keep it to ${longest} characters.` });

/** A piece of work: what it is called, and its steps in order. Ids come from the form: sent twice, it is there once. */
export const workInput = z.object({
  id: z.uuid(),
  title: title('Say what the work is called.', 80),
  steps: z
    .array(
      z.object({
        id: z.uuid(),
        title: title('Say what is done in this step.', 60),
        hint: z.string().trim().max(160, { error: 'Keep it to 160 characters.' }).default(''),
      }),
    )
    .min(1, { error: 'A piece of work has at least one step.' })
    .max(MOST_STEPS, { error: `At most ${MOST_STEPS} steps.` }),
  studentIds: z
    .array(z.uuid())
    .max(MOST_STUDENTS, { error: `At most ${MOST_STUDENTS} students at once.` })
    .default([]),
});
export type WorkInput = z.infer<typeof workInput>;

/** What a student says of one step. It carries its own id: sent twice, it is said once. */
export const stepSaid = z.object({
  id: z.uuid(),
  workId: z.uuid(),
  stepId: z.uuid(),
  state: z.enum(stepStates),
  /** Where they are stuck, in their words. */
  word: z
    .string()
    .trim()
    .max(LONGEST_WORD, { error: `Keep it to ${LONGEST_WORD} characters.` })
    .default(''),
  /** When it was tapped, in milliseconds since 1970, by the device. */
  at: z.number().int().positive(),
});
export type StepSaid = z.infer<typeof stepSaid>;

/** What waited on a device longer than this is not taken for its time. */
const LONGEST_WAIT = 24 * 3_600_000;

/**
 * When something was tapped: by the device, where its clock can be right, else when it came in.
 *
 * @example tappedAt(Date.parse('2026-11-24T09:58:00Z'), new Date('2026-11-24T10:00:00Z')) // 09:58
 */
export function tappedAt(byDevice: number, cameIn: Date): Date {
  const age = cameIn.getTime() - byDevice;
  return age >= 0 && age <= LONGEST_WAIT ? new Date(byDevice) : cameIn;
}
