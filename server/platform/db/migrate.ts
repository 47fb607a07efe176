import type { Knex } from 'knex';
import { defined } from '~/core/defined';
import { connect } from './database';
import { guard } from './guard';
import { alone } from './lock';
import * as beginning from './migrations/0001-beginning';
import * as names from './migrations/0002-names';
import * as terms from './migrations/0003-terms';
import * as fidelity from './migrations/0004-fidelity';
import * as desk from './migrations/0005-desk';
import * as forms from './migrations/0006-forms';
import * as devices from './migrations/0007-devices';
import * as devicesOfSeveral from './migrations/0008-devices-of-several';
import * as rules from './migrations/0009-rules';
import * as readers from './migrations/0010-readers';
import * as movingIn from './migrations/0011-moving-in';
import * as imports from './migrations/0012-imports';
import * as district from './migrations/0013-district';
import * as records from './migrations/0014-records';
import * as unharmed from './migrations/0015-unharmed';

type Migration = { up: (db: Knex) => Promise<unknown> };

/**
 * All migrations in order. A landed one is never edited: the next one changes what it made, and keeps the data. None goes back; what
 * went wrong is put back from a copy.
 */
export const migrations: Record<string, Migration> = {
  '0001-beginning': beginning,
  '0002-names': names,
  '0003-terms': terms,
  '0004-fidelity': fidelity,
  '0005-desk': desk,
  '0006-forms': forms,
  '0007-devices': devices,
  '0008-devices-of-several': devicesOfSeveral,
  '0009-rules': rules,
  '0010-readers': readers,
  '0011-moving-in': movingIn,
  '0012-imports': imports,
  '0013-district': district,
  '0014-records': records,
  '0015-unharmed': unharmed,
};

const cannotGoBack = async () => {
  throw new Error('A migration cannot be undone: put the copy back that was made before it.');
};

const source: Knex.MigrationSource<string> = {
  getMigrations: async () => Object.keys(migrations),
  getMigrationName: (name) => name,
  getMigration: async (name) => ({ ...defined(migrations[name]), down: cannotGoBack }),
};

/** Refuses: kept so that whoever tries it reads why. */
export const undoLastMigration = (db: Knex): Promise<unknown> => db.migrate.rollback({ migrationSource: source });

/** Whoever makes or changes tables does it alone. */
const MIGRATING = 4310_0002;

/**
 * Brings the database's tables up to date, on a connection of its own that may take its time. Several processes may ask for it at
 * once: one does it, the others find it done.
 *
 * @param hasGuard  whether the database guards students’ rows too
 * @throws Error in one sentence when the database was made by another version of the project, or its user may not make roles
 */
export async function migrate(url: string, { hasGuard = true } = {}): Promise<void> {
  await alone(url, MIGRATING, async () => {
    const db = connect(url, { poolSize: 2, longest: 0 });
    try {
      await db.migrate.latest({ migrationSource: source });
      if (hasGuard) await guard(db);
    } catch (error) {
      if (error instanceof Error && error.message.includes('migration directory is corrupt')) {
        throw new Error(
          'This database was made by another version of Gentle Margin; use that version, or another database.',
          { cause: error },
        );
      }
      throw error;
    } finally {
      await db.destroy();
    }
  });
}
