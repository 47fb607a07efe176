import type { RouterContextProvider } from 'react-router';
import { asking, askingTogether } from '~/server/platform/db/current';
import { withFailures } from './failure-answer';
import { personIn, personOf } from './request-person';

export interface Asked {
  request: Request;
  context: Readonly<RouterContextProvider>;
}

/**
 * A loader or action whose queries are one transaction, as whoever has signed in: the loaders of one page share it. Where nobody has
 * signed in, nothing of a student is seen.
 */
export const inTransaction =
  <Args extends Asked, Result>(handler: (args: Args) => Promise<Result>) =>
  (args: Args): Promise<Result> => {
    const asker = personIn(args.context);
    if (!asker) return handler(args);
    const ask = args.request.method === 'GET' ? askingTogether : asking;
    return ask(asker.actor, () => handler(args));
  };

/** A loader or action: in one transaction, as the one who asks, with failures turned into answers. */
export const withErrors = <Args extends Asked, Result>(handler: (args: Args) => Promise<Result>) =>
  withFailures(inTransaction(handler));

/**
 * As `withErrors`, for a page that writes down that it was opened: in a transaction of its own, which nothing that fails beside it
 * takes back.
 */
export const withErrorsAlone = <Args extends Asked, Result>(handler: (args: Args) => Promise<Result>) =>
  withFailures((args: Args) => asking(personOf(args.context).actor, () => handler(args)));
