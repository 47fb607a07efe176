import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { NoteInput, TalliesInput } from '~/core/behavior/note-input';
import type { SessionInput } from '~/core/observations/observation';
import type { Catching } from '../behavior/catching';
import type { ObservedGoal } from '../observe/goal-card';
import type { SessionChoices } from '../observe/session-line';

/** What was saved for one student and has not reached the server yet. */
interface WaitingFor {
  id: string;
  /** Who saved it: nobody else on this device sees or sends it. */
  personId: string;
  student: { id: string; shortName: string };
  /** In milliseconds since 1970. */
  savedAt: number;
  /** What the server said when it would not take it. */
  problem: string | null;
}

/** Goals observed in one go, with what it takes to show and to change them without the server. */
export interface WaitingSession extends WaitingFor {
  kind: 'session';
  session: SessionInput;
  goals: ObservedGoal[];
  choices: SessionChoices;
}

/** An ABC note, with what it takes to show and to change it without the server. */
export interface WaitingNote extends WaitingFor {
  kind: 'note';
  note: NoteInput;
  catching: Catching;
}

/** Behaviors counted in one stretch of watching, each with its sentence. */
export interface WaitingTallies extends WaitingFor {
  kind: 'tallies';
  tallies: TalliesInput;
  said: string[];
}

export type WaitingItem = WaitingSession | WaitingNote | WaitingTallies;

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
