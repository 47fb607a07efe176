import { z } from 'zod';
import { PIN_KEY } from '../platform/offline/connection';

/** OWASP's recommendation for PBKDF2 with SHA-256, from memory. */
const ROUNDS = 600_000;
/** So many wrong tries without network; then only the server opens. */
const MOST_TRIES = 5;

const known = z.object({ personId: z.string(), salt: z.string(), hash: z.string(), tries: z.number() });

const toText = (bytes: ArrayBuffer | Uint8Array) => btoa(String.fromCharCode(...new Uint8Array(bytes)));
const fromText = (text: string) => Uint8Array.from(atob(text), (letter) => letter.charCodeAt(0));

async function hashed(secret: string, salt: Uint8Array<ArrayBuffer>): Promise<string> {
  const key = await crypto.subtle.importKey('raw', new TextEncoder().encode(secret), 'PBKDF2', false, ['deriveBits']);
  return toText(
    await crypto.subtle.deriveBits({ name: 'PBKDF2', hash: 'SHA-256', salt, iterations: ROUNDS }, key, 256),
  );
}

/**
 * Keeps what tells a PIN again without network. It holds off who picks the device up, not who takes it apart: a PIN is short. It goes
 * with everything else when its person signs out.
 */
export async function learnPin(personId: string, secret: string): Promise<void> {
  if (!globalThis.crypto?.subtle) return;
  const salt = crypto.getRandomValues(new Uint8Array(16));
  const learnt = { personId, salt: toText(salt), hash: await hashed(secret, salt), tries: 0 };
  localStorage.setItem(PIN_KEY, JSON.stringify(learnt));
}

/** Whether this is the PIN that the device has learnt: `unknown` where it has learnt none, `spent` after too many tries. */
export async function knowsPin(personId: string, secret: string): Promise<'right' | 'wrong' | 'unknown' | 'spent'> {
  const kept = localStorage.getItem(PIN_KEY);
  const parsed = known.safeParse(kept === null ? null : JSON.parse(kept));
  if (!parsed.success || parsed.data.personId !== personId) return 'unknown';
  if (parsed.data.tries >= MOST_TRIES) return 'spent';
  const isRight = (await hashed(secret, fromText(parsed.data.salt))) === parsed.data.hash;
  localStorage.setItem(PIN_KEY, JSON.stringify({ ...parsed.data, tries: isRight ? 0 : parsed.data.tries + 1 }));
  return isRight ? 'right' : 'wrong';
}
