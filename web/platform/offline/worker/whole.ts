import { holderNow, keepPage, keptPage, keptSince } from '../device';
import { KEPT_AT } from '../kept-list';

/** Under which Today is kept as it looks, beside its data. */
export const WHOLE = '/ whole';
/** It is kept anew no more often than this, in milliseconds: what it shows is replaced by the data, which are kept each time. */
const RESTED = 10 * 60_000;

/** Today as the server drew it. */
interface Whole {
  /** Its content policy, with the nonce that its scripts carry. */
  policy: string;
  html: string;
}

/** Keeps Today as it looks: a device that is opened without network shows it before the program has come to life. */
export async function keepWhole(): Promise<void> {
  const holder = await holderNow();
  if (!holder?.mayShowAtOnce) return;
  const since = await keptSince();
  if (Date.now() - (since.get(WHOLE) ?? 0) < RESTED) return;
  const answer = await fetch('/', { headers: { 'X-Kept': '1', Accept: 'text/html' } }).catch(() => null);
  const policy = answer?.headers.get('Content-Security-Policy');
  if (answer?.status !== 200 || answer.redirected || !policy) return;
  if (answer.headers.get('X-Person') !== holder.personId || answer.headers.has('X-Said')) return;
  const whole: Whole = { policy, html: await answer.text() };
  await keepPage(WHOLE, holder, new TextEncoder().encode(JSON.stringify(whole)).buffer);
}

/** Today as it was kept; null where it was not, or where it names files that are not those of this version of the program. */
export async function keptWhole(isFile: (path: string) => boolean): Promise<Response | null> {
  const kept = await keptPage(WHOLE);
  if (!kept) return null;
  const whole = JSON.parse(new TextDecoder().decode(kept.data)) as Whole;
  if (!(whole.html.match(/\/assets\/[\w.-]+/g) ?? []).every(isFile)) return null;
  return new Response(whole.html.replace('<html', `<html ${KEPT_AT}="${kept.at}"`), {
    headers: { 'Content-Type': 'text/html; charset=utf-8', 'Content-Security-Policy': whole.policy },
  });
}
