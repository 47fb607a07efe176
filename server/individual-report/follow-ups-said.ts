import { followUpSentence } from '~/core/rules/follow-up';
import type { ReaderKind } from '~/core/sharing/reader-kind';
import type { Database } from '../platform/db/database';
import { followUpsOf } from '../rules/follow-ups';
import { withoutOtherChildren } from '../sharing/other-children';
import type { StudentAccess } from '../students/access';

/** What stands below the entries of a report because somebody said so, by the entry's id: to readers from outside other children are “a classmate”. */
export async function followUpsSaid(
  db: Database,
  studentId: StudentAccess<'read'>,
  kind: ReaderKind,
  entries: readonly { id: string }[],
): Promise<Record<string, string[]>> {
  const shown = new Set(entries.map(({ id }) => id));
  const followUps = await followUpsOf(db, [studentId], { inReport: true });
  const asNotes = followUps.flatMap((one) =>
    one.entryId && shown.has(one.entryId)
      ? [{ id: one.id, entryId: one.entryId, note: followUpSentence(one), version: 0 }]
      : [],
  );
  const said: Record<string, string[]> = {};
  for (const { entryId, note } of kind === 'team' ? asNotes : await withoutOtherChildren(db, studentId, asNotes))
    said[entryId] = [...(said[entryId] ?? []), note];
  return said;
}
