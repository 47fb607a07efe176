import type { ReaderKind } from '~/core/sharing/reader-kind';
import type { Database } from '../platform/db/database';
import { type Marks, marksFor } from '../rules/marks';
import type { Actor } from '../school/school';
import type { StudentAccess } from '../students/access';
import { followUpsSaid } from './follow-ups-said';

/**
 * What stands below the entries of a report on paper, by the entry’s id: for the team what their rules mark; for every reader the follow-ups
 * that somebody put into the report.
 */
export async function remarksOn(
  db: Database,
  where: Pick<Actor, 'schoolId' | 'today'>,
  studentId: StudentAccess<'read'>,
  kind: ReaderKind,
  entries: readonly { id: string; studentId: string }[],
): Promise<Record<string, string[]>> {
  const followUps = await followUpsSaid(db, studentId, kind, entries);
  const marks: Marks = kind === 'team' ? await marksFor(db, where, entries, [studentId]) : {};
  const remarks = { ...followUps };
  for (const [id, some] of Object.entries(marks)) {
    remarks[id] = [`Marked: ${some.map(({ word }) => word).join(', ')}.`, ...(remarks[id] ?? [])];
  }
  return remarks;
}
