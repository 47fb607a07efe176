import { readerKinds } from '~/core/sharing/reader-kind';
import { rulesFrom, type VisibilityInput, type VisibilityRule } from '~/core/sharing/visibility-rule';
import type { Database } from '../platform/db/database';
import { rowsOf, written } from '../platform/db/rows';
import type { VisibilityRulesRow } from '../platform/db/tables';
import { requireSchoolAdmin } from '../school/administrators';
import { stateAtDay, writeChange } from '../school/changes';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';
import { requireStudent } from '../students/students';

const ruleFrom = ({ kind, fields, layout, grouping, oldest_first }: VisibilityRulesRow): VisibilityRule => ({
  // Written by Zod, and held by the table's checks.
  ...{ kind, shows: fields as VisibilityRule['shows'], layout, grouping: grouping as VisibilityRule['grouping'] },
  oldestFirst: oldest_first,
});

/**
 * What each kind of reader is shown of a student.
 *
 * @returns also which kinds have a rule of this student's own
 */
export async function visibilityRules(db: Database, studentId: StudentAccess<'read'>) {
  const rows = await rowsOf(
    db,
    written<VisibilityRulesRow>(),
    `select v.* from visibility_rules v join students s on s.school_id = v.school_id
      where s.id = :studentId and (v.student_id is null or v.student_id = s.id)`,
    { studentId },
  );
  const own = rows.filter((row) => row.student_id !== null).map(ruleFrom);
  const school = rows.filter((row) => row.student_id === null).map(ruleFrom);
  return { rules: rulesFrom(own, school), own: own.map(({ kind }) => kind) };
}

/** What each kind of reader is shown at a school, where a student has no rule of their own. */
export async function schoolRules(db: Database, schoolId: string) {
  const rows: VisibilityRulesRow[] = await db('visibility_rules')
    .where({ school_id: schoolId })
    .whereNull('student_id')
    .select('*');
  return { rules: rulesFrom([], rows.map(ruleFrom)), own: [] };
}

/**
 * Writes what each reader sees: of a student, for those who may share; of the school, for administrators. A student's rule that says the same as
 * the school's is none of its own, and follows the school's.
 *
 * @throws NotFound
 */
export async function saveVisibilityRules(
  db: Database,
  actor: Actor,
  studentId: string | null,
  input: VisibilityInput,
  now: Date,
): Promise<void> {
  if (studentId) await requireStudent(db, actor, studentId, 'share');
  else await requireSchoolAdmin(db, actor);
  const { rules: school } = await schoolRules(db, actor.schoolId);
  const said = ({ shows, layout, grouping, oldestFirst }: Omit<VisibilityRule, 'kind'>) =>
    JSON.stringify([[...shows].sort(), layout, grouping, oldestFirst]);
  const wanted = readerKinds
    .map((kind) => ({ kind, ...input[kind] }))
    .filter((rule) => studentId === null || said(rule) !== said(school[rule.kind]));
  const lists = studentId ? { studentId } : { schoolId: actor.schoolId };
  await db.transaction(async (trx) => {
    const before = await writtenRules(trx, actor.schoolId, studentId);
    await trx('visibility_rules').where({ school_id: actor.schoolId, student_id: studentId }).delete();
    const rows = wanted.map(({ kind, shows, layout, grouping, oldestFirst }) => ({
      ...{ school_id: actor.schoolId, student_id: studentId, kind, fields: shows, layout, grouping },
      oldest_first: oldestFirst,
      ...{ changed_by: actor.personId, changed_at: now },
    }));
    if (rows.length > 0) await trx('visibility_rules').insert(rows);
    const after = await writtenRules(trx, actor.schoolId, studentId);
    await writeChange(trx, actor.personId, { what: 'visibility', ...lists, before, after }, now);
  });
}

type Said = Omit<VisibilityRule, 'kind'>;
const byKind = (rules: readonly VisibilityRule[]): Record<string, Said> =>
  Object.fromEntries(rules.map(({ kind, ...rule }) => [kind, rule]));
const asRules = (said: Record<string, Said>): VisibilityRule[] =>
  // The keys of what the schema read: kinds of reader.
  Object.entries(said).map(([kind, rule]) => ({ kind: kind as VisibilityRule['kind'], ...rule }));

/** The rules that are written for a student, or for a school, by the kind of reader. */
async function writtenRules(db: Database, schoolId: string, studentId: string | null): Promise<Record<string, Said>> {
  const rows: VisibilityRulesRow[] = await db('visibility_rules')
    .where({ school_id: schoolId, student_id: studentId })
    .orderBy('kind')
    .select('*');
  return byKind(rows.map(ruleFrom));
}

/**
 * What each kind of reader was shown of a student at the end of a day, by what was written down of it.
 */
export async function visibilityRulesOn(
  db: Database,
  { schoolId }: Pick<Actor, 'schoolId'>,
  studentId: StudentAccess<'read'>,
  when: { day: string; timeZone: string },
) {
  const [own, school] = [await writtenRules(db, schoolId, studentId), await writtenRules(db, schoolId, null)];
  return rulesFrom(
    asRules(await stateAtDay(db, 'visibility', { studentId }, own, when)),
    asRules(await stateAtDay(db, 'visibility', { schoolId }, school, when)),
  );
}
