import { lazy, Suspense, useCallback, useEffect, useLayoutEffect, useState } from 'react';
import { ACTIVE_KEY } from '../platform/offline/connection';

/** That somebody is there is written down no more often than this, and looked at as often. In milliseconds. */
const EVERY = 5000;

const LockCover = lazy(() => import('./lock-cover'));

/** When somebody last touched this device or typed on it, on whichever page; null where that is not known. */
function lastActive(): number | null {
  const kept = localStorage.getItem(ACTIVE_KEY);
  return kept === null ? null : Number(kept);
}

// Where nothing is painted yet there is nothing to cover either.
const useBeforePaint = typeof window === 'undefined' ? useEffect : useLayoutEffect;

/** Locks this device when nobody has used it for a while: the page is covered, and the server shows no more of it either. */
export default function LockWatch({ minutes, personId, name }: { minutes: number; personId: string; name: string }) {
  const [isLocked, setLocked] = useState(false);
  useBeforePaint(() => {
    const look = () => {
      const since = lastActive();
      if (since === null || Date.now() - since <= minutes * 60_000) return;
      setLocked((before) => {
        if (!before) void tellServer();
        return true;
      });
    };
    let told = 0;
    const active = () => {
      if (Date.now() - told < EVERY) return;
      // Whoever comes back too late is not there yet: first it is locked.
      look();
      told = Date.now();
      if (!document.querySelector('[data-locked]')) localStorage.setItem(ACTIVE_KEY, `${told}`);
    };
    look();
    if (lastActive() === null) localStorage.setItem(ACTIVE_KEY, `${Date.now()}`);
    const timer = setInterval(look, EVERY);
    addEventListener('pointerdown', active, true);
    addEventListener('keydown', active, true);
    return () => {
      clearInterval(timer);
      removeEventListener('pointerdown', active, true);
      removeEventListener('keydown', active, true);
    };
  }, [minutes]);
  const open = useCallback(() => {
    localStorage.setItem(ACTIVE_KEY, `${Date.now()}`);
    setLocked(false);
  }, []);
  if (!isLocked) return null;
  return (
    <div data-locked className="fixed inset-0 z-50 bg-paper">
      <Suspense>
        <LockCover personId={personId} name={name} onOpen={open} />
      </Suspense>
    </div>
  );
}

/** Without network the page alone is locked; what the server has is out of reach then anyway. */
const tellServer = () =>
  fetch('/locked.data', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ intent: 'lock' }),
  }).catch(() => {});
