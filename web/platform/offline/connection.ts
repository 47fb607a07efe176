import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { laterBy } from '~/core/calendar/later';
import type { WallTime } from '~/core/calendar/zone';
import { release } from './device';
import { type FromWorker, KEPT_AT, type ToWorker } from './kept-list';

/** When what is shown was kept, by this device’s clock; null while it is the server’s. */
let keptAt: number | null = null;
const listeners = new Set<() => void>();

const workers = () => (typeof navigator === 'undefined' ? undefined : navigator.serviceWorker);

/** Listens to the worker from the first moment: it says of each answer where it comes from. */
export function listen(): void {
  const whole = typeof document === 'undefined' ? null : document.documentElement.getAttribute(KEPT_AT);
  if (whole !== null) keptAt = Number(whole);
  workers()?.addEventListener('message', ({ data, ports }: MessageEvent<FromWorker>) => {
    keptAt = data.is === 'kept' ? data.at : null;
    for (const listener of listeners) listener();
    ports[0]?.postMessage('heard');
  });
  workers()?.startMessages();
}

/** Whether this page was given by the worker as a whole, as it had been kept. */
export const isKeptWhole = (): boolean => document.documentElement.hasAttribute(KEPT_AT);

function subscribe(listener: () => void) {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** When what is shown was kept on this device, in milliseconds since 1970; null while it is the server’s. */
export const useKeptAt = (): number | null =>
  useSyncExternalStore(
    subscribe,
    () => keptAt,
    () => null,
  );

/** The school’s wall clock, on a page that may have been kept for a while: moved on by the time since. */
export function useWallNow(wall: WallTime): WallTime {
  const at = useKeptAt();
  const [opened] = useState(() => Date.now());
  return at === null ? wall : laterBy(wall, opened - at);
}

/** What something is recorded on, by the clock as it is now. */
export function useScreenNow<Screen extends { wall: WallTime }>(screen: Screen): Screen {
  const { on, time } = useWallNow(screen.wall);
  return useMemo(() => ({ ...screen, wall: { on, time } }), [screen, on, time]);
}

const tellWorker = (message: ToWorker) => workers()?.controller?.postMessage(message);

/** In milliseconds: after signing in, what one came for goes first; then it is looked whether anything has grown old. */
const [FIRST_AFTER, AGAIN_AFTER] = [4000, 30 * 60_000];

/**
 * Keeps the program and the pages of whoever is signed in on this device.
 *
 * @returns what lets a newer version take over, where one has come; else null
 */
export function useWorker(): (() => void) | null {
  const [waiting, setWaiting] = useState<ServiceWorker | null>(null);
  const isTakingOver = useRef(false);
  useEffect(() => {
    const container = workers();
    if (!container) return;
    const first = setTimeout(() => {
      void container.register('/worker.js').then(
        async (registration: ServiceWorkerRegistration | undefined) => {
          // Where somebody has switched workers off, there is none.
          if (!registration) return;
          const look = () => registration.waiting && container.controller && setWaiting(registration.waiting);
          look();
          registration.addEventListener('updatefound', () => {
            registration.installing?.addEventListener('statechange', look);
          });
          await container.ready;
          keepNow();
        },
        // A browser that forbids it keeps nothing; everything else works.
        () => {},
      );
    }, FIRST_AFTER);
    const again = setInterval(keepNow, AGAIN_AFTER);
    const change = () => {
      if (isTakingOver.current) window.location.reload();
      else keepNow();
    };
    container.addEventListener('controllerchange', change);
    return () => {
      clearTimeout(first);
      clearInterval(again);
      container.removeEventListener('controllerchange', change);
    };
  }, []);
  const takeOver = useCallback(() => {
    isTakingOver.current = true;
    waiting?.postMessage({ is: 'takeOver' } satisfies ToWorker);
  }, [waiting]);
  return waiting && takeOver;
}

/** Lets the worker look at once what there is to keep. */
export const keepNow = () => tellWorker({ is: 'keep' });

/** Forgets what could be read here: somebody signs out. */
export function forgetHere(): Promise<void> {
  for (const key of [ACTIVE_KEY, PIN_KEY]) localStorage.removeItem(key);
  return release().catch(() => {});
}

/** Under which this device keeps when somebody last used it, and what tells their PIN. */
export const ACTIVE_KEY = 'gm-active';
export const PIN_KEY = 'gm-pin';
