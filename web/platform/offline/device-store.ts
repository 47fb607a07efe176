import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { z } from 'zod';
import type { WaitingItem } from '~/core/entries/waiting';
import { isLockable, type Lockable, lock, opened as openedOf } from './locked';

/** What stands in the store beside its content; what that says is known only when it is opened. */
type Stored = Pick<WaitingItem, 'id' | 'personId' | 'savedAt' | 'problem'> & { content?: Lockable };

interface Schema extends DBSchema {
  drafts: { key: string; value: unknown };
  waiting: { key: string; value: Stored; indexes: { personId: string } };
}

let opened: Promise<IDBPDatabase<Schema>> | undefined;

function store() {
  opened ??= openDB<Schema>('gentle-margin', 2, {
    upgrade(db, before) {
      if (before < 1) db.createObjectStore('drafts');
      if (before < 2) db.createObjectStore('waiting', { keyPath: 'id' }).createIndex('personId', 'personId');
    },
  });
  return opened;
}

/** Whose draft it is: its key begins with the person. A student at a desk has no account, and nothing to lock with. */
const personOf = (key: string): string | null => /^[0-9a-f-]{36}(?= )/.exec(key)?.[0] ?? null;

let written: Promise<unknown> = Promise.resolve();

/** Locking takes a moment: what is kept later must not be written over by what was kept before. */
function inTurn<Result>(work: () => Promise<Result>): Promise<Result> {
  const turn = written.then(work, work);
  written = turn.catch(() => {});
  return turn;
}

/** Until what was tapped is drawn; without a picture, as in a tab that is hidden, but a moment. */
const drawn = () =>
  new Promise<void>((resolve) => {
    requestAnimationFrame(() => setTimeout(resolve));
    setTimeout(resolve, 100);
  });

/** What each draft is to say when its turn comes: of several taps in a row the last is locked, not each. */
const latest = new Map<string, unknown>();

/** What is being marked, kept on this device: one draft for each person and each thing they observe. */
export const draftStore = {
  /** The draft; null where there is none, or one of another version that its schema does not take. */
  read: async <Draft>(key: string, schema: z.ZodType<Draft>): Promise<Draft | null> => {
    const kept = await (await store()).get('drafts', key);
    const person = personOf(key);
    const draft = person && isLockable(kept) ? (await openedOf(person, kept))?.value : kept;
    const parsed = schema.safeParse(draft);
    return parsed.success ? parsed.data : null;
  },
  /** Once it is drawn: nobody waits for a lock to see what they tapped. */
  keep: (key: string, draft: unknown) => {
    latest.set(key, draft);
    return inTurn(async () => {
      await drawn();
      if (latest.get(key) !== draft) return;
      latest.delete(key);
      const person = personOf(key);
      await (await store()).put('drafts', person ? await lock(person, draft) : draft, key);
    });
  },
  forget: (key: string) => {
    latest.delete(key);
    return inTurn(async () => (await store()).delete('drafts', key));
  },
  /** Takes drafts away whose content is kept as what waits now; they can be put back as they were. */
  take: (keys: readonly string[]): Promise<[key: string, kept: unknown][]> =>
    inTurn(async () => {
      const { store: drafts, done } = (await store()).transaction('drafts', 'readwrite');
      const taken: [string, unknown][] = [];
      for (const key of keys) {
        const kept = await drafts.get(key);
        if (kept === undefined) continue;
        taken.push([key, kept]);
        await drafts.delete(key);
      }
      await done;
      return taken;
    }),
  putBack: (taken: readonly (readonly [key: string, kept: unknown])[]) =>
    inTurn(async () => {
      for (const [key, kept] of taken) await (await store()).put('drafts', kept, key);
    }),
};

/** What was kept here by another version and cannot be read by this one. It stays until its owner has taken it away. */
export interface Unreadable {
  id: string;
  /** In milliseconds since 1970. */
  savedAt: number;
  raw: unknown;
}

/** What waits of a person: what can be read, what cannot, and how many are sealed until the server is reached. */
interface Kept {
  list: WaitingItem[];
  unreadable: Unreadable[];
  sealed: number;
}

/** What tells an item from everything else: it knows every measure, which a page that only shows something need not load. */
type Read = (raw: unknown) => WaitingItem | null;

let reading: Read | undefined;

/** Pages on which something is recorded bring it along: there it must be at hand without network. */
export function provideReading(provided: Read): void {
  reading = provided;
}

/** What was kept here by this version is taken as it was kept, where nothing can be fetched any more. */
const asKept: Read = (raw) => raw as WaitingItem;

export const loadReading = async (): Promise<Read> =>
  reading ??
  import('~/core/entries/waiting').then(
    ({ readWaiting }) => readWaiting,
    () => asKept,
  );

/** What is saved, kept on this device until the server has it. */
export const waitingStore = {
  /** What waits of one person, the oldest first. */
  of: async (personId: string): Promise<Kept> => {
    const all = await (await store()).getAllFromIndex('waiting', 'personId', personId);
    const kept: Kept = { list: [], unreadable: [], sealed: 0 };
    if (all.length === 0) return kept;
    const read = await loadReading();
    for (const stored of all.toSorted((a, b) => a.savedAt - b.savedAt)) {
      const { content, ...beside } = stored;
      const open = content ? await openedOf(personId, content) : { value: stored, byServer: false };
      if (!open) {
        kept.sealed++;
        continue;
      }
      // Whoever had sealed it is here again: from now on this device can read it by itself.
      if (open.byServer) await (await store()).put('waiting', { ...stored, content: await lock(personId, open.value) });
      const raw = typeof open.value === 'object' ? { ...open.value, ...beside } : open.value;
      const item = read(raw);
      if (item) kept.list.push(item);
      else kept.unreadable.push({ id: stored.id, savedAt: stored.savedAt, raw });
    }
    return kept;
  },
  /** How many wait of one person, without opening them. */
  count: async (personId: string): Promise<number> => (await store()).countFromIndex('waiting', 'personId', personId),
  keep: async (item: WaitingItem) => {
    const { id, personId, savedAt, problem } = item;
    const content = await lock(personId, item);
    await (await store()).put('waiting', { id, personId, savedAt, problem, content });
  },
  remove: async (id: string) => (await store()).delete('waiting', id),
  /**
   * What came of sending it: it is done with, or it stays with its problem. When it was changed while it was under
   * way, what it says now stays and is sent by itself.
   */
  settle: async (item: WaitingItem, problem: string | null) => {
    const { store: waiting, done } = (await store()).transaction('waiting', 'readwrite');
    const now = await waiting.get(item.id);
    if (now?.savedAt === item.savedAt) {
      if (problem === null) await waiting.delete(item.id);
      else await waiting.put({ ...now, problem });
    }
    await done;
  },
};
