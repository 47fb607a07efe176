import type { SubmissionResult } from '@conform-to/react';
import { data } from 'react-router';
import type { z } from 'zod';
import { refusalStatus } from '~/core/words/readable';
import { Invalid } from '~/server/platform/failures';
import { readForm } from '../ui/read-form';

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
  const submission = readForm(form, schema);
  if (submission.status !== 'success') return { refused: answer(submission.reply()) };
  try {
    // What succeeded is what the schema gives out; conform’s type also allows what it takes in.
    return { done: await command(submission.value as z.infer<Schema>) };
  } catch (error) {
    if (!(error instanceof Invalid)) throw error;
    const fieldErrors = Object.fromEntries(Object.entries(error.fields).map(([field, text]) => [field, [text]]));
    return { refused: answer(submission.reply({ fieldErrors })) };
  }
}

const answer = (result: SubmissionResult<string[]>) =>
  data({ result }, { status: refusalStatus(Object.values(result.error ?? {}).flatMap((said) => said ?? [])) });

/** A password that was typed is not sent back. */
export function withoutSecrets(result: SubmissionResult<string[]>): SubmissionResult<string[]> {
  const { password: _, again: __, code: ___, pin: ____, current: _____, ...rest } = result.initialValue ?? {};
  return { ...result, initialValue: rest };
}
