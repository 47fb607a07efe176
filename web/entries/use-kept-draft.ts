import { useEffect, useState } from 'react';
import type { z } from 'zod';
import { draftStore } from '../platform/offline/device-store';

/**
 * Keeps the draft on this device while it is being made, and brings back one that was left unsent.
 *
 * @param schema  the draft as this version knows it; another is let go
 * @param isTouched  whether anything would be lost with it; the same function on every call, as is `bringBack`
 */
export function useKeptDraft<Draft>(
  key: string,
  schema: z.ZodType<Draft>,
  draft: Draft,
  isTouched: (draft: Draft) => boolean,
  bringBack: (draft: Draft) => void,
) {
  const [state, setState] = useState<'looking' | 'none' | 'kept' | 'broughtBack'>('looking');
  const isLooking = state === 'looking';
  useEffect(() => {
    draftStore.read(key, schema).then(
      (found) => {
        if (found && isTouched(found)) bringBack(found);
        setState(found && isTouched(found) ? 'broughtBack' : 'none');
      },
      () => setState('none'),
    );
  }, [key, schema, isTouched, bringBack]);
  useEffect(() => {
    if (isLooking) return;
    // What was marked after it is not kept yet: it says so itself.
    let isLatest = true;
    const say = (next: typeof state | ((before: typeof state) => typeof state)) => isLatest && setState(next);
    const written = isTouched(draft) ? draftStore.keep(key, draft) : draftStore.forget(key);
    written.then(
      () => say((before) => (isTouched(draft) ? (before === 'broughtBack' ? before : 'kept') : 'none')),
      () => say('none'),
    );
    return () => {
      isLatest = false;
    };
  }, [key, draft, isTouched, isLooking]);
  return state;
}
