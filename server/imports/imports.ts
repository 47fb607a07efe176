import { z } from 'zod';
import { type FileTable, Unreadable } from '~/core/imports/file-table';
import { type ImportKindName, importKinds, type UploadInput } from '~/core/imports/kinds';
import type { Planned } from '~/core/imports/preview';
import type { Database } from '../platform/db/database';
import { rowsOf, written } from '../platform/db/rows';
import { Invalid, NotFound } from '../platform/failures';
import { isSchoolAdmin, requireSchoolAdmin } from '../school/administrators';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import { entriesImport } from './entries';
import { goalsImport } from './goals';
import { incidentsImport } from './incidents';
import type { CameIn, ImportKind, Moment } from './kind';
import { keepParts } from './parts';
import { type FileContent, readFileContent } from './read-file';
import { rosterImport } from './roster';

const kinds: Record<ImportKindName, ImportKind> = {
  roster: rosterImport,
  goals: goalsImport,
  entries: entriesImport,
  incidents: incidentsImport,
};

/** Files that one has handed over and that did not come in yet. */
const MOST_OPEN = 20;

const importRow = z.object({
  id: z.string(),
  kind: z.enum(importKinds),
  fileName: z.string(),
  madeBy: z.string(),
  madeAt: z.date(),
  doneAt: z.date().nullable(),
  undoneAt: z.date().nullable(),
  /** How many rows came in. */
  parts: z.number(),
});
export type ImportListed = z.infer<typeof importRow>;

const columns = `i.id, i.kind, i.file_name as "fileName", p.name as "madeBy", i.made_at as "madeAt", i.done_at as "doneAt", i.undone_at as "undoneAt",
  (select count(*)::int from import_parts t where t.import_id = i.id and t.kind in ('student', 'archived', 'goal', 'entry')) as parts`;

/** What one has carried in or begun to; of the roster, what anybody did who sets up the school. Newest first. */
export const importsOf = (db: Database, { schoolId, personId }: Actor): Promise<ImportListed[]> =>
  rowsOf(
    db,
    importRow,
    `select ${columns} from imports i join people p on p.id = i.made_by
      where i.school_id = :schoolId and (i.made_by = :personId or i.kind = 'roster') order by i.made_at desc limit 100`,
    { schoolId, personId },
  );

const openRow = importRow.extend({
  content: written<FileContent | null>(),
  mapping: written<unknown>(),
  isOwn: z.boolean(),
});
type OpenImport = z.infer<typeof openRow>;

/** @throws NotFound for somebody else's, and of the roster for whoever does not set up the school */
async function openImport(db: Database, actor: Actor, id: string, { lock = false } = {}): Promise<OpenImport> {
  const found = await rowsOf(
    db,
    openRow,
    `select ${columns}, i.content, i.mapping, i.made_by = :personId as "isOwn"
       from imports i join people p on p.id = i.made_by where i.id = :id and i.school_id = :schoolId ${lock ? 'for update of i' : ''}`,
    { id, personId: actor.personId, schoolId: actor.schoolId },
  );
  const one = found[0];
  if (!one || !(one.isOwn || (one.kind === 'roster' && (await isSchoolAdmin(db, actor)))))
    throw new NotFound('No such import.');
  if (one.kind === 'roster') await requireSchoolAdmin(db, actor);
  return one;
}

/**
 * Takes a file in to be looked through: nothing of it is saved as a record yet. Sent twice, it is taken in once.
 *
 * @throws NotFound where it is a roster, for whoever does not set up the school; Invalid at `file` where it cannot be read
 */
export async function uploadImport(
  db: Database,
  actor: Actor,
  { id, kind }: UploadInput,
  { name, bytes }: { name: string; bytes: Buffer },
  now: Date,
): Promise<void> {
  if (kind === 'roster') await requireSchoolAdmin(db, actor);
  const open = await db('imports').where({ made_by: actor.personId, done_at: null }).whereNot({ id }).select('id');
  if (open.length >= MOST_OPEN) {
    throw new Invalid({ file: `${MOST_OPEN} files wait to be looked through: import them first, or forget them.` });
  }
  const content = await readFileContent(name, bytes, actor.today).catch((error) => {
    if (error instanceof Unreadable) throw new Invalid({ file: error.message });
    throw error;
  });
  if (content.is === 'oneRoster' && kind !== 'roster')
    throw new Invalid({ file: 'This is a roster of OneRoster: import it as one.' });
  const prepared = await kinds[kind].prepare(db, actor);
  const guessed = prepared.guess(content, 0);
  const known = await db('import_mappings')
    .where({ person_id: actor.personId, kind, headings: headingsOf(content, 0) })
    .first('mapping');
  const mapping = known && kinds[kind].mapping.safeParse(known.mapping).success ? known.mapping : guessed;
  await db('imports')
    .insert({
      ...{
        id,
        school_id: actor.schoolId,
        kind,
        file_name: name.slice(-200) || 'file',
        made_by: actor.personId,
        made_at: now,
      },
      ...{ content: JSON.stringify(content), mapping: JSON.stringify(mapping) },
    })
    .onConflict('id')
    .ignore();
}

