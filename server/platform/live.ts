import createSubscriber, { type Subscriber } from 'pg-listen';
import { z } from 'zod';
import { config } from './config';
import type { Database } from './db/database';

/** Something has changed that somebody may be looking at: of whom, and what. Nothing of what it says. */
const change = z.object({
  studentId: z.uuid(),
  what: z.enum(['steps', 'entries', 'feedback']),
  by: z.string().nullable(),
});
export type LiveChange = z.infer<typeof change>;
/** What somebody may see has changed: a sign-in of theirs has ended, or a place on a team. Their triggers tell. */
const access = z.object({ personId: z.uuid(), what: z.literal('access') });
export type LiveTold = LiveChange | z.infer<typeof access>;

export const CHANNEL = 'live';

/** A change as it is told on the channel. */
export const toldAs = (changed: LiveChange): string => JSON.stringify(changed);

/** Tells all processes of a change, once the transaction stands. */
export async function tellLive(db: Database, changed: LiveChange): Promise<void> {
  await db.raw('select pg_notify(?, ?)', [CHANNEL, toldAs(changed)]);
}

type Listener = (told: LiveTold) => void;
const listeners = new Set<Listener>();
let subscriber: Subscriber | undefined;
let listening: Promise<void> | undefined;

/**
 * Hears of changes, over one connection of this process that does nothing else. It is opened for the first who listens; where it is
 * lost, it is opened again.
 *
 * @returns ends the listening
 */
export async function listenLive(listener: Listener): Promise<() => void> {
  listeners.add(listener);
  try {
    listening ??= begin();
    await listening;
  } catch (error) {
    listening = undefined;
    listeners.delete(listener);
    throw error;
  }
  return () => void listeners.delete(listener);
}

async function begin(): Promise<void> {
  subscriber = createSubscriber(
    { connectionString: config.DATABASE_URL, connectionTimeoutMillis: 3000 },
    // A database that is being started again is waited for.
    { retryInterval: 1000, retryLimit: 600, retryTimeout: 600_000 },
  );
  subscriber.events.on('error', () => {
    // It has given up: the next who listens begins anew; those who listen ask by themselves until then.
    listening = undefined;
  });
  subscriber.notifications.on(CHANNEL, (payload) => {
    const parsed = z.union([change, access]).safeParse(payload);
    if (parsed.success) for (const listener of listeners) listener(parsed.data);
  });
  await subscriber.connect();
  await subscriber.listenTo(CHANNEL);
}

/** Stops hearing, at the end of the process. */
export async function closeLive(): Promise<void> {
  await subscriber?.close();
  subscriber = undefined;
  listening = undefined;
}
