import type { Evidence } from '~/core/entries/evidence';
import type { Database } from '../../platform/db/database';
import { NotFound } from '../../platform/failures';
import type { StudentAccess } from '../../students/access';

const columns = ['id', 'entry_id as entryId', 'name', 'type', 'width', 'height', 'bytes'] as const;

/** What stands beside some entries, by the entry. Ask first whether pictures are shown. */
export async function evidenceOf(
  db: Database,
  studentId: StudentAccess<'read'>,
  entryIds: readonly string[],
): Promise<Record<string, Evidence[]>> {
  if (entryIds.length === 0) return {};
  const rows: (Omit<Evidence, 'isPicture'> & { type: string })[] = await db('evidence')
    .where({ student_id: studentId, withdrawn_at: null })
    .whereRaw('entry_id = any(?)', [[...entryIds]])
    .orderBy('added_at')
    .select(...columns);
  const byEntry: Record<string, Evidence[]> = {};
  for (const { type, ...row } of rows) {
    const one = { ...row, isPicture: type !== 'application/pdf' };
    byEntry[row.entryId] = [...(byEntry[row.entryId] ?? []), one];
  }
  return byEntry;
}

export interface EvidenceFile {
  entryId: string;
  name: string;
  type: string;
  content: Buffer;
}

/**
 * The file itself. Ask first whether its entry and pictures are shown.
 *
 * @throws NotFound
 */
export async function evidenceFile(
  db: Database,
  studentId: StudentAccess<'read'>,
  id: string,
  { isThumbnail }: { isThumbnail: boolean },
): Promise<EvidenceFile> {
  const row = await db('evidence')
    .where({ id, student_id: studentId, withdrawn_at: null })
    .first('entry_id', 'name', 'type', isThumbnail ? 'thumbnail as content' : 'content');
  if (!row?.content) throw new NotFound('No such file.');
  return { entryId: row.entry_id, name: row.name, type: row.type, content: row.content };
}
