import type { EntryMark } from '~/core/rules/rule';
import type { Database } from '../platform/db/database';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';
import { type FollowUp, followUpsOf } from './follow-ups';
import { marksFor } from './marks';
import { rulesReaching } from './rules';

/** What rules say of one entry, and what is to be done because of it. */
export interface RuledEntry {
  marks: (EntryMark & { rule: string })[];
  followUps: FollowUp[];
}

/** For members of the team, on the entry’s own page. */
export async function ruledEntry(
  db: Database,
  actor: Actor,
  studentId: StudentAccess<'see'>,
  entryId: string,
): Promise<RuledEntry> {
  const [all, rules, followUps] = await Promise.all([
    marksFor(db, actor, [{ id: entryId, studentId }], [studentId]),
    rulesReaching(db, actor.schoolId, [studentId], actor.today),
    followUpsOf(db, [studentId]),
  ]);
  const nameOf = new Map(rules.map(({ id, name }) => [id, name]));
  return {
    marks: (all[entryId] ?? []).map((mark) => ({ ...mark, rule: nameOf.get(mark.ruleId) ?? '' })),
    followUps: followUps.filter((one) => one.entryId === entryId),
  };
}
