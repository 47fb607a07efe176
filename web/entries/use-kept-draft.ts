import { useEffect, useState } from 'react';
import { draftStore } from '../platform/offline/device-store';

/**
 * Keeps the draft on this device while it is being made, and brings back one that was left unsent.
 *
 * @param isTouched  whether anything would be lost with it; the same function on every call, as is `bringBack`
 */
export function useKeptDraft<Draft>(
  key: string,
  draft: Draft,
  isTouched: (draft: Draft) => boolean,
  bringBack: (draft: Draft) => void,
) {
  const [state, setState] = useState<'looking' | 'none' | 'kept' | 'broughtBack'>('looking');
  const isLooking = state === 'looking';
  useEffect(() => {
    draftStore.read<Draft>(key).then(
      (found) => {
        if (found && isTouched(found)) bringBack(found);
        setState(found && isTouched(found) ? 'broughtBack' : 'none');
      },
      () => setState('none'),
    );
  }, [key, isTouched, bringBack]);
  useEffect(() => {
    if (isLooking) return;
    const written = isTouched(draft) ? draftStore.keep(key, draft) : draftStore.forget(key);
    written.then(
      () => setState((before) => (isTouched(draft) ? (before === 'broughtBack' ? before : 'kept') : 'none')),
      () => setState('none'),
    );
  }, [key, draft, isTouched, isLooking]);
  return state;
}
