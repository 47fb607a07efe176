import { canLock, type Holder, hold, holderNow, type LockedBytes, lockBytes, openBytes } from './device';
import type { KeptList } from './kept-list';

/**
 * Something of a person that has to outlive their sign-in: sealed, so that only the server opens it, and a copy that this device can
 * read while they are signed in.
 */
export interface Locked {
  /** In the compact form of JSON Web Encryption (RFC 7516). */
  sealed: string;
  copy: LockedBytes;
}

/** As it is where the browser cannot lock, or the server has not been reached since the sign-in. */
interface Plain {
  plain: unknown;
}
export type Lockable = Locked | Plain;

export const isLockable = (value: unknown): value is Lockable =>
  typeof value === 'object' && value !== null && ('sealed' in value || 'plain' in value);

/** Asks the server for what locks; null when it cannot be reached, or somebody else is signed in. */
async function askedHolder(personId: string): Promise<Holder | null> {
  const answer = await fetch('/kept', { redirect: 'manual' }).catch(() => null);
  if (!answer?.ok) return null;
  const list = (await answer.json()) as KeptList;
  return list.personId === personId ? hold(list) : null;
}

async function holderFor(personId: string): Promise<Holder | null> {
  if (!canLock()) return null;
  const now = await holderNow();
  return now?.personId === personId ? now : askedHolder(personId);
}

type Sealing = Pick<typeof import('jose'), 'CompactEncrypt' | 'importJWK'>;

let sealing: Sealing | undefined;

/** Pages on which something is recorded bring along what seals it: there it must be at hand without network. */
export function provideSealing(provided: Sealing): void {
  sealing = provided;
}

/** What seals; null where it cannot be fetched any more. */
const loadSealing = async (): Promise<Sealing | null> => sealing ?? (await import('jose').catch(() => null));

let imported: { seal: string; key: ReturnType<typeof import('jose').importJWK> } | undefined;

/** The server’s public key as it seals: it is the same for each tap. */
function sealKey({ importJWK }: Sealing, seal: object) {
  const text = JSON.stringify(seal);
  if (imported?.seal !== text) imported = { seal: text, key: importJWK(seal, 'ECDH-ES') };
  return imported.key;
}

/** Locks something of a person who is signed in. Where it cannot be locked it is kept as it is: to lose it would be worse. */
export async function lock(personId: string, value: unknown): Promise<Lockable> {
  const [holder, seals] = await Promise.all([holderFor(personId), loadSealing()]);
  if (!holder || !seals) return { plain: value };
  const { CompactEncrypt } = seals;
  const bytes = new TextEncoder().encode(JSON.stringify({ personId, value }));
  const [copy, sealed] = await Promise.all([
    lockBytes(holder, bytes),
    sealKey(seals, holder.seal).then((key) =>
      new CompactEncrypt(bytes).setProtectedHeader({ alg: 'ECDH-ES', enc: 'A256GCM' }).encrypt(key),
    ),
  ]);
  return { sealed, copy };
}

/** What was inside, and whether only the server could open it. */
interface Opened {
  value: unknown;
  byServer?: boolean;
}

/** What was locked: by this device’s key, else by the server; undefined while neither can open it. */
export async function opened(personId: string, locked: Lockable): Promise<Opened | undefined> {
  if ('plain' in locked) return { value: locked.plain };
  const holder = await holderNow();
  const bytes = holder?.personId === personId ? await openBytes(holder, locked.copy) : null;
  if (bytes) return { value: (JSON.parse(new TextDecoder().decode(bytes)) as { value: unknown }).value };
  return unsealed(locked.sealed);
}

async function unsealed(sealed: string): Promise<Opened | undefined> {
  const answer = await fetch('/unseal', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ sealed }),
    redirect: 'manual',
  }).catch(() => null);
  if (!answer?.ok) return undefined;
  const found = (await answer.json()) as { value: unknown } | null;
  return found ? { ...found, byServer: true } : undefined;
}
