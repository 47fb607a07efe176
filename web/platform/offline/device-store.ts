import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { WaitingItem } from '~/core/entries/waiting';

interface Schema extends DBSchema {
  drafts: { key: string; value: unknown };
  waiting: { key: string; value: WaitingItem; indexes: { personId: string } };
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
  read: async <Draft>(key: string) => (await (await store()).get('drafts', key)) as Draft | undefined,
  keep: async (key: string, draft: unknown) => void (await (await store()).put('drafts', draft, key)),
  forget: async (key: string) => (await store()).delete('drafts', key),
};

/** What is saved, kept on this device until the server has it. */
export const waitingStore = {
  of: async (personId: string) => {
    const all = await (await store()).getAllFromIndex('waiting', 'personId', personId);
    return all.toSorted((a, b) => a.savedAt - b.savedAt);
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
