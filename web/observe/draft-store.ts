import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import type { SessionDraft } from './draft';

interface Schema extends DBSchema {
  drafts: { key: string; value: SessionDraft };
}

let opened: Promise<IDBPDatabase<Schema>> | undefined;

function store() {
  opened ??= openDB<Schema>('gentle-margin', 1, { upgrade: (db) => void db.createObjectStore('drafts') });
  return opened;
}

/** What is being marked, kept on this device until the server has it. One draft for each person and student. */
export const draftStore = {
  read: async (key: string) => (await store()).get('drafts', key),
  keep: async (key: string, draft: SessionDraft) => void (await (await store()).put('drafts', draft, key)),
  forget: async (key: string) => (await store()).delete('drafts', key),
};
