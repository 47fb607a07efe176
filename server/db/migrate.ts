import type { Knex } from 'knex';
import { connect } from './database';
import { alone } from './lock';
import * as foundations from './migrations/0001-foundations';
import * as settingUp from './migrations/0002-setting-up';
import * as behavior from './migrations/0003-behavior';
import * as readers from './migrations/0004-readers';
import * as post from './migrations/0005-post';
import * as progressReports from './migrations/0006-progress-reports';
import * as evidence from './migrations/0007-evidence';
import * as doors from './migrations/0008-doors';

type Migration = { up: (db: Knex) => Promise<unknown>; down: (db: Knex) => Promise<unknown> };

/** All migrations in order. A landed one is never edited: the next one changes what it made. */
export const migrations: Record<string, Migration> = {
  '0001-foundations': foundations,
  '0002-setting-up': settingUp,
  '0003-behavior': behavior,
  '0004-readers': readers,
  '0005-post': post,
  '0006-progress-reports': progressReports,
  '0007-evidence': evidence,
  '0008-doors': doors,
};

const source: Knex.MigrationSource<string> = {
  getMigrations: async () => Object.keys(migrations),
  getMigrationName: (name) => name,
  getMigration: async (name) => migrations[name] as Migration,
};

/** Whoever makes or changes tables does it alone. */
const MIGRATING = 4310_0002;

/**
 * Brings the database's tables up to date, on a connection of its own that may take its time. Several processes may ask for it at
 * once: one does it, the others find it done.
 *
 * @throws Error in one sentence when the database was made by a newer version of the project
 */
export async function migrate(url: string): Promise<void> {
  await alone(url, MIGRATING, async () => {
    const db = connect(url, { poolSize: 2, longest: 0 });
    try {
      await db.migrate.latest({ migrationSource: source });
    } catch (error) {
      if (error instanceof Error && error.message.includes('migration directory is corrupt')) {
        throw new Error(
          'This database was made by a newer version of Gentle Margin; use that version, or another database.',
          { cause: error },
        );
      }
      throw error;
    } finally {
      await db.destroy();
    }
  });
}
