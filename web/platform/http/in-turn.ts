import PQueue from 'p-queue';
import { Busy } from '~/server/platform/failures';
import { withFailures } from './failure-answer';
import { type Asked, inTransaction } from './with-errors';
import { inTurnWords } from './words';

/** Pages that read and compute much are answered so many at a time … */
const AT_ONCE = 2;
/** … so many may wait, and no longer than this, in milliseconds. */
const MOST_WAITING = 60;
const PATIENCE = 15_000;

const tooMany = () => new Busy(inTurnWords.manyPeopleAreAskingFor);

const queue = new PQueue({ concurrency: AT_ONCE });

/**
 * Bounds a loader that reads and computes much: several at once wait for each other, and memory holds no more than a few at a time.
 * Who would have to wait for too long is told to come again.
 *
 * @throws Busy
 */
export function inTurn<Args, Result>(loader: (args: Args) => Promise<Result>): (args: Args) => Promise<Result> {
  return async (args) => {
    if (queue.size >= MOST_WAITING) throw tooMany();
    const askedAt = performance.now();
    return queue.add(
      async () => {
        if (performance.now() - askedAt > PATIENCE) throw tooMany();
        return loader(args);
      },
      { throwOnTimeout: true },
    );
  };
}

/** As `withErrors`, for a loader that reads and computes much: its transaction begins when its turn has come. */
export const withErrorsInTurn = <Args extends Asked, Result>(loader: (args: Args) => Promise<Result>) =>
  withFailures(inTurn(inTransaction(loader)));
