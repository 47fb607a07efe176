import { forgetPagesBut, hold, holderNow, keepPage, keptSince, release } from '../device';
import { dataOf, type KeptList } from '../kept-list';

/** A page that is not opened is fetched anew after this long. */
const STALE_AFTER = 6 * 3600_000;
/** Between two pages: the server and the network are there for people first. In milliseconds. */
const BREATH = 150;

/** Keeps a page’s data, when it is of whoever has the device. Of somebody else’s, nothing stays that the one before could read. */
export async function keepAnswer(page: string, answer: Response): Promise<boolean> {
  const person = answer.headers.get('X-Person');
  if (answer.status !== 200 || answer.redirected || !person) return false;
  const holder = await holderNow();
  if (holder && holder.personId !== person) {
    await release();
    return false;
  }
  if (!holder || holder.days === 0) return false;
  await keepPage(page, holder, await answer.arrayBuffer());
  return true;
}

let isKeeping = false;

/** Keeps every page that the server lists, one after the other: those that are not here yet, and those that have grown old. */
export async function keepListed(): Promise<void> {
  if (isKeeping) return;
  isKeeping = true;
  try {
    const answer = await fetch('/kept?pages', { redirect: 'manual' }).catch(() => null);
    // Signed out, on another device perhaps: nobody is to read on here.
    if (answer?.type === 'opaqueredirect') await release();
    if (!answer?.ok) return;
    const list = (await answer.json()) as KeptList;
    await hold(list);
    await forgetPagesBut(list.pages);
    await keepEach(list.pages);
  } finally {
    isKeeping = false;
  }
}

async function keepEach(pages: readonly string[]): Promise<void> {
  const since = await keptSince();
  for (const page of pages) {
    if (Date.now() - (since.get(page) ?? 0) < STALE_AFTER) continue;
    const answer = await fetch(dataOf(page), { headers: { 'X-Kept': '1' } }).catch(() => null);
    if (!answer) return;
    await keepAnswer(page, answer);
    await new Promise((resolve) => setTimeout(resolve, BREATH));
  }
}
