import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useRef, useState } from 'react';
import { useRevalidator } from 'react-router';
import { v4 as newId } from 'uuid';
import { defined } from '~/core/defined';
import type { WaitingChange, WaitingItem } from '~/core/entries/waiting';
import { draftStore, loadReading, type Unreadable, waitingStore } from './device-store';
import { holdsAll, type Sent, send, type Why } from './send';
import { waitingWords } from './words';

/** Between two tries, in milliseconds: the first, and the longest it comes to by doubling. */
const [FIRST_PAUSE, LONGEST_PAUSE] = [2000, 60_000];

/** In milliseconds: once the page that one came for is there. */
const SOON = 500;

interface Waiting {
  /** What this person saved on this device and the server does not have yet, the oldest first. */
  list: WaitingItem[];
  /** What an older version kept here that this one cannot read. */
  unreadable: Unreadable[];
  /** How many more lie here sealed: they are read, and sent, as soon as the server is reached. */
  sealed: number;
  /** Why each of them has not been sent yet, by its id; nothing of those not tried here. */
  whys: Readonly<Record<string, Why>>;
  /**
   * Keeps what was saved on this device and sends it; what the server refuses is handed back.
   *
   * @param drafts  the keys of the drafts that it was made from
   */
  save: (items: readonly WaitingItem[], drafts: readonly string[]) => Promise<Sent[]>;
  /** Keeps a change to a record that could not be sent: of whom it is, the record’s page says. */
  saveChange: (change: Pick<WaitingChange, 'to' | 'change'>) => Promise<void>;
  /** Puts what was changed in the place of what waits, to be sent anew. */
  change: (item: WaitingItem) => Promise<void>;
  remove: (id: string) => Promise<void>;
  sendNow: () => void;
  /** How many wait as the device has it, also before they have been read. */
  count: () => Promise<number>;
}

const WaitingContext = createContext<Waiting | null>(null);

/** What waits to be sent. Only inside of the signed-in part. */
export function useWaiting(): Waiting {
  const waiting = useContext(WaitingContext);
  if (!waiting) throw new Error('Nothing waits outside of the signed-in part.');
  return waiting;
}

const isSaved = (work: Promise<unknown>) =>
  work.then(
    () => true,
    () => false,
  );

/**
 * Keeps what was saved on this device, and sends it. From the moment it is kept it is no draft any more: a page that is killed in between
 * must not bring the same marks back. Without the server and without a place to keep it, it is handed back.
 */
async function keepAndSend(items: readonly WaitingItem[], drafts: readonly string[]): Promise<Sent[]> {
  const kept = await Promise.all(items.map((item) => isSaved(waitingStore.keep(item))));
  const taken = kept.every(Boolean) ? await draftStore.take(drafts).catch(() => []) : [];
  const results = await Promise.all(items.map((item) => send(item, { isQuiet: items.length > 1 })));
  // What is refused stays on its page as it was typed, and as its draft.
  if (results.some(({ is }) => is === 'refused')) await draftStore.putBack(taken).catch(() => {});
  return Promise.all(
    results.map(async (sent, at): Promise<Sent> => {
      if (sent.is !== 'waits') await waitingStore.settle(defined(items[at]), null).catch(() => {});
      else if (!kept[at]) return { is: 'refused', messages: { form: nowhere } };
      return sent;
    }),
  );
}

function withWhy(before: Record<string, Why>, id: string, sent: Sent): Record<string, Why> {
  const { [id]: _, ...others } = before;
  return sent.is === 'waits' ? { ...others, [id]: sent.why } : others;
}

const nowhere = waitingWords.theServerCannotBeReached;

interface WaitingProviderProps {
  personId: string;
  /** What the students are called, by id: what waits is told by its student. */
  names: Readonly<Record<string, string>>;
  children: ReactNode;
}

/** Keeps what one person saved until the server has it, and tries again, ever more slowly. */
export function WaitingProvider({ personId, names, children }: WaitingProviderProps) {
  const [list, setList] = useState<WaitingItem[]>([]);
  const [unreadable, setUnreadable] = useState<Unreadable[]>([]);
  const [sealed, setSealed] = useState(0);
  const [whys, setWhys] = useState<Record<string, Why>>({});
  const { revalidate } = useRevalidator();
  const pause = useRef(FIRST_PAUSE);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const isSending = useRef(false);

  const look = useCallback(async () => {
    const found = await waitingStore.of(personId).catch(() => ({ list: [], unreadable: [], sealed: 0 }));
    setList(found.list);
    setUnreadable(found.unreadable);
    setSealed(found.sealed);
    return found;
  }, [personId]);

  const sendAll = useCallback(async () => {
    if (isSending.current) return;
    isSending.current = true;
    try {
      let hasSaved = false;
      for (const item of (await look()).list.filter(({ problem }) => problem === null)) {
        const sent = await send(item);
        setWhys((before) => withWhy(before, item.id, sent));
        if (sent.is === 'waits') {
          // One that the server fails on holds up no other.
          if (holdsAll(sent.why)) break;
          continue;
        }
        pause.current = FIRST_PAUSE;
        hasSaved ||= sent.is === 'saved';
        await waitingStore.settle(item, sent.is === 'saved' ? null : Object.values(sent.messages).join(' '));
      }
      if (hasSaved) void revalidate();
    } finally {
      isSending.current = false;
    }
    const left = await look();
    clearTimeout(timer.current);
    if (left.sealed === 0 && !left.list.some(({ problem }) => problem === null)) return;
    timer.current = setTimeout(sendAll, pause.current);
    pause.current = Math.min(LONGEST_PAUSE, 2 * pause.current);
  }, [look, revalidate]);

  useEffect(() => {
    // While it can still be fetched: what waits is read without the server.
    const timer = setTimeout(() => loadReading().catch(() => {}), SOON);
    return () => clearTimeout(timer);
  }, []);

  const sendNow = useCallback(() => {
    pause.current = FIRST_PAUSE;
    void sendAll();
  }, [sendAll]);

  useEffect(() => {
    sendNow();
    addEventListener('online', sendNow);
    return () => {
      removeEventListener('online', sendNow);
      clearTimeout(timer.current);
    };
  }, [sendNow]);

  const waiting = useMemo<Waiting>(
    () => ({
      list,
      unreadable,
      sealed,
      whys,
      save: async (items, drafts) => {
        const results = await keepAndSend(items, drafts);
        setWhys((before) => results.reduce((all, sent, at) => withWhy(all, defined(items[at]).id, sent), before));
        const left = await look();
        clearTimeout(timer.current);
        if (left.list.length > 0) timer.current = setTimeout(sendAll, pause.current);
        return results;
      },
      saveChange: async (change) => {
        const id = change.to.split('/')[2] ?? '';
        const student = { id, shortName: names[id] ?? '' };
        await waitingStore.keep({
          ...{ kind: 'change', id: newId(), personId, student, savedAt: Date.now(), problem: null },
          ...change,
        });
        await sendAll();
      },
      change: async (item) => {
        await waitingStore.keep({ ...item, savedAt: Date.now(), problem: null });
        await sendAll();
        await look();
      },
      remove: async (id) => {
        await waitingStore.remove(id);
        await look();
      },
      sendNow,
      count: () => waitingStore.count(personId).catch(() => 0),
    }),
    [list, unreadable, sealed, whys, personId, names, look, sendAll, sendNow],
  );
  return <WaitingContext value={waiting}>{children}</WaitingContext>;
}
