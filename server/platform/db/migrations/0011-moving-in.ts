import type { Knex } from 'knex';

/**
 * Moving in. Documents of several students can be of goals that were chosen one by one.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table document_batches
      -- Goals chosen one by one, beside those of the areas; null where none was.
      add column goals uuid[] check (cardinality(goals) > 0);
  `);
}
