import { once } from 'node:events';
import pg from 'pg';

/** Whether this process still answers for something is asked this often, in milliseconds. */
const BEAT_EVERY = 3000;
/** A server that says nothing for this long is taken for gone. */
const SILENCE = 10_000;

export interface HeldLock {
  /** Aborted when the lock is gone: the connection that held it has ended, or says nothing any more. */
  lost: AbortSignal;
  release: () => Promise<void>;
}

interface Holding {
  /** Statements to run each time it is asked whether the connection is still there. */
  beat?: string;
  /** A channel to listen to, and what to do when something is told on it. */
  channel?: string;
  onNotice?: () => void;
}

/**
 * Waits for an advisory lock on a connection of its own, and holds it for as long as that connection lives. A process that dies
 * lets go by itself; a database that restarts takes the lock away, and `lost` tells so.
 *
 * @param key  what is locked, a number that nothing else uses
 * @param signal  ends the waiting
 * @throws what the database says when it cannot be reached
 */
export async function holdLock(
  url: string,
  key: number,
  { beat = 'select 1', channel, onNotice }: Holding = {},
  signal?: AbortSignal,
): Promise<HeldLock> {
  const client = new pg.Client({ connectionString: url, keepAlive: true, connectionTimeoutMillis: 3000 });
  const lost = new AbortController();
  client.on('error', () => lost.abort());
  client.on('end', () => lost.abort());
  if (onNotice) client.on('notification', onNotice);
  const takeIt = async () => {
    await client.connect();
    await client.query('select pg_advisory_lock($1)', [key]);
    if (channel) await client.query(`listen ${client.escapeIdentifier(channel)}`);
    await client.query(beat);
  };
  const taking = takeIt();
  const settled = new AbortController();
  try {
    await (signal ? Promise.race([taking, rejectedAt(signal, settled.signal)]) : taking);
  } catch (error) {
    // Neither is waited for: of a connection that is ended while it is being made, the driver never says that it ended.
    void client.end();
    throw error;
  } finally {
    settled.abort();
  }
  const heart = setInterval(() => {
    const silence = setTimeout(() => lost.abort(), SILENCE);
    client.query(beat).then(
      () => clearTimeout(silence),
      () => lost.abort(),
    );
  }, BEAT_EVERY);
  lost.signal.addEventListener('abort', () => clearInterval(heart), { once: true });
  return {
    lost: lost.signal,
    release: async () => {
      clearInterval(heart);
      await client.end();
    },
  };
}

/** Never resolves; rejects when the signal is aborted, or nobody listens any more. */
async function rejectedAt(signal: AbortSignal, noLonger: AbortSignal): Promise<never> {
  signal.throwIfAborted();
  await once(signal, 'abort', { signal: noLonger });
  throw signal.reason;
}

/** Does something while nobody else does it, in this process or another. */
export async function alone<Result>(url: string, key: number, work: () => Promise<Result>): Promise<Result> {
  const { release } = await holdLock(url, key);
  try {
    return await work();
  } finally {
    await release();
  }
}
