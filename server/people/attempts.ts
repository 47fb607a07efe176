import { createHash } from 'node:crypto';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Database } from '../platform/db/database';

const QUARTER = 15 * 60;

/** How many tries there are in how many seconds. */
const limits = {
  /** Wrong passwords for one account from one address. */
  signInPair: { points: 8, duration: QUARTER },
  /** From all addresses together: nobody guesses from many at once. A browser that was here before is not held by it. */
  signInAccount: { points: 100, duration: QUARTER },
  /** From one address for all accounts: a school has one address, so this is wide. */
  signInAddress: { points: 300, duration: QUARTER },
  /** From a browser in which this person has signed in before. */
  signInDevice: { points: 8, duration: QUARTER },
  /** Openings of links from one address: unknown ones cost most, so that guessing is hopeless. */
  unknownLink: { points: 20, duration: QUARTER },
  opening: { points: 120, duration: 60 },
  /** Cards that open nothing, from one address: a class has one address, and children mistype. */
  unknownCard: { points: 100, duration: QUARTER },
  /** Words of cards that open nothing, from all addresses together: see `mayTypeCardWords`. */
  unknownCardAnywhere: { points: 2000, duration: 3600 },
  /** That a card was opened from an address: never too many. */
  cardAddress: { points: 1_000_000, duration: 14 * 24 * 3600 },
  /** A PIN is short: for one locked sign-in. Beside that its tries count for its person: see `pins.ts`. */
  pin: { points: 5, duration: QUARTER },
  /** The code that opens the set-up of an empty installation. */
  setUp: { points: 10, duration: QUARTER },
  /** A code beside the password, and the codes that stand in for it. */
  secondFactor: { points: 10, duration: QUARTER },
  /** Messages to people who forgot their password: from one address, and to one. */
  forgotten: { points: 20, duration: QUARTER },
  forgottenBy: { points: 3, duration: QUARTER },
  /** Texts that are searched for other children’s names while one person writes. */
  names: { points: 120, duration: 60 },
} as const;
export type Limit = keyof typeof limits;

/** Counters are in the database: all processes count together, and one statement counts and asks at once. */
const limitersOf = new WeakMap<object, Map<Limit, RateLimiterPostgres>>();

function limiter(db: Database, limit: Limit): RateLimiterPostgres {
  const known = limitersOf.get(db) ?? new Map<Limit, RateLimiterPostgres>();
  limitersOf.set(db, known);
  let found = known.get(limit);
  if (!found) {
    found = new RateLimiterPostgres({
      ...{ storeClient: db, storeType: 'knex', tableName: 'rate_limits', tableCreated: true },
      ...{ clearExpiredByTimeout: false, keyPrefix: limit, ...limits[limit] },
    });
    known.set(limit, found);
  }
  return found;
}

/** Counters know of an account or address no more than that it is the same one. */
const keyOf = (...parts: string[]) => createHash('sha256').update(parts.join('\n')).digest('base64url');

/** Counts one try. Resolves to the minutes to wait when it was one too many, null when it may go on. */
export async function countTry(db: Database, limit: Limit, ...of: string[]): Promise<number | null> {
  try {
    await limiter(db, limit).consume(keyOf(...of));
    return null;
  } catch (refusal) {
    if (!(refusal instanceof RateLimiterRes)) throw refusal;
    return Math.max(1, Math.ceil(refusal.msBeforeNext / 60_000));
  }
}

/** Takes a try back that was none: the password was right. */
export async function uncountTry(db: Database, limit: Limit, ...of: string[]): Promise<void> {
  await limiter(db, limit).reward(keyOf(...of));
}

/** Whether there were too many tries already, without counting one. */
async function isSpent(db: Database, limit: Limit, ...of: string[]): Promise<boolean> {
  const state = await limiter(db, limit).get(keyOf(...of));
  return state !== null && state.remainingPoints <= 0;
}

const ANYWHERE = 'anywhere';

/**
 * Whether the words of a card may be typed at an address now: each address has tries of its own, and where too many words were wrong in an
 * hour at the whole installation, they are taken from those addresses alone from which a card was opened in the last two weeks.
 */
export async function mayTypeCardWords(db: Database, address: string): Promise<boolean> {
  if ((await countTry(db, 'unknownCard', address)) !== null) return false;
  if ((await countTry(db, 'unknownCardAnywhere', ANYWHERE)) === null) return true;
  return (await limiter(db, 'cardAddress').get(keyOf(address))) !== null;
}

/** The words were right. */
export async function cardWordsWereRight(db: Database, address: string): Promise<void> {
  await uncountTry(db, 'unknownCard', address);
  await uncountTry(db, 'unknownCardAnywhere', ANYWHERE);
  await countTry(db, 'cardAddress', address);
}

/** How many words of cards were wrong in the last hour at the whole installation, and from how many on most addresses are refused. */
export async function wrongCardWords(db: Database): Promise<{ wrong: number; most: number }> {
  const state = await limiter(db, 'unknownCardAnywhere').get(keyOf(ANYWHERE));
  return { wrong: state?.consumedPoints ?? 0, most: limits.unknownCardAnywhere.points };
}

/** Whether this address may open a link now. */
export async function canOpenLink(db: Database, address: string): Promise<boolean> {
  return !(await isSpent(db, 'unknownLink', address)) && (await countTry(db, 'opening', address)) === null;
}

/** Counts an opening of a link that does not exist. */
export async function countUnknownLink(db: Database, address: string): Promise<void> {
  await countTry(db, 'unknownLink', address);
}
