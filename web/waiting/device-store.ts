import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { SessionInput } from '~/core/observations/observation';
import type { ObservedGoal } from '../observe/goal-card';
import type { SessionChoices } from '../observe/session-line';

/** What was saved for one student and has not reached the server yet. */
export interface WaitingSession {
  id: string;
  /** Who saved it: nobody else on this device sees or sends it. */
  personId: string;
  student: { id: string; shortName: string };
  session: SessionInput;
  /** What it takes to show and to change it without the server. */
  goals: ObservedGoal[];
  choices: SessionChoices;
  /** In milliseconds since 1970. */
  savedAt: number;
  /** What the server said when it would not take it. */
  problem: string | null;
}

interface Schema extends DBSchema {
  drafts: { key: string; value: unknown };
  waiting: { key: string; value: WaitingSession; indexes: { personId: string } };
}

let opened: Promise<IDBPDatabase<Schema>> | undefined;

function store() {
  opened ??= openDB<Schema>('gentle-margin', 2, {
    upgrade(db) {
      for (const name of [...db.objectStoreNames]) db.deleteObjectStore(name);
      db.createObjectStore('drafts');
      db.createObjectStore('waiting', { keyPath: 'id' }).createIndex('personId', 'personId');
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
  keep: async (session: WaitingSession) => void (await (await store()).put('waiting', session)),
  forget: async (id: string) => (await store()).delete('waiting', id),
};
