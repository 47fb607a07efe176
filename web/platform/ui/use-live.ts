import { useCallback, useEffect, useRef } from 'react';
import { useNavigation, useRevalidator } from 'react-router';
import type { LiveChanged } from './live-changed';

export type { LiveChanged };

const NAME = 'gentle-margin live';
/** Where nothing was heard for this long, not even a beat, the page asks by itself … */
const DEAF_AFTER = 40_000;
/** … this often. */
const ASK_EVERY = 20_000;
/** Several changes at once are looked at once. */
const TOGETHER = 120;

/**
 * Calls back when something changes that the page may show. All tabs of a browser share one stream: one of them holds it, and passes
 * on what it hears. Where it breaks, each asks every 20 seconds.
 *
 * @param onChange  with what was heard; with nothing where it is not known whether anything has changed
 */
export function useLive(onChange: (heard: LiveChanged[]) => void): void {
  const call = useRef(onChange);
  useEffect(() => {
    call.current = onChange;
  });
  useEffect(() => {
    const channel = new BroadcastChannel(NAME);
    const stop = new AbortController();
    let heardAt = Date.now();
    let waiting: LiveChanged[] = [];
    let timer: ReturnType<typeof setTimeout> | undefined;
    const hear = async (data: unknown) => {
      heardAt = Date.now();
      // Nothing is heard on most pages: what reads it is loaded with the first word.
      const reader = await import('./live-changed').catch(() => null);
      const changed = reader?.readLive(data);
      if (!changed) return;
      waiting.push(changed);
      timer ??= setTimeout(() => {
        const heard = waiting;
        [waiting, timer] = [[], undefined];
        call.current(heard);
      }, TOGETHER);
    };
    channel.onmessage = ({ data }) => void hear(data);
    const hold = () =>
      new Promise<void>((release) => {
        const source = new EventSource('/live');
        const pass = ({ data }: MessageEvent<string>) => {
          const event: unknown = JSON.parse(data);
          void hear(event);
          channel.postMessage(event);
        };
        source.addEventListener('message', pass);
        source.addEventListener('beat', pass);
        stop.signal.addEventListener('abort', () => {
          source.close();
          release();
        });
      });
    // Who does not get the lock waits for it, and holds the stream when that tab is closed.
    navigator.locks?.request(NAME, { signal: stop.signal }, hold).catch(() => {});
    const asking = setInterval(() => {
      if (Date.now() - heardAt > DEAF_AFTER) call.current([]);
    }, ASK_EVERY);
    return () => {
      stop.abort();
      channel.close();
      clearInterval(asking);
      clearTimeout(timer);
    };
  }, []);
}

/** A page on its way is let come to an end first: asked for anew in the middle, it would not say what has just been done. */
const AFTER_NAVIGATION = 200;

/** Asks the page anew, once nothing else is on its way. */
export function useAskAnew(): () => void {
  const { revalidate } = useRevalidator();
  const { state } = useNavigation();
  const isIdle = useRef(true);
  useEffect(() => {
    isIdle.current = state === 'idle';
  }, [state]);
  return useCallback(() => {
    const ask = () => {
      if (isIdle.current) void revalidate();
      else setTimeout(ask, AFTER_NAVIGATION);
    };
    ask();
  }, [revalidate]);
}
