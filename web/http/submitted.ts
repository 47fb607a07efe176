import type { SubmissionResult } from '@conform-to/react';
import { parseWithZod } from '@conform-to/zod/v4';
import { data } from 'react-router';
import type { z } from 'zod';
import { refusal } from '~/core/words/refusal';
import { Invalid } from '~/server/failures';

/**
 * Reads a form and does what it asks for. What the schema or the command refuses comes back at its field, with all
 * that was typed.
 *
 * @returns `done` with what the command gave, or `refused` with an answer for the form
 */
export async function submitted<Schema extends z.ZodType, Result>(
  form: FormData,
  schema: Schema,
  command: (value: z.infer<Schema>) => Promise<Result>,
) {
  const submission = parseWithZod(form, { schema, error: refusal });
  if (submission.status !== 'success') return { refused: answer(submission.reply()) };
  try {
    return { done: await command(submission.value as z.infer<Schema>) };
  } catch (error) {
    if (!(error instanceof Invalid)) throw error;
    const fieldErrors = Object.fromEntries(Object.entries(error.fields).map(([field, text]) => [field, [text]]));
    return { refused: answer(submission.reply({ fieldErrors })) };
  }
}

const answer = (result: SubmissionResult<string[]>) => data({ result }, { status: 400 });
