import { z } from 'zod';
import { type FindNames, nameFinder, type OtherChild, withoutNames } from '~/core/students/names/other-children';
import { mustStand } from '../entries/stands';
import { countTry } from '../people/attempts';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';
import { existing, Invalid, NotFound } from '../platform/failures';
import { writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';
import { can } from '../students/rights';
import { requireStudent } from '../students/students';

/** The finder of a school’s roster as it stands: one for each state of it, which is told by a sum over all names. */
const finders = new WeakMap<object, Map<string, { state: string; find: FindNames }>>();

const otherChildRow = z.object({
  id: z.string(),
  firstName: z.string(),
  lastName: z.string(),
  shortName: z.string(),
  initials: z.string(),
}) satisfies z.ZodType<OtherChild>;

/**
 * Finds the students of a student’s school in a text, those who have left too, since old notes name them. It is made anew only when
 * the roster has changed.
 */
export async function rosterFinder(db: Database, studentId: string): Promise<FindNames> {
  // A transaction has a client of its own, and the settings of its pool.
  const pool = (db as { client: { connectionSettings: object } }).client.connectionSettings;
  const found = await rowsOf(
    db,
    z.object({ schoolId: z.string(), state: z.string() }),
    `select school_id as "schoolId", state from roster_state(:studentId)`,
    { studentId },
  );
  const { schoolId = '', state = '' } = found[0] ?? {};
  const ofPool = finders.get(pool) ?? new Map<string, { state: string; find: FindNames }>();
  finders.set(pool, ofPool);
  const known = ofPool.get(schoolId);
  if (known?.state === state) return known.find;
  const roster = await rowsOf(
    db,
    otherChildRow,
    `select id, first_name as "firstName", last_name as "lastName", short_name as "shortName", initials
       from roster_names(:studentId) order by archived_at nulls first, last_name, first_name`,
    { studentId },
  );
  const find = nameFinder(roster);
  ofPool.set(schoolId, { state, find });
  return find;
}

interface Noted {
  id: string;
  version: number;
  note: string | null;
  /** Of an ABC note, a count or an answered form title and sentence are typed words too; of an observation they are the goal’s own. */
  kind?: string;
  title?: string;
  sentence?: string;
}

const isTyped = ({ kind }: Noted) => kind === 'incident' || kind === 'count' || kind === 'note';

/** All of an entry in which somebody could have named another child. */
const textOf = (entry: Noted) =>
  [...(isTyped(entry) ? [entry.title, entry.sentence] : []), entry.note].filter(Boolean).join('\n');

const keyOf = ({ id, version }: Pick<Noted, 'id' | 'version'>) => `${id} ${version}`;

async function letStand(db: Database, studentId: string): Promise<Set<string>> {
  const rows = await db('kept_names').where({ student_id: studentId }).select('entry_id', 'version');
  return new Set(rows.map((row) => keyOf({ id: row.entry_id, version: row.version })));
}

/** The entries as a reader from outside may read them: other children are “a classmate”, unless it was let stand. */
export async function withoutOtherChildren<T extends Noted>(
  db: Database,
  studentId: string,
  entries: readonly T[],
): Promise<T[]> {
  if (!entries.some((entry) => textOf(entry) !== '')) return [...entries];
  const [find, standing] = await Promise.all([rosterFinder(db, studentId), letStand(db, studentId)]);
  const hide = (text: string) => withoutNames(text, find, studentId);
  return entries.map((entry) => {
    if (standing.has(keyOf(entry)) || find(textOf(entry), studentId).length === 0) return entry;
    const { title, sentence, note } = entry;
    return {
      ...entry,
      ...(isTyped(entry) && { title: hide(title ?? ''), sentence: hide(sentence ?? '') }),
      note: note && hide(note),
    };
  });
}

/**
 * The entries that name another child, which nobody has let stand yet, each with the names as they stand in it.
 */
export async function entriesNamingOthers<T extends Noted>(
  db: Database,
  studentId: StudentAccess<'read'>,
  entries: readonly T[],
): Promise<(T & { names: string[] })[]> {
  const [find, standing] = await Promise.all([rosterFinder(db, studentId), letStand(db, studentId)]);
  return entries.flatMap((entry) => {
    if (standing.has(keyOf(entry))) return [];
    const names = [...new Set(find(textOf(entry), studentId).map(({ text }) => text))];
    return names.length > 0 ? [{ ...entry, names }] : [];
  });
}

/**
 * Names of other children in a text that is being written, as they stand in it: only of those the one who writes may know of, else
 * the roster could be guessed name by name. These are the students on their teams, the student’s own class groups, and for whoever
 * sets up the school all.
 *
 * @throws NotFound for someone who may write nothing of this student; Invalid when they ask too often
 */
export async function namesIn(db: Database, actor: Actor, studentId: string, text: string): Promise<string[]> {
  const student = await requireStudent(db, actor, studentId, 'see');
  if (!(['observe', 'editGoals', 'share'] as const).some((right) => can(student, right)))
    throw new NotFound('No such student.');
  const wait = await countTry(db, 'names', actor.personId);
  if (wait !== null) throw new Invalid({ text: `Too many texts at once. Wait ${wait} min.` });
  const found = (await rosterFinder(db, studentId))(text, studentId);
  if (found.length === 0) return [];
  const known = await rowsOf(
    db,
    z.object({ id: z.string() }),
    `select id from known_children(:studentId, :ids) as known (id)`,
    { ids: found.map(({ childId }) => childId), studentId },
  );
  const mayKnow = new Set(known.map(({ id }) => id));
  return [...new Set(found.filter(({ childId }) => mayKnow.has(childId)).map((one) => one.text))];
}

/**
 * Lets the names in a note stand for every reader, as the note says it now; a correction asks anew. For those who may share.
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
  await requireStudent(db, actor, studentId, 'share');
  if ((await mustStand(db, studentId, entryId)) !== version) throw new NotFound('No such version of the entry.');
  await db.transaction(async (trx) => {
    const written = await trx('kept_names')
      .insert({ entry_id: entryId, version, student_id: studentId, kept_by: actor.personId, kept_at: now })
      .onConflict(['entry_id', 'version'])
      .ignore()
      .returning('entry_id');
    if (written.length === 0) return;
    const { observed_on: on } = existing(await trx('entries').where({ id: entryId }).first('observed_on'));
    const after = { entryId, entry: on, version };
    await writeChange(trx, actor.personId, { what: 'kept name', studentId, before: null, after }, now);
  });
}
