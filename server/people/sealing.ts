import { randomUUID } from 'node:crypto';
import { compactDecrypt, exportJWK, generateKeyPair, importJWK, type JWK } from 'jose';
import { z } from 'zod';
import type { Database } from '../platform/db/database';
import { existing } from '../platform/failures';

/** How what waits on a device is sealed: JSON Web Encryption (RFC 7516) with ephemeral Diffie–Hellman keys (RFC 7518, 4.6). */
const ALGORITHM = 'ECDH-ES';

const jwk = z.looseObject({ kty: z.string() });

/** The key with which devices seal what they keep for later: made once, when first asked for. Only the server can open what it seals. */
export async function sealingKey(db: Database): Promise<JWK> {
  const known = await db('sealing_keys').first('public_key');
  if (known) return jwk.parse(known.public_key);
  const { publicKey, privateKey } = await generateKeyPair(ALGORITHM, { extractable: true });
  await db('sealing_keys')
    .insert({
      id: randomUUID(),
      public_key: JSON.stringify(await exportJWK(publicKey)),
      private_key: JSON.stringify(await exportJWK(privateKey)),
      made_at: new Date(),
    })
    // Another process was first: its key is everybody’s.
    .onConflict()
    .ignore();
  return jwk.parse(existing(await db('sealing_keys').first('public_key')).public_key);
}

/** What is inside of a seal: whose it is, and what they kept. */
const inside = z.object({ personId: z.string(), value: z.unknown() });
/** Anybody can seal: what is inside need not be JSON. */
const insideText = z
  .string()
  .transform((text, context) => {
    try {
      return JSON.parse(text) as unknown;
    } catch {
      context.addIssue({ code: 'custom', message: 'This is no JSON.' });
      return z.NEVER;
    }
  })
  .pipe(inside);

/**
 * What a person’s device sealed.
 *
 * @param sealed  in the compact form of JSON Web Encryption
 * @returns null for what is no such thing, was sealed for another key, or is another person’s
 */
export async function unseal(db: Database, personId: string, sealed: string): Promise<{ value: unknown } | null> {
  const key = await db('sealing_keys').first('private_key');
  if (!key) return null;
  const text = await plaintext(sealed, jwk.parse(key.private_key));
  if (text === null) return null;
  const parsed = insideText.safeParse(text);
  return parsed.success && parsed.data.personId === personId ? { value: parsed.data.value } : null;
}

async function plaintext(sealed: string, privateKey: JWK): Promise<string | null> {
  const key = await importJWK(privateKey, ALGORITHM);
  return compactDecrypt(sealed, key).then(
    ({ plaintext: bytes }) => new TextDecoder().decode(bytes),
    // Whatever is wrong with it: nobody can open it.
    () => null,
  );
}
