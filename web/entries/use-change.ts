import { useCallback, useEffect, useRef, useState } from 'react';
import type { WaitingChange } from '~/core/entries/waiting';
import { useWaiting } from '../platform/offline/waiting';
import { useSaving } from '../platform/ui/use-saving';

/**
 * Saves a change to a record. Where the server cannot be reached it waits on this device, as entries do: it names the version that it
 * replaces, so nothing that was changed meanwhile is overwritten.
 *
 * @param action  the page of the record
 * @returns `waits` when what was saved last waits
 */
export function useChange<Answer>(action: string) {
  const { answer, isBusy, isUnreachable, save } = useSaving<Answer>(action);
  const { saveChange } = useWaiting();
  const last = useRef<WaitingChange['change']>(undefined);
  const [waits, setWaits] = useState(false);
  useEffect(() => {
    if (!isUnreachable || isBusy || !last.current) return;
    const change = last.current;
    last.current = undefined;
    // Where nothing can be kept, the page goes on saying that the server cannot be reached.
    saveChange({ to: action, change }).then(
      () => setWaits(true),
      () => {},
    );
  }, [isUnreachable, isBusy, action, saveChange]);
  const change = useCallback(
    (body: WaitingChange['change']) => {
      last.current = body;
      save(body);
    },
    [save],
  );
  return { answer, isBusy, isUnreachable: isUnreachable && !waits, waits, save: change };
}
