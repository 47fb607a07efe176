import { forgetPagesBut, hold, holderNow, keepPage, keptSince, release } from '../device';
import { dataOf, type KeptList } from '../kept-list';
import { keepWhole, WHOLE } from './whole';

/** A page that is not opened is fetched anew after this long. */
const STALE_AFTER = 6 * 3600_000;
/** Between two pages: the server and the network are there for people first. In milliseconds. */
const BREATH = 150;

/** Keeps a page’s data, when it is of whoever has the device. Of somebody else’s, nothing stays that the one before could read. */
export async function keepAnswer(page: string, answer: Response): Promise<boolean> {
  const person = answer.headers.get('X-Person');
  if (answer.status !== 200 || answer.redirected || !person || answer.headers.has('X-Said')) return false;
  const holder = await holderNow();
  if (holder && holder.personId !== person) {
    await release();
    return false;
  }
  if (!holder || holder.days === 0) return false;
  await keepPage(page, holder, await answer.arrayBuffer());
  return true;
}

/** Keeps a page as it is without anybody looking: the one that was shown said what had just been done. */
export async function keepAnew(page: string): Promise<void> {
  const answer = await fetch(dataOf(page), forLater).catch(() => null);
  if (answer) await keepAnswer(page, answer);
}

const forLater: RequestInit = { headers: { 'X-Kept': '1' } };

/** Counts the rounds of keeping: a new one ends the one before. */
let rounds = 0;
let last: Promise<void> = Promise.resolve();

/** Keeps every page that the server lists, one after the other: those that are not here yet, and those that have grown old. */
export function keepListed(): Promise<void> {
  const round = ++rounds;
  last = last.then(() => keepRound(() => round === rounds)).catch(() => {});
  return last;
}

/** Forgets what is kept, and keeps it as it is now: names are hidden, or it is of another school. */
export async function keepAllAnew(): Promise<void> {
  rounds++;
  await last;
  await forgetPagesBut([]);
  await keepListed();
}

async function keepRound(goesOn: () => boolean): Promise<void> {
  const answer = await fetch('/kept?pages', { redirect: 'manual' });
  // Signed out, on another device perhaps: nobody is to read on here.
  if (answer.type === 'opaqueredirect') await release();
  if (!answer.ok) return;
  const list = (await answer.json()) as KeptList;
  await hold(list);
  await forgetPagesBut([...list.pages, ...(list.mayShowAtOnce ? [WHOLE] : [])]);
  if (list.pages.length > 0) await keepWhole();
  const since = await keptSince();
  for (const page of list.pages) {
    if (Date.now() - (since.get(page) ?? 0) < STALE_AFTER) continue;
    const data = await fetch(dataOf(page), forLater);
    if (!goesOn()) return;
    await keepAnswer(page, data);
    await new Promise((resolve) => setTimeout(resolve, BREATH));
  }
}
