import { describe, expect, it, vi } from 'vitest';

process.env.DATABASE_URL ??= 'postgres://unused';

describe('the clock that everything goes by', () => {
  it('starts where it is told to, and goes on from there', async () => {
    vi.resetModules();
    vi.stubEnv('CLOCK', '2026-11-24T15:30:00-05:00');
    const { now } = await import('./clock');
    expect(Math.abs(now().getTime() - Date.parse('2026-11-24T20:30:00Z'))).toBeLessThan(5000);
    vi.unstubAllEnvs();
  });
});
