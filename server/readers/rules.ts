import { readerKinds } from '~/core/readers/reader-kind';
import { type ReaderRule, type ReaderRulesInput, rulesFrom } from '~/core/readers/reader-rule';
import { mustSetUp } from '../access/set-up';
import type { Database } from '../db/database';
import { type Actor, studentFor } from '../students/students';

interface RuleRow {
  student_id: string | null;
  kind: ReaderRule['kind'];
  shows: ReaderRule['shows'];
  layout: ReaderRule['layout'];
  grouping: ReaderRule['grouping'];
  oldest_first: boolean;
}

const ruleFrom = ({ kind, shows, layout, grouping, oldest_first }: RuleRow): ReaderRule => ({
  ...{ kind, shows, layout, grouping },
  oldestFirst: oldest_first,
});

/**
 * What each kind of reader is shown of a student, or by the school's default.
 *
 * @param studentId  null for the school's
 * @returns also which kinds have a rule of this student's own
 */
export async function readerRules(db: Database, studentId: string | null) {
  const rows: RuleRow[] = await db('reader_rules')
    .whereNull('student_id')
    .modify((query) => studentId && query.orWhere({ student_id: studentId }))
    .select('*');
  const own = rows.filter((row) => row.student_id !== null).map(ruleFrom);
  const school = rows.filter((row) => row.student_id === null).map(ruleFrom);
  return { rules: rulesFrom(own, school), own: own.map(({ kind }) => kind) };
}

/**
 * Writes what whom: of a student, for whom may share; of the school, for who sets it up. A student's rule that says the same as
 * the school's is none of its own, and follows the school's.
 *
 * @throws NotFound
 */
export async function saveReaderRules(
  db: Database,
  actor: Actor,
  studentId: string | null,
  input: ReaderRulesInput,
  now: Date,
): Promise<void> {
  if (studentId) await studentFor(db, actor, studentId, 'share');
  else await mustSetUp(db, actor);
  const { rules: school } = await readerRules(db, null);
  const said = ({ shows, layout, grouping, oldestFirst }: Omit<ReaderRule, 'kind'>) =>
    JSON.stringify([[...shows].sort(), layout, grouping, oldestFirst]);
  const wanted = readerKinds
    .map((kind) => ({ kind, ...input[kind] }))
    .filter((rule) => studentId === null || said(rule) !== said(school[rule.kind]));
  await db.transaction(async (trx) => {
    await trx('reader_rules').where({ student_id: studentId }).delete();
    const rows = wanted.map(({ kind, shows, layout, grouping, oldestFirst }) => ({
      ...{ student_id: studentId, kind, shows, layout, grouping, oldest_first: oldestFirst },
      ...{ changed_by: actor.personId, changed_at: now },
    }));
    if (rows.length > 0) await trx('reader_rules').insert(rows);
  });
}
