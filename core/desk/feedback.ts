import { z } from 'zod';
import { answersSchema } from '../entries/forms/form';
import { MOST_STUDENTS } from './steps';

/** Several who present, and the classmates who answer a form for each of them. */
export const presentationInput = z.object({
  id: z.uuid(),
  title: z
    .string({ error: 'Say what is presented.' })
    .trim()
    .min(1, { error: 'Say what is presented.' })
    .max(80, { error: 'Keep it to 80 characters.' }),
  formId: z.uuid({ error: 'Choose a form.' }),
  /** Those who answer, and those of them who present. */
  studentIds: z
    .array(z.uuid())
    .min(2, { error: 'Choose at least two students.' })
    .max(MOST_STUDENTS, { error: `At most ${MOST_STUDENTS} students.` }),
  presenterIds: z.array(z.uuid()).min(1, { error: 'Say who presents.' }),
  showsNames: z.boolean().default(false),
  looksThrough: z.boolean().default(false),
});
export type PresentationInput = z.infer<typeof presentationInput>;

/** What a classmate says to one presenter. It carries its own id: sent twice, it is said once. */
export const feedbackSaid = z.object({
  id: z.uuid(),
  presentationId: z.uuid(),
  presenterId: z.uuid(),
  answers: answersSchema,
  leavesOpen: z.boolean().default(false),
});
export type FeedbackSaid = z.infer<typeof feedbackSaid>;

/**
 * Those who present in their order, where those who did already keep their places and others come after them.
 *
 * @param before  as it was
 * @param wanted  whoever presents now
 * @example presentersInOrder(['b', 'a'], ['a', 'b', 'c']) // ['b', 'a', 'c']
 */
export const presentersInOrder = (before: readonly string[], wanted: readonly string[]): string[] => [
  ...before.filter((id) => wanted.includes(id)),
  ...wanted.filter((id) => !before.includes(id)),
];

/** A list with one of it moved up or down; what cannot move stays. */
export function moved(list: readonly string[], id: string, by: -1 | 1): string[] {
  const from = list.indexOf(id);
  const to = from + by;
  if (from < 0 || to < 0 || to >= list.length) return [...list];
  const next = list.filter((one) => one !== id);
  next.splice(to, 0, id);
  return next;
}
