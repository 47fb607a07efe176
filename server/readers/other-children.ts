import { namedChildren, nameFinder, type OtherChild, withoutNames } from '~/core/names/other-children';
import type { Database } from '../db/database';
import { NotFound } from '../failures';
import { mustStand } from '../recorded/stands';
import { type Actor, studentFor } from '../students/students';

/** All students of the school but one: those who have left too, since old notes name them. */
export async function otherChildren(db: Database, studentId: string): Promise<OtherChild[]> {
  return db('students')
    .whereNot({ id: studentId })
    .orderBy([{ column: 'archived_at', nulls: 'first' }, 'last_name', 'first_name'])
    .select<OtherChild[]>(
      'id',
      'first_name as firstName',
      'last_name as lastName',
      'short_name as shortName',
      'initials',
    );
}

interface Noted {
  id: string;
  version: number;
  note: string | null;
  /** Of an ABC note or a tally title and sentence are typed words too; of an observation they are the goal’s own. */
  kind?: string;
  title?: string;
  sentence?: string;
}

const isTyped = ({ kind }: Noted) => kind === 'abcNote' || kind === 'tally';

/** All of an entry in which somebody could have named another child. */
const textOf = (entry: Noted) =>
  [...(isTyped(entry) ? [entry.title, entry.sentence] : []), entry.note].filter(Boolean).join('\n');

const keyOf = ({ id, version }: Pick<Noted, 'id' | 'version'>) => `${id} ${version}`;

async function letStand(db: Database, studentId: string): Promise<Set<string>> {
  const rows = await db('names_let_stand').where({ student_id: studentId }).select('entry_id', 'version');
  return new Set(rows.map((row) => keyOf({ id: row.entry_id, version: row.version })));
}

/** The entries as a reader from outside may read them: other children are “a classmate”, unless it was let stand. */
export async function withoutOtherChildren<T extends Noted>(
  db: Database,
  studentId: string,
  entries: readonly T[],
): Promise<T[]> {
  if (!entries.some((entry) => textOf(entry) !== '')) return [...entries];
  const [others, standing] = await Promise.all([otherChildren(db, studentId), letStand(db, studentId)]);
  const find = nameFinder(others);
  return entries.map((entry) => {
    if (standing.has(keyOf(entry)) || find(textOf(entry)).length === 0) return entry;
    const { title, sentence, note } = entry;
    return {
      ...entry,
      ...(isTyped(entry) && { title: withoutNames(title ?? '', find), sentence: withoutNames(sentence ?? '', find) }),
      note: note && withoutNames(note, find),
    };
  });
}

/**
 * The entries that name another child, which nobody has let stand yet, each with the names as they stand in it. Ask `studentFor`
 * first.
 */
export async function entriesNamingOthers<T extends Noted>(
  db: Database,
  studentId: string,
  entries: readonly T[],
): Promise<(T & { names: string[] })[]> {
  const [others, standing] = await Promise.all([otherChildren(db, studentId), letStand(db, studentId)]);
  const find = nameFinder(others);
  return entries.flatMap((entry) => {
    if (standing.has(keyOf(entry))) return [];
    const names = [...new Set(find(textOf(entry)).map(({ text }) => text))];
    return names.length > 0 ? [{ ...entry, names }] : [];
  });
}

/** Names of other children in a text that is being written, as they stand in it. For whom may observe the student. */
export async function namesIn(db: Database, actor: Actor, studentId: string, text: string): Promise<string[]> {
  await studentFor(db, actor, studentId, 'observe');
  return [...new Set(namedChildren(text, await otherChildren(db, studentId)).map((found) => found.text))];
}

/**
 * Lets the names in a note stand for every reader, as the note says it now; a correction asks anew. For whom may share.
 *
 * @throws NotFound
 */
export async function letNamesStand(
  db: Database,
  actor: Actor,
  studentId: string,
  { entryId, version }: { entryId: string; version: number },
  now: Date,
): Promise<void> {
  await studentFor(db, actor, studentId, 'share');
  if ((await mustStand(db, studentId, entryId)) !== version) throw new NotFound('No such version of the entry.');
  await db('names_let_stand')
    .insert({ entry_id: entryId, version, student_id: studentId, let_by: actor.personId, let_at: now })
    .onConflict(['entry_id', 'version'])
    .ignore();
}
