import type { Database } from '../platform/db/database';
import type { ImportPartsRow } from '../platform/db/tables';

export type PartKind = ImportPartsRow['kind'];

/** One thing that came in with a file: a row that is new, or what it said before and after. */
export interface Part {
  kind: PartKind;
  studentId: string | null;
  rowId: string;
  before?: unknown;
  after?: unknown;
}

const AT_ONCE = 1000;

/** Writes down what came in, in its order. */
export async function keepParts(db: Database, importId: string, parts: readonly Part[]): Promise<void> {
  const rows = parts.map(({ kind, studentId, rowId, before, after }, position) => ({
    ...{ import_id: importId, position, kind, student_id: studentId, row_id: rowId },
    ...{
      before: before === undefined ? null : JSON.stringify(before),
      after: after === undefined ? null : JSON.stringify(after),
    },
  }));
  for (let from = 0; from < rows.length; from += AT_ONCE) {
    await db('import_parts').insert(rows.slice(from, from + AT_ONCE));
  }
}

/** What came in with a file, the last first: in the order in which it is taken back. */
export const partsOf = (db: Database, importId: string): Promise<ImportPartsRow[]> =>
  db('import_parts').where({ import_id: importId }).orderBy('position', 'desc');
