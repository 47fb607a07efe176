import { type DBSchema, openDB } from 'idb';
import type { KeptList } from './kept-list';

/** Who has this device now, and with what their things on it are locked. */
export interface Holder {
  personId: string;
  /** Opens what is readable here; it cannot be taken out of the browser, and is thrown away when they sign out. */
  key: CryptoKey;
  /** The server's public key: seals what has to outlive the key above. */
  seal: object;
  /** For how many days pages are kept at most; 0 for none. */
  days: number;
  /** Whether Today may be kept as it looks. */
  mayShowAtOnce: boolean;
}

/** Bytes that only the holder's key opens: AES-GCM with 256 bits, a vector of its own for each (NIST SP 800-38D). */
export interface LockedBytes {
  iv: Uint8Array<ArrayBuffer>;
  bytes: ArrayBuffer;
}

/** A page's data as the server last gave it. */
interface KeptPage extends LockedBytes {
  page: string;
  /** By this device's clock, in milliseconds since 1970. */
  at: number;
}

interface Schema extends DBSchema {
  holder: { key: 'now'; value: Holder };
  pages: { key: string; value: KeptPage };
}

const DAY = 24 * 3600_000;

function open() {
  return openDB<Schema>('gentle-margin-device', 1, {
    upgrade(db) {
      db.createObjectStore('holder');
      db.createObjectStore('pages', { keyPath: 'page' });
    },
  });
}

let opened: ReturnType<typeof open> | undefined;

function store() {
  opened ??= open();
  return opened;
}

/** Whether this browser can lock anything: over plain http it cannot, but on the machine itself. */
export const canLock = (): boolean => globalThis.crypto?.subtle !== undefined;

/** Who has this device; null when nobody has signed in since the last one signed out. */
export const holderNow = async (): Promise<Holder | null> => (await (await store()).get('holder', 'now')) ?? null;

/** Gives the device to whoever is signed in. What it kept for another is thrown away. */
export async function hold({ personId, seal, days, mayShowAtOnce }: Omit<KeptList, 'pages'>): Promise<Holder> {
  const before = await holderNow();
  if (before && before.personId !== personId) await release();
  const key =
    before?.personId === personId
      ? before.key
      : await crypto.subtle.generateKey({ name: 'AES-GCM', length: 256 }, false, ['encrypt', 'decrypt']);
  const holder = { personId, key, seal, days, mayShowAtOnce };
  await (await store()).put('holder', holder, 'now');
  if (days === 0) await (await store()).clear('pages');
  return holder;
}

/** Throws away whatever can be read here: the pages, and the key. What waits to be sent stays, sealed. */
export async function release(): Promise<void> {
  const db = await store();
  await Promise.all([db.clear('holder'), db.clear('pages')]);
}

/** Locks bytes with the holder's key. */
export async function lockBytes({ key }: Holder, bytes: BufferSource): Promise<LockedBytes> {
  const iv = crypto.getRandomValues(new Uint8Array(12));
  return { iv, bytes: await crypto.subtle.encrypt({ name: 'AES-GCM', iv }, key, bytes) };
}

/** Opens what was locked; null when it was with another key. */
export async function openBytes({ key }: Holder, { iv, bytes }: LockedBytes): Promise<ArrayBuffer | null> {
  try {
    return await crypto.subtle.decrypt({ name: 'AES-GCM', iv }, key, bytes);
  } catch (error) {
    if (error instanceof DOMException && error.name === 'OperationError') return null;
    throw error;
  }
}

const through = (bytes: BodyInit, stream: CompressionStream | DecompressionStream) =>
  new Response(new Response(bytes).body?.pipeThrough(stream)).arrayBuffer();

/** Keeps the data of a page for its holder, packed and locked. */
export async function keepPage(page: string, holder: Holder, data: ArrayBuffer, at = Date.now()): Promise<void> {
  const packed = await through(data, new CompressionStream('gzip'));
  await (await store()).put('pages', { page, at, ...(await lockBytes(holder, packed)) });
}

/** The data of a page as it was kept, and when; null when it was not, or too long ago. */
export async function keptPage(page: string, now = Date.now()): Promise<{ at: number; data: ArrayBuffer } | null> {
  const pages = await store();
  const [holder, kept] = await Promise.all([holderNow(), pages.get('pages', page)]);
  if (!holder || !kept || now - kept.at > holder.days * DAY) return null;
  const packed = await openBytes(holder, kept);
  return packed && { at: kept.at, data: await through(packed, new DecompressionStream('gzip')) };
}

/** When each page was kept, by its address. */
export async function keptSince(): Promise<Map<string, number>> {
  const all = await (await store()).getAll('pages');
  return new Map(all.map(({ page, at }) => [page, at]));
}

/** How many pages are kept here, and how many bytes they take. */
export async function keptSize(): Promise<{ pages: number; bytes: number }> {
  const all = await (await store()).getAll('pages');
  return { pages: all.length, bytes: all.reduce((sum, { bytes }) => sum + bytes.byteLength, 0) };
}

/** Forgets the pages that are no longer to be kept. */
export async function forgetPagesBut(pages: readonly string[]): Promise<void> {
  const wanted = new Set(pages);
  const db = await store();
  for (const page of await db.getAllKeys('pages')) if (!wanted.has(page)) await db.delete('pages', page);
}
