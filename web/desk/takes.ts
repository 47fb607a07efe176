import { data } from 'react-router';
import type { z } from 'zod';
import { readable } from '~/core/words/readable';
import { Invalid, NotFound } from '~/server/platform/failures';
import { jsonOf, refusedWith } from '../platform/http/json-of';
import { type AtDesk, type Desk, deskFor, withErrorsAtDesk } from './at-desk';
import { deskWords } from './words';

/** Reads what was sent, keeps it, and says what came of it. */
export async function taking<Schema extends z.ZodType<{ id: string }>>(
  request: Request,
  schema: Schema,
  save: (said: z.output<Schema>) => Promise<void>,
) {
  const parsed = readable(schema).safeParse(await jsonOf(request));
  if (!parsed.success) return refusedWith({ form: parsed.error.issues[0]?.message ?? deskWords.cannotBeRead });
  try {
    await save(parsed.data);
    return data({ id: parsed.data.id });
  } catch (error) {
    if (error instanceof Invalid) return refusedWith(error.fields);
    throw error;
  }
}

/**
 * An action that takes what a student says at their desk, at once or from a device on which it waited. What it cannot take comes back
 * with a sentence.
 *
 * @param save  keeps it; sent twice, it is there once
 */
export const takes = <Schema extends z.ZodType<{ id: string }>>(
  schema: Schema,
  save: (desk: Desk, said: z.output<Schema>) => Promise<void>,
) =>
  withErrorsAtDesk(async ({ request }: AtDesk, open) => {
    const desk = deskFor(request, open);
    return taking(request, schema, (said) => save(desk, said));
  });

/** Nothing to be opened: there is only something to send. */
export const onlySent = withErrorsAtDesk(async () => {
  throw new NotFound('There is only something to send here.');
});