const headingsOf = (content: FileContent, sheet: number) =>
  content.is === 'oneRoster' ? 'OneRoster' : JSON.stringify(content.tables[sheet]?.head ?? []);

/** Everything of an import that its page shows. */
export interface ShownImport {
  listed: ImportListed;
  /** Null once it came in: the file is forgotten then. */
  open: {
    content: FileContent;
    table: FileTable | null;
    mapping: unknown;
    planned: Planned<unknown>;
    facts: unknown;
  } | null;
}

/** An import without its file. @throws NotFound */
export async function importListed(db: Database, actor: Actor, id: string): Promise<ImportListed> {
  const { content: _, mapping: __, isOwn: ___, ...listed } = await openImport(db, actor, id);
  return listed;
}

/** An import with what each row of its file comes to, as things stand now. @throws NotFound */
export async function importPage(db: Database, actor: Actor, id: string): Promise<ShownImport> {
  const { content, mapping, isOwn: _, ...listed } = await openImport(db, actor, id);
  if (content === null) return { listed, open: null };
  const { sheet } = kinds[listed.kind].read(mapping);
  const prepared = await kinds[listed.kind].prepare(db, actor);
  const table = content.is === 'tables' ? (content.tables[sheet] ?? content.tables[0] ?? null) : null;
  return { listed, open: { content, table, mapping, planned: prepared.plan(content, mapping), facts: prepared.facts } };
}

/** The schema of what is said of a file of a kind. */
export const mappingSchema = (kind: ImportKindName) => kinds[kind].mapping;

/** Keeps what is said of a file's columns, also for the next file with the same headings. @throws NotFound */
export async function saveMapping(db: Database, actor: Actor, id: string, mapping: unknown, now: Date): Promise<void> {
  await db.transaction(async (trx) => {
    const { kind, content, mapping: before } = await openImport(trx, actor, id, { lock: true });
    if (content === null) throw new NotFound('No such import.');
    const { sheet } = kinds[kind].read(mapping);
    // Of another sheet the columns are others.
    const isOther = sheet !== kinds[kind].read(before).sheet;
    const said = isOther ? (await kinds[kind].prepare(trx, actor)).guess(content, sheet) : mapping;
    await trx('imports')
      .where({ id })
      .update({ mapping: JSON.stringify(said) });
    await trx('import_mappings')
      .insert({
        person_id: actor.personId,
        kind,
        headings: headingsOf(content, sheet),
        mapping: JSON.stringify(said),
        used_at: now,
      })
      .onConflict(['person_id', 'kind', 'headings'])
      .merge(['mapping', 'used_at']);
  });
}

/**
 * Writes what is new in a file, in one transaction: what it comes to is found out once more, so that what somebody else carried in meanwhile
 * is not doubled. Nobody is told of what comes in, and no rule is asked. Asked twice, it comes in once.
 *
 * @throws NotFound; Invalid at `form` where there is nothing to take over
 */
export async function takeOver(
  db: Database,
  actor: Actor,
  id: string,
  moment: Moment,
): Promise<NonNullable<CameIn['passOn']>> {
  return db.transaction(async (trx) => {
    // One at a time in a school.
    await trx.raw(`select pg_advisory_xact_lock(hashtextextended(?, 0))`, [`imports of ${actor.schoolId}`]);
    const one = await openImport(trx, actor, id, { lock: true });
    if (one.content === null) return [];
    const prepared = await kinds[one.kind].prepare(trx, actor);
    await quietly(trx, true);
    const { parts, passOn, rows } = await prepared.carryIn(trx, one.content, one.mapping, moment);
    await quietly(trx, false);
    if (rows === 0) throw new Invalid({ form: 'There is nothing to import: no row is new.' });
    await keepParts(trx, id, parts);
    await trx('imports').where({ id }).update({ done_at: moment.now, content: null });
    const after = { file: one.fileName, kind: one.kind, rows };
    await writeChange(
      trx,
      actor.personId,
      { what: 'import', schoolId: actor.schoolId, before: null, after },
      moment.now,
    );
    return passOn ?? [];
  });
}

/** What comes in from a file is nothing that happened now: triggers that tell of new entries pass it over. */
export const quietly = (db: Database, isQuiet: boolean) =>
  db.raw(`select set_config('app.carries_in', ?, true)`, [isQuiet ? 'yes' : '']);

/** Forgets a file that did not come in. @throws NotFound */
export async function forgetImport(db: Database, actor: Actor, id: string): Promise<void> {
  await db.transaction(async (trx) => {
    const { content, doneAt } = await openImport(trx, actor, id, { lock: true });
    if (content === null || doneAt) throw new NotFound('No such import.');
    await trx('imports').where({ id }).delete();
  });
}
