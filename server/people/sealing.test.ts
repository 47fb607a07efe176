import { CompactEncrypt, importJWK } from 'jose';
import { describe, expect, it } from 'vitest';
import { freshDatabase } from '~/tests/database/fresh';
import { sealingKey, unseal } from './sealing';

const fresh = freshDatabase();

/** As a device seals: RFC 7516, compact form. */
async function sealed(content: unknown, key?: object, text = JSON.stringify(content)): Promise<string> {
  const publicKey = await importJWK(key ?? (await sealingKey(fresh.db)), 'ECDH-ES');
  const bytes = new TextEncoder().encode(text);
  return new CompactEncrypt(bytes).setProtectedHeader({ alg: 'ECDH-ES', enc: 'A256GCM' }).encrypt(publicKey);
}

describe('what a device seals', () => {
  it('is opened for whose it is, and for nobody else', async () => {
    const box = await sealed({ personId: 'ada', value: { marks: [1, 2] } });
    expect(box).not.toContain('marks');
    expect(await unseal(fresh.db, 'ada', box)).toEqual({ value: { marks: [1, 2] } });
    expect(await unseal(fresh.db, 'ben', box)).toBeNull();
  });

  it('stays shut when it is no such thing, was changed, or was sealed for another key', async () => {
    const box = await sealed({ personId: 'ada', value: 1 });
    const changed = `${box.slice(0, -4)}${box.endsWith('AAAA') ? 'BBBB' : 'AAAA'}`;
    const { generateKeyPair, exportJWK } = await import('jose');
    const { publicKey } = await generateKeyPair('ECDH-ES', { extractable: true });
    const foreign = await sealed({ personId: 'ada', value: 1 }, await exportJWK(publicKey));
    for (const wrong of [
      '',
      'letters',
      changed,
      foreign,
      await sealed('no object'),
      await sealed(null, undefined, '{ no JSON'),
    ])
      expect(await unseal(fresh.db, 'ada', wrong)).toBeNull();
  });

  it('is sealed with one key, whoever asks first, and the private half is not given out', async () => {
    await fresh.db('sealing_keys').delete();
    const keys = await Promise.all([1, 2, 3].map(() => sealingKey(fresh.db)));
    expect(new Set(keys.map((key) => JSON.stringify(key))).size).toBe(1);
    expect(keys[0]).toMatchObject({ kty: 'EC', crv: 'P-256' });
    expect(keys[0]).not.toHaveProperty('d');
    expect(await fresh.db('sealing_keys')).toHaveLength(1);
  });
});
