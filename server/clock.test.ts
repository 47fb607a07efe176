import { describe, expect, it, vi } from 'vitest';

process.env.DATABASE_URL ??= 'postgres://unused';

describe('the clock on the school’s wall', () => {
  it('shows the school’s own time, over midnight and over both clock changes', async () => {
    const { wallTime } = await import('./clock');
    expect(wallTime(new Date('2026-11-24T04:59:00Z'), 'America/New_York')).toEqual({ on: '2026-11-23', time: '23:59' });
    // The clocks went back on 1 November 2026 at 2 in the morning: half past one came twice (tz database).
    expect(wallTime(new Date('2026-11-01T05:30:00Z'), 'America/New_York').time).toBe('01:30');
    expect(wallTime(new Date('2026-11-01T06:30:00Z'), 'America/New_York').time).toBe('01:30');
    expect(wallTime(new Date('2026-03-08T06:59:00Z'), 'America/New_York').time).toBe('01:59');
    expect(wallTime(new Date('2026-03-08T07:00:00Z'), 'America/New_York').time).toBe('03:00');
  });

  it('starts where it is told to, and goes on from there', async () => {
    vi.resetModules();
    vi.stubEnv('CLOCK', '2026-11-24T15:30:00-05:00');
    const { now } = await import('./clock');
    expect(Math.abs(now().getTime() - Date.parse('2026-11-24T20:30:00Z'))).toBeLessThan(5000);
    vi.unstubAllEnvs();
  });
});
