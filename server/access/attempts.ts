import { RateLimiterMemory, type RateLimiterRes } from 'rate-limiter-flexible';

/** Wrong sign-ins for one account, and from one address, before it has to wait. */
const perAccount = new RateLimiterMemory({ points: 8, duration: 15 * 60 });
const perAddress = new RateLimiterMemory({ points: 60, duration: 15 * 60 });
/** Openings of ways in from one address: unknown links cost most, so that guessing is hopeless. */
const unknownLinks = new RateLimiterMemory({ points: 20, duration: 15 * 60 });
const openings = new RateLimiterMemory({ points: 120, duration: 60 });

async function minutesLeft(limiter: RateLimiterMemory, key: string): Promise<number | null> {
  const state = await limiter.get(key);
  return state && state.remainingPoints <= 0 ? Math.max(1, Math.ceil(state.msBeforeNext / 60_000)) : null;
}

async function count(limiter: RateLimiterMemory, key: string): Promise<boolean> {
  return limiter.consume(key).then(
    () => true,
    (refusal: RateLimiterRes | Error) => {
      if (refusal instanceof Error) throw refusal;
      return false;
    },
  );
}

/** Minutes to wait before this account or address may try to sign in again; null when it may now. */
export async function signInWait(email: string, address: string): Promise<number | null> {
  return (await minutesLeft(perAccount, email.toLowerCase())) ?? (await minutesLeft(perAddress, address));
}

/** Counts a wrong password. */
export async function countWrongSignIn(email: string, address: string): Promise<void> {
  await Promise.all([count(perAccount, email.toLowerCase()), count(perAddress, address)]);
}

/** After a right one the account starts afresh. */
export async function forgetWrongSignIns(email: string): Promise<void> {
  await perAccount.delete(email.toLowerCase());
}

/** Whether this address may open a way in now. */
export async function mayOpenLink(address: string): Promise<boolean> {
  return (await minutesLeft(unknownLinks, address)) === null && (await count(openings, address));
}

/** Counts an opening of a link that does not exist. */
export async function countUnknownLink(address: string): Promise<void> {
  await count(unknownLinks, address);
}
