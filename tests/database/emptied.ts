import type { Database } from '~/server/platform/db/database';
import { rewriting } from './rewriting';

/**
 * Empties tables of a test’s own database, those too from which nothing may be removed, with what hangs on them.
 *
 * @param tables  all, unless it is said
 */
export async function emptied(db: Database, ...tables: string[]): Promise<void> {
  const all: string[] = await db('pg_tables').where({ schemaname: 'public' }).pluck('tablename');
  const wanted = tables.length > 0 ? tables : all.filter((table) => !table.startsWith('knex_'));
  await rewriting(db, (trx) => trx.raw(`truncate ${wanted.map((table) => `"${table}"`).join(', ')} cascade`));
}
