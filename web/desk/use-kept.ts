import { useCallback, useEffect, useRef, useState } from 'react';
import { useRevalidator } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { draftStore } from '../platform/offline/device-store';
import { deskWords } from './words';

/** Something a student said, and where it goes. It carries its own id. */
const keptItem = z.object({ to: z.enum(['steps', 'log', 'note', 'feedback']), said: z.looseObject({ id: z.uuid() }) });
export type KeptItem = z.infer<typeof keptItem>;

const kept = z.array(keptItem);
const RETRY_EVERY = 4000;

interface Kept {
  /** What was said and is not with the server yet, in order. */
  waiting: KeptItem[];
  /** Why the server will not take something, or why it waits. */
  message: string | null;
  say: (to: KeptItem['to'], said: Record<string, unknown> & { id?: string }) => void;
}

/** Where a student is: at their own desk, or with their class's code. */
type Place = 'desk' | 'seat';

const nobodyAnswers = null;

/** It says whose it is: in another tab of this browser somebody else may have sat down meanwhile. */
async function sendItem(place: Place, studentId: string, { to, said }: KeptItem): Promise<Response | null> {
  try {
    return await fetch(`/${place}/${to}?of=${studentId}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(said),
    });
  } catch {
    return nobodyAnswers;
  }
}

const refusal = z.object({ messages: z.record(z.string(), z.string()) });

async function refusalOf(answer: Response): Promise<string> {
  const parsed = refusal.safeParse(await answer.json().catch(() => null));
  return (parsed.success && Object.values(parsed.data.messages)[0]) || deskWords.cannotBeRead;
}

/** What a student says is kept on this device until the server has it, and sent once, in order. */
export function useKept(studentId: string, place: Place = 'desk'): Kept {
  const key = `${place} ${studentId}`;
  const [waiting, setWaiting] = useState<KeptItem[]>([]);
  const [message, setMessage] = useState<string | null>(null);
  const list = useRef<KeptItem[]>([]);
  const isSending = useRef(false);
  const { revalidate } = useRevalidator();

  const set = useCallback(
    async (next: KeptItem[]) => {
      list.current = next;
      setWaiting(next);
      if (next.length > 0) await draftStore.keep(key, next);
      else await draftStore.forget(key);
    },
    [key],
  );

  const send = useCallback(async () => {
    if (isSending.current) return;
    isSending.current = true;
    try {
      let [first] = list.current;
      while (first) {
        const answer = await sendItem(place, studentId, first);
        if (!answer || answer.status >= 500) return setMessage(deskWords.keptHere);
        if (answer.status === 401) return setMessage(deskWords.scanAgain);
        setMessage(answer.ok ? null : await refusalOf(answer));
        const sent = first;
        await set(list.current.filter((one) => one !== sent));
        [first] = list.current;
        if (!first) await revalidate();
      }
    } finally {
      isSending.current = false;
    }
  }, [place, studentId, set, revalidate]);

  useEffect(() => {
    void draftStore.read(key, kept).then(async (before) => {
      if (!before) return;
      await set([...before, ...list.current.filter(({ said }) => before.every((one) => one.said.id !== said.id))]);
      await send();
    });
    const timer = setInterval(() => void send(), RETRY_EVERY);
    const now = () => void send();
    window.addEventListener('online', now);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', now);
    };
  }, [key, set, send]);

  const say = useCallback(
    (to: KeptItem['to'], said: Record<string, unknown> & { id?: string }) => {
      const one = { to, said: { ...said, id: said.id ?? newId(), at: Date.now() } };
      // Also where the device keeps nothing it is sent.
      void set([...list.current, one]).then(send, send);
    },
    [set, send],
  );
  return { waiting, message, say };
}
