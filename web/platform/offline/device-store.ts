import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { z } from 'zod';
import { readWaiting, type WaitingItem } from '~/core/entries/waiting';

/** What stands in the store; what else it says is known only when it is read. */
type Stored = Pick<WaitingItem, 'id' | 'personId' | 'savedAt' | 'problem'>;

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

/** What is being marked, kept on this device. One draft for each person and each thing they observe. */
export const draftStore = {
  /** The draft; null where there is none, or one of another version that its schema does not take. */
  read: async <Draft>(key: string, schema: z.ZodType<Draft>): Promise<Draft | null> => {
    const parsed = schema.safeParse(await (await store()).get('drafts', key));
    return parsed.success ? parsed.data : null;
  },
  keep: async (key: string, draft: unknown) => void (await (await store()).put('drafts', draft, key)),
  forget: async (key: string) => (await store()).delete('drafts', key),
};

/** What was kept here by another version and cannot be read by this one. It stays until its owner has taken it away. */
export interface Unreadable {
  id: string;
  /** In milliseconds since 1970. */
  savedAt: number;
  raw: unknown;
}

/** What is saved, kept on this device until the server has it. */
export const waitingStore = {
  /** What waits of one person, the oldest first. */
  of: async (personId: string) => {
    const all = await (await store()).getAllFromIndex('waiting', 'personId', personId);
    const list: WaitingItem[] = [];
    const unreadable: Unreadable[] = [];
    for (const raw of all.toSorted((a, b) => a.savedAt - b.savedAt)) {
      const item = readWaiting(raw);
      if (item) list.push(item);
      else unreadable.push({ id: raw.id, savedAt: raw.savedAt, raw });
    }
    return { list, unreadable };
  },
  keep: async (item: WaitingItem) => void (await (await store()).put('waiting', item)),
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
