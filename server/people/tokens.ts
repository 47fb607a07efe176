import { createHash, randomBytes } from 'node:crypto';

/** A secret that cannot be guessed: 256 random bits, safe in an address or a cookie. */
export function newToken(): string {
  return randomBytes(32).toString('base64url');
}

/** What is stored of a token. It is random and long, so a plain hash cannot be searched backwards. */
export function hashToken(token: string): Buffer {
  return createHash('sha256').update(token).digest();
}
