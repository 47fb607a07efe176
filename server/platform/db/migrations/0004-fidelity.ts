import type { Knex } from 'knex';

/** A support may have steps, and an entry may say which of them were done. Nothing is said of what was recorded before. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table goal_phases add column steps jsonb not null default '[]' check (jsonb_typeof(steps) = 'array');
    alter table entries add column fidelity jsonb check (jsonb_typeof(fidelity) = 'array' and jsonb_array_length(fidelity) > 0);
    alter table entries add constraint entries_fidelity check (kind = 'goal' or fidelity is null);
  `);
}
