import { useCallback, useEffect, useRef } from 'react';
import type { WallTime } from '~/core/calendar/zone';

/** The school's wall clock, moved on by the time this page has been open. */
export function useWallClock(wall: WallTime): () => WallTime {
  const opened = useRef(0);
  useEffect(() => {
    opened.current = performance.now();
  }, []);
  return useCallback(() => {
    const start = Date.parse(`${wall.on}T${wall.time}:00Z`);
    const text = new Date(start + performance.now() - opened.current).toISOString();
    return { on: text.slice(0, 10), time: text.slice(11, 16) };
  }, [wall.on, wall.time]);
}
