import { useMemo } from 'react';
import type { IncidentScreen } from '~/core/entries/waiting';
import { useWallNow } from '../../platform/offline/connection';

/** What an incident is recorded on, by the clock as it is now: it may have been kept on the device for a while. */
export function useScreenNow(screen: IncidentScreen): IncidentScreen {
  const { on, time } = useWallNow(screen.wall);
  return useMemo(() => ({ ...screen, wall: { on, time } }), [screen, on, time]);
}
