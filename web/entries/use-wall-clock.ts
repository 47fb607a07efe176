import { useCallback, useEffect, useRef } from 'react';
import { laterBy } from '~/core/calendar/later';
import type { WallTime } from '~/core/calendar/zone';

/** The school's wall clock, moved on by the time this page has been open. */
export function useWallClock(wall: WallTime): () => WallTime {
  const opened = useRef(0);
  useEffect(() => {
    opened.current = performance.now();
  }, []);
  const { on, time } = wall;
  return useCallback(() => laterBy({ on, time }, performance.now() - opened.current), [on, time]);
}
