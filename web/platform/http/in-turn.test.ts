import { setTimeout as pause } from 'node:timers/promises';
import { describe, expect, it } from 'vitest';
import { Busy } from '~/server/platform/failures';
import { inTurn } from './in-turn';

describe('pages that compute much', () => {
  it('are answered a few at a time, and told to come again when too many wait', async () => {
    let [atOnce, most] = [0, 0];
    const loader = inTurn(async (n: number) => {
      most = Math.max(most, ++atOnce);
      await pause(2);
      atOnce--;
      return n;
    });
    const all = await Promise.allSettled(Array.from({ length: 100 }, (_, n) => loader(n)));
    expect(most).toBe(2);
    const answered = all.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
    const refused = all.flatMap((one) => (one.status === 'rejected' ? [one.reason] : []));
    expect(answered).toEqual(Array.from({ length: 62 }, (_, n) => n));
    expect(refused.every((reason) => reason instanceof Busy)).toBe(true);
    // What fails lets the next one through.
    const failing = inTurn(async () => Promise.reject(new Error('ours')));
    await expect(failing(null)).rejects.toThrow('ours');
    expect(await loader(7)).toBe(7);
  });
});
