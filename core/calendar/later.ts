import type { WallTime } from './zone';

/**
 * A wall clock so many milliseconds later. A clock change in between is not seen: that takes the zone.
 *
 * @example laterBy({ on: '2026-11-30', time: '23:30' }, 3_600_000) // { on: '2026-12-01', time: '00:30' }
 */
export function laterBy({ on, time }: WallTime, ms: number): WallTime {
  const text = new Date(Date.parse(`${on}T${time}:00Z`) + ms).toISOString();
  return { on: text.slice(0, 10), time: text.slice(11, 16) };
}
