import type { RouterContextProvider } from 'react-router';
import { asking } from '~/server/db/current';
import { askerIn } from './asker';
import { withFailures } from './failure-answer';

export interface Asked {
  context: Readonly<RouterContextProvider>;
}

/** A loader or action whose queries are one transaction, as whoever has signed in; where nobody has, nothing of a student is seen. */
export const inTransaction =
  <Args extends Asked, Result>(handler: (args: Args) => Promise<Result>) =>
  (args: Args): Promise<Result> => {
    const asker = askerIn(args.context);
    return asker ? asking(asker.actor, () => handler(args)) : handler(args);
  };

/** A loader or action: in one transaction, as the one who asks, with failures turned into answers. */
export const answering = <Args extends Asked, Result>(handler: (args: Args) => Promise<Result>) =>
  withFailures(inTransaction(handler));
