import type { Request } from 'express';
import PQueue from 'p-queue';
import { config } from '~/server/platform/config';
import { addressOf } from './security';

/** So many requests of one browser or link are answered at once; of one address all but a few of the database's connections … */
const OF_ONE = Math.max(2, Math.floor(config.POOL_SIZE / 3));
const OF_ADDRESS = Math.max(2, config.POOL_SIZE - 3);
/** … and so many of them may wait for that. */
const WAITING = { one: 100, address: 400 };

const queues = new Map<string, PQueue>();

/** Waits for a place among those of a key: resolves to what gives it back. Null where too many wait already. */
function place(key: string, concurrency: number, mostWaiting: number): Promise<() => void> | null {
  const queue = queues.get(key) ?? new PQueue({ concurrency });
  if (queue.size >= mostWaiting) return null;
  queues.set(key, queue);
  void queue.onIdle().then(() => {
    if (queue.size === 0 && queue.pending === 0 && queues.get(key) === queue) queues.delete(key);
  });
  return new Promise((given) => {
    void queue.add(() => new Promise<void>((over) => given(over)));
  });
}

/** More is asked for at once by one sender than is taken: nothing was done. */
export class TooManyAtOnce extends Error {
  override name = 'TooManyAtOnce';
}

/**
 * Gives everybody a share: however many requests one browser, link or address has open, the others are answered meanwhile. What is sent is
 * read before, and what is answered leaves after: a place is held by computing alone.
 *
 * @throws TooManyAtOnce
 */
export async function inShare<Answer>(request: Request, sender: string, work: () => Promise<Answer>): Promise<Answer> {
  const own = place(sender, OF_ONE, WAITING.one);
  if (!own) throw new TooManyAtOnce();
  const giveOwn = await own;
  try {
    const ofAddress = place(`address ${addressOf(request)}`, OF_ADDRESS, WAITING.address);
    if (!ofAddress) throw new TooManyAtOnce();
    const giveOfAddress = await ofAddress;
    try {
      return await work();
    } finally {
      giveOfAddress();
    }
  } finally {
    giveOwn();
  }
}
