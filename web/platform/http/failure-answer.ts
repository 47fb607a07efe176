import { data } from 'react-router';
import { unreadableWords } from '~/core/words/readable';
import { isDatabaseGone, isUnkeepable } from '~/server/platform/db/database';
import { Busy, NotAllowed, NotFound } from '~/server/platform/failures';

/** An answer that an error page shows: 404, 403, 422 or 503. */
export function failureAnswer(error: unknown): unknown {
  if (error instanceof NotFound) return data(null, { status: 404 });
  if (error instanceof NotAllowed) return data(error.message, { status: 403 });
  if (isUnkeepable(error)) return data(unreadableWords, { status: 422 });
  if (error instanceof Busy) return data(error.message, { status: 503, headers: { 'Retry-After': '5' } });
  if (isDatabaseGone(error)) return data(null, { status: 503, headers: { 'Retry-After': '5' } });
  return error;
}

/**
 * Turns the failures that a loader or action may meet into answers with the right status. What is left is a fault of
 * ours and becomes a 500.
 */
export function withFailures<Args, Result>(handler: (args: Args) => Promise<Result>): (args: Args) => Promise<Result> {
  return async (args) => {
    try {
      return await handler(args);
    } catch (error) {
      throw failureAnswer(error);
    }
  };
}
