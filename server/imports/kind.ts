import type { z } from 'zod';
import { defined } from '~/core/defined';
import type { FileTable } from '~/core/imports/file-table';
import type { OneRoster } from '~/core/imports/one-roster';
import type { Planned } from '~/core/imports/preview';
import type { Database } from '../platform/db/database';
import type { Actor } from '../school/school';
import type { Part } from './parts';
import type { FileContent } from './read-file';

/** What is looked at of a file: one of its tables; of OneRoster, what it holds besides. */
export interface FileSource {
  table: FileTable;
  roster: OneRoster | null;
}

export interface Moment {
  now: Date;
  /** Whether what would leave in a message is told to the one who carries in, where no mail leaves. */
  readsOut: boolean;
}

/** What came in, and what is to be passed on by hand. */
export interface CameIn {
  parts: Part[];
  passOn?: { name: string; code: string }[];
}

interface KindOf<M extends { sheet: number }, F, C> {
  mapping: z.ZodType<M>;
  /** What a file is held against; it throws NotFound for somebody who may not carry this in. */
  facts: (db: Database, actor: Actor) => Promise<F>;
  guess: (source: FileSource, facts: F) => M;
  plan: (source: FileSource, mapping: M, facts: F) => Planned<C>;
  /** Writes what is new; in the caller's transaction. */
  carryIn: (db: Database, actor: Actor, commands: C[], moment: Moment, mapping: M, facts: F) => Promise<CameIn>;
}

/** A kind of file that can be carried in, its own types hidden. */
export interface ImportKind {
  /** What somebody says of its columns. @throws ZodError */
  read: (raw: unknown) => { sheet: number };
  mapping: z.ZodType;
  prepare: (
    db: Database,
    actor: Actor,
  ) => Promise<{
    guess: (content: FileContent, sheet: number) => unknown;
    plan: (content: FileContent, mapping: unknown) => Planned<unknown>;
    /** How many rows it was, too; none where nothing is new. */
    carryIn: (
      db: Database,
      content: FileContent,
      mapping: unknown,
      moment: Moment,
    ) => Promise<CameIn & { rows: number }>;
    facts: unknown;
  }>;
}

const noTable: FileTable = { name: '', head: [], rows: [], firstRow: 1 };

const sourceOf = (content: FileContent, sheet: number): FileSource =>
  content.is === 'oneRoster'
    ? { table: noTable, roster: content.roster }
    : { table: content.tables[sheet] ?? defined(content.tables[0]), roster: null };

/** Puts the parts of a kind together, so that whoever asks need not know its types. */
export function importKind<M extends { sheet: number }, F, C>(kind: KindOf<M, F, C>): ImportKind {
  return {
    mapping: kind.mapping,
    read: (raw) => kind.mapping.parse(raw),
    prepare: async (db, actor) => {
      const facts = await kind.facts(db, actor);
      return {
        facts,
        guess: (content, sheet) => ({ ...kind.guess(sourceOf(content, sheet), facts), sheet }),
        plan: (content, raw) => {
          const mapping = kind.mapping.parse(raw);
          return kind.plan(sourceOf(content, mapping.sheet), mapping, facts);
        },
        carryIn: async (trx, content, raw, moment) => {
          const mapping = kind.mapping.parse(raw);
          const { commands } = kind.plan(sourceOf(content, mapping.sheet), mapping, facts);
          if (commands.length === 0) return { parts: [], rows: 0 };
          const cameIn = await kind.carryIn(trx, actor, commands, moment, mapping, facts);
          return { ...cameIn, rows: commands.length };
        },
      };
    },
  };
}
