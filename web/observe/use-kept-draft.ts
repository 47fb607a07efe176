import { useEffect, useState } from 'react';
import { draftStore } from '../waiting/device-store';
import { isTouched, type SessionDraft } from './draft';

/** Keeps the draft on this device while it is being made, and brings back one that was left unsent. */
export function useKeptDraft(key: string, draft: SessionDraft, bringBack: (draft: SessionDraft) => void) {
  const [state, setState] = useState<'looking' | 'none' | 'kept' | 'broughtBack'>('looking');
  const isLooking = state === 'looking';
  useEffect(() => {
    draftStore.read<SessionDraft>(key).then(
      (found) => {
        if (found && isTouched(found)) bringBack(found);
        setState(found && isTouched(found) ? 'broughtBack' : 'none');
      },
      () => setState('none'),
    );
  }, [key, bringBack]);
  useEffect(() => {
    if (isLooking) return;
    const written = isTouched(draft) ? draftStore.keep(key, draft) : draftStore.forget(key);
    written.then(
      () => setState((before) => (isTouched(draft) ? (before === 'broughtBack' ? before : 'kept') : 'none')),
      () => setState('none'),
    );
  }, [key, draft, isLooking]);
  return state;
}
