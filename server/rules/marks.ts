import type { IsoDate } from '~/core/calendar/iso-date';
import { marksOf } from '~/core/rules/fulfils';
import type { EntryMark } from '~/core/rules/rule';
import type { Database } from '../platform/db/database';
import type { StudentAccess } from '../students/access';
import { factsOf } from './facts';
import { rulesReaching } from './rules';

/** The marks of entries, by the entry's id; what has none is not in it. */
export type Marks = Record<string, EntryMark[]>;

/**
 * What the rules that stand now say of some entries: a view, stored nowhere, so that a rule reaches every entry there is, and a
 * correction takes a mark away again. For members of the team.
 */
export async function marksFor(
  db: Database,
  { schoolId, today }: { schoolId: string; today: IsoDate },
  entries: readonly { id: string; studentId: string }[],
  studentIds: readonly StudentAccess<'read'>[],
): Promise<Marks> {
  const shown = new Set(entries.map(({ studentId }) => studentId));
  const students = studentIds.filter((id) => shown.has(id));
  const rules = (await rulesReaching(db, schoolId, students, today)).filter(({ rule }) => rule.does.mark !== null);
  if (rules.length === 0) return {};
  const triggers = new Set(rules.map(({ rule }) => rule.when.trigger));
  const facts = await factsOf(db, students, triggers, { ids: entries.map(({ id }) => id) });
  const marks: Marks = {};
  for (const one of facts) {
    const own = marksOf(
      rules.filter(({ reaches }) => reaches.has(one.studentId)),
      one,
    );
    if (own.length > 0) marks[one.entryId] = own;
  }
  return marks;
}
