import { describe, expect, it, vi } from 'vitest';

process.env.DATABASE_URL ??= 'postgres://unused';

describe('the clock that everything goes by', () => {
  it('starts where it is told to, goes on from there, and starts over', async () => {
    vi.resetModules();
    vi.stubEnv('CLOCK', '2026-11-24T15:30:00-05:00');
    const { now, restartClock } = await import('./clock');
    const sinceStart = () => now().getTime() - Date.parse('2026-11-24T20:30:00Z');
    expect(Math.abs(sinceStart())).toBeLessThan(5000);
    vi.useFakeTimers({ now: Date.now() + 600_000 });
    expect(sinceStart()).toBeGreaterThan(590_000);
    restartClock();
    expect(Math.abs(sinceStart())).toBeLessThan(5000);
    vi.useRealTimers();
    vi.unstubAllEnvs();
  });
});
