import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { useRevalidator } from 'react-router';
import { type WaitingSession, waitingStore } from './device-store';
import { type Sent, send } from './send';

/** Between two tries, in milliseconds: the first, and the longest it comes to by doubling. */
const [FIRST_PAUSE, LONGEST_PAUSE] = [2000, 60_000];

interface Waiting {
  /** What this person saved on this device and the server does not have yet, the oldest first. */
  list: WaitingSession[];
  /** Keeps sessions on this device and sends them; those that the server refuses are handed back. */
  save: (sessions: readonly WaitingSession[]) => Promise<Sent[]>;
  /** Puts a changed session in the place of what waits, to be sent anew. */
  change: (session: WaitingSession) => Promise<void>;
  remove: (id: string) => Promise<void>;
  sendNow: () => void;
}

const WaitingContext = createContext<Waiting | null>(null);

/** What waits to be sent. Only inside of the signed-in part. */
export function useWaiting(): Waiting {
  const waiting = useContext(WaitingContext);
  if (!waiting) throw new Error('Nothing waits outside of the signed-in part.');
  return waiting;
}

/** Keeps what one person saved until the server has it, and tries again, ever more slowly. */
export function WaitingProvider({ personId, children }: { personId: string; children: ReactNode }) {
  const [list, setList] = useState<WaitingSession[]>([]);
  const { revalidate } = useRevalidator();
  const pause = useRef(FIRST_PAUSE);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const isSending = useRef(false);

  const look = useCallback(async () => {
    const found = await waitingStore.of(personId).catch(() => []);
    setList(found);
    return found;
  }, [personId]);

  const sendAll = useCallback(async () => {
    if (isSending.current) return;
    isSending.current = true;
    clearTimeout(timer.current);
    let hasSaved = false;
    for (const session of (await look()).filter(({ problem }) => problem === null)) {
      const sent = await send(session);
      if (sent.is === 'unreachable') {
        timer.current = setTimeout(sendAll, pause.current);
        pause.current = Math.min(LONGEST_PAUSE, 2 * pause.current);
        break;
      }
      pause.current = FIRST_PAUSE;
      if (sent.is === 'saved') {
        hasSaved = true;
        await waitingStore.forget(session.id);
      } else {
        await waitingStore.keep({ ...session, problem: Object.values(sent.messages).join(' ') });
      }
    }
    isSending.current = false;
    await look();
    if (hasSaved) revalidate();
  }, [look, revalidate]);

  useEffect(() => {
    sendAll();
    const again = () => {
      pause.current = FIRST_PAUSE;
      sendAll();
    };
    addEventListener('online', again);
    return () => {
      removeEventListener('online', again);
      clearTimeout(timer.current);
    };
  }, [sendAll]);

  const waiting = useMemo<Waiting>(
    () => ({
      list,
      save: async (sessions) => {
        await Promise.all(sessions.map((session) => waitingStore.keep(session).catch(() => {})));
        const results = await Promise.all(sessions.map(send));
        for (const [i, { is }] of results.entries()) {
          if (is !== 'unreachable') await waitingStore.forget((sessions[i] as WaitingSession).id).catch(() => {});
        }
        await look();
        if (results.some(({ is }) => is === 'unreachable')) timer.current = setTimeout(sendAll, pause.current);
        return results;
      },
      change: async (session) => {
        await waitingStore.keep({ ...session, problem: null });
        await sendAll();
        await look();
      },
      remove: async (id) => {
        await waitingStore.forget(id);
        await look();
      },
      sendNow: sendAll,
    }),
    [list, look, sendAll],
  );
  return <WaitingContext value={waiting}>{children}</WaitingContext>;
}
