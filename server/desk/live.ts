import { z } from 'zod';
import type { Database } from '../platform/db/database';
import { rowsOf } from '../platform/db/rows';

const idRow = z.object({ id: z.uuid() });

/** The students whom the one who asks may know of on this day, as the database has it. */
export async function visibleStudents(db: Database): Promise<string[]> {
  const found = await rowsOf(db, idRow, `select unnest(visible_students()) as id`);
  return found.map(({ id }) => id);
}
