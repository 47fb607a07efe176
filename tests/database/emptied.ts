import type { Database } from '~/server/db/database';

/**
 * Empties tables of a test’s own database, those too from which nothing may be removed, with what hangs on them.
 *
 * @param tables  all, unless it is said
 */
export async function emptied(db: Database, ...tables: string[]): Promise<void> {
  await db.transaction(async (trx) => {
    const all: string[] = await trx('pg_tables').where({ schemaname: 'public' }).pluck('tablename');
    const wanted = tables.length > 0 ? tables : all.filter((table) => !table.startsWith('knex_'));
    await trx.raw('set local session_replication_role = replica');
    await trx.raw(`truncate ${wanted.map((table) => `"${table}"`).join(', ')} cascade`);
  });
}
