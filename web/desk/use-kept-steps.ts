import { useCallback, useEffect, useRef, useState } from 'react';
import { useRevalidator } from 'react-router';
import { v4 as newId } from 'uuid';
import { z } from 'zod';
import { type StepSaid, stepSaid } from '~/core/desk/steps';
import { draftStore } from '../platform/offline/device-store';
import { deskWords } from './words';

const kept = z.array(stepSaid);
const RETRY_EVERY = 4000;

interface KeptSteps {
  /** What was tapped and is not with the server yet, in order. */
  waiting: StepSaid[];
  /** Why the server will not take something, or why it waits. */
  message: string | null;
  say: (said: Omit<StepSaid, 'id' | 'at'>) => void;
}

const nobodyAnswers = null;

async function sendStep(said: StepSaid): Promise<Response | null> {
  try {
    return await fetch('/desk/steps', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(said),
    });
  } catch {
    return nobodyAnswers;
  }
}

const refusal = z.object({ messages: z.object({ form: z.string() }) });

async function refusalOf(answer: Response): Promise<string> {
  const parsed = refusal.safeParse(await answer.json().catch(() => null));
  return parsed.success ? parsed.data.messages.form : deskWords.cannotBeRead;
}

/** What a student taps is kept on this device until the server has it, and sent once, in order. */
export function useKeptSteps(studentId: string): KeptSteps {
  const key = `desk ${studentId}`;
  const [waiting, setWaiting] = useState<StepSaid[]>([]);
  const [message, setMessage] = useState<string | null>(null);
  const list = useRef<StepSaid[]>([]);
  const isSending = useRef(false);
  const { revalidate } = useRevalidator();

  const set = useCallback(
    async (next: StepSaid[]) => {
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
        const answer = await sendStep(first);
        if (!answer || answer.status >= 500) return setMessage(deskWords.keptHere);
        if (answer.status === 401) return setMessage(deskWords.scanAgain);
        setMessage(answer.ok ? null : await refusalOf(answer));
        const sent = first;
        await set(list.current.filter(({ id }) => id !== sent.id));
        [first] = list.current;
        if (!first) await revalidate();
      }
    } finally {
      isSending.current = false;
    }
  }, [set, revalidate]);

  useEffect(() => {
    void draftStore.read(key, kept).then(async (before) => {
      if (!before) return;
      await set([...before, ...list.current.filter(({ id }) => before.every((one) => one.id !== id))]);
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
    (said: Omit<StepSaid, 'id' | 'at'>) => {
      const one = { ...said, id: newId(), at: Date.now() };
      void set([...list.current, one]).then(send);
    },
    [set, send],
  );
  return { waiting, message, say };
}
